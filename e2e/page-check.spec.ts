import { execFileSync } from 'node:child_process';
import { copyFileSync, mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { test } from './support';

const pictures = join(import.meta.dirname, '../demo/pictures');

test('a page is sent as a folder, measured, and looked at picture by picture', async ({ page }) => {
  const folder = join(mkdtempSync(join(tmpdir(), 'pantomet-page-')), 'spring-page');
  mkdirSync(join(folder, 'pictures'), { recursive: true });
  // Larger than the page shows it anywhere, and no larger.
  execFileSync('convert', [
    join(pictures, 'DSC_0412.JPG'),
    '-resize',
    '1400x',
    join(folder, 'pictures/barometer.jpg'),
  ]);
  copyFileSync(join(pictures, 'weatherworks-mark.png'), join(folder, 'pictures/mark.png'));
  writeFileSync(
    join(folder, 'index.html'),
    `<!doctype html><body style="margin:0">
     <img src="pictures/mark.png" width="40" height="40" alt="Skerry Weatherworks">
     <img src="pictures/barometer.jpg" style="width:50%;display:block" alt="">
     <div style="height:200px;background:url(pictures/barometer.jpg) center/cover"></div>`,
  );
  await page.request.post('/api/destinations', { data: { name: 'Columns of pages' } });
  await page.goto('/page-checks');
  await page.getByLabel('Address of your page').fill('harbour');
  await page.getByRole('button', { name: 'Measure' }).click();
  await expect(page.getByRole('alert')).toContainText('begins with http');
  await page.getByLabel("Choose a page's folder").setInputFiles(folder);

  // It is measured in the background; what it loads stands over what would be enough.
  const totals = page.getByTestId('screen-totals');
  await expect(page.getByText(/Measuring|Making lighter files|Waiting/)).toBeVisible();
  await expect(totals).toContainText('would be enough', { timeout: 120_000 });
  await expect(page.getByRole('heading', { name: 'spring-page' })).toBeVisible();
  const outlines = page.getByTestId('page').getByRole('button');
  await expect(outlines).toHaveCount(3);
  await expect(page.getByRole('radio', { name: '1280 px at 1x' })).toHaveAttribute('aria-checked', 'true');

  // An outline lies where the picture does, at the scale of the page.
  const widths = await outlines.evaluateAll((all) => all.map((one) => one.getBoundingClientRect().width));
  const shot = await page.getByRole('img', { name: /The page on a screen/ }).boundingBox();
  const shares = widths.map((width) => width / shot!.width).toSorted((one, other) => one - other);
  for (const [i, share] of [40 / 1280, 0.5, 1].entries()) expect(shares[i]).toBeCloseTo(share, 2);

  // The one that gains most comes first; keys go on; the divider shows both at true pixels.
  const list = page.getByRole('complementary', { name: 'Pictures' });
  await expect(list.getByText(/too many pixels/).first()).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await expect(list.getByRole('button').nth(1)).toHaveAttribute('aria-expanded', 'true');
  await page.keyboard.press('c');
  const beside = page.getByTestId('two-pictures');
  for (const name of ['Loaded', 'Enough'])
    await expect
      .poll(() => beside.getByAltText(name).evaluate((one: HTMLImageElement) => one.naturalWidth))
      .toBeGreaterThan(0);
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('page')).toBeVisible();

  // The ruler: any part of the page that is clicked becomes a slot as wide as it is.
  await page.keyboard.press('r');
  const panel = page.getByRole('complementary', { name: 'Ruler' });
  await expect(panel.getByText('Click any part of the page')).toBeVisible();
  const ruler = page.getByTestId('ruler');
  const sheet = (await ruler.boundingBox())!;
  // The second picture is as wide as half of the page, and begins below the sign.
  await ruler.click({ position: { x: sheet.width * 0.25, y: 60 } });
  await expect(panel.getByRole('heading')).toHaveText('640 px wide');
  await panel.getByRole('combobox', { name: 'Destination' }).selectOption('Columns of pages');
  await panel.getByRole('checkbox', { name: /1.5x, 960 px/ }).check();
  await panel.getByRole('textbox', { name: 'Slot' }).fill('Half of the spring page');
  await panel.getByRole('button', { name: 'Add as a slot' }).click();
  await expect(panel.getByRole('link', { name: 'Half of the spring page' })).toBeVisible();
  const { rule } = await (
    await page.request.get('/api/destinations/columns-of-pages/slots/half-of-the-spring-page')
  ).json();
  expect(rule).toMatchObject({ size: { width: 640 }, densities: [1, 1.5, 2] });
  await page.keyboard.press('Escape');

  // Other screens have other totals; what is removed is gone.
  const before = await totals.textContent();
  await page.getByRole('radio', { name: '360 px at 1x' }).click();
  await expect(totals).not.toHaveText(before!);

  // One step to the job: a slot for each kind of place, and only what the page shows there.
  await page.getByRole('button', { name: 'Make a job' }).click();
  await expect(page).toHaveURL(/\/job\//);
  await expect(page.getByText('skipped').first()).toBeVisible();
  const job = page.url().split('/').pop()!;
  const { head, cells } = await (await page.request.get(`/api/jobs/${job}`)).json();
  expect(head.pictures.length).toBe(2);
  expect(new Set(head.slots.map((slot: { destination: string }) => slot.destination)).size).toBe(1);
  expect(cells.length).toBe(head.pictures.length * head.slots.length);

  await page.goto('/page-checks');
  await page.getByRole('button', { name: 'Remove spring-page' }).click();
  await expect(page.getByRole('link', { name: /spring-page/ })).toHaveCount(0);
});

test('a page gets the files of the job that was made of it, and stands beside what it was', async ({
  page,
}) => {
  const { id } = await (
    await page.request.post('/api/page-checks', {
      data: { name: 'Autumn page', viewports: [360, 768], densities: [1] },
    })
  ).json();
  const files = {
    'index.html': '<!doctype html><body style="margin:0"><img src="chat.jpg" width="50%" alt="A barometer">',
    'chat.jpg': readFileSync(join(pictures, 'barometer-from-chat.jpg')),
  };
  for (const [path, data] of Object.entries(files))
    await page.request.put(`/api/page-checks/${id}/files?path=${path}`, {
      data: Buffer.from(data),
      headers: { 'content-type': 'application/octet-stream' },
    });
  await page.request.post(`/api/page-checks/${id}/start`);
  await page.goto(`/page-checks/${id}`);
  await page.getByRole('button', { name: 'Make a job' }).click({ timeout: 60_000 });
  await expect(page).toHaveURL(/\/job\//);
  const job = page.url().split('/').pop()!;
  await page.goto(`/job/${job}/handing-over/old-page`);
  // Files are made in the background, after those of other jobs.
  await expect
    .poll(async () => (await (await page.request.get(`/api/jobs/${job}/hand-over`)).json()).going, {
      timeout: 100_000,
    })
    .toBe(10);
  await page.getByRole('button', { name: 'Replace the pictures in the page' }).click();
  await expect(page.getByText('1 of 1 picture replaced')).toBeVisible({ timeout: 60_000 });
  const mended = page.getByTestId('mended-page');
  await expect(mended.getByAltText('The page before')).toBeVisible();
  await page.keyboard.press('x');
  await expect(mended.getByAltText('Differences between the page before and after')).toBeVisible();
  const weightOf = await page.getByTestId('mended-weight').textContent();
  await page.getByRole('radio', { name: '768 px' }).click();
  await expect(page.getByTestId('mended-weight')).not.toHaveText(weightOf!);
  const loading = page.waitForEvent('download');
  await page.keyboard.press('d');
  expect((await loading).suggestedFilename()).toBe('mended-page.zip');
});

test('the built site of the demo answers under its folder', async ({ page }) => {
  await page.goto('/example/');
  await expect(page).toHaveURL(/\/example\/index\.html$/);
  await expect(page.getByRole('heading', { name: 'Weather, measured in brass' })).toBeVisible();
});
