import { createHash } from 'node:crypto';
import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { allMade, makeJob, readJob, test } from './support';

const bytes = async (page: Page) => Number(await page.getByTestId('bytes').getAttribute('data-bytes'));

test('curves are weighed, a point is chosen by click and by keys, and kept for the slot', async ({
  page,
}) => {
  const slot = 'skerry-site/opening-large';
  const job = await makeJob(
    page,
    'Curves',
    ['DSC_0412.JPG', 'DSC_0415.JPG'],
    [slot, 'skerry-shop/grid-square'],
  );
  const [mine, other] = job.pictures.map((one) => one.id) as [string, string];
  await page.goto(`/job/${job.id}`);
  await allMade(page);
  const before = await readJob(page, job.id);
  await page.goto(`/job/${job.id}/weighing/${mine}/${slot}`);
  const curves = page.getByTestId('curves');
  // Seven qualities, and the file itself where it has another.
  await expect
    .poll(() => curves.locator('[data-testid=curve-jpeg] circle').count(), { timeout: 60_000 })
    .toBeGreaterThanOrEqual(7);
  await expect(curves.getByTestId('chosen-point')).toBeVisible();
  const found = await bytes(page);
  // The lightest point of the line.
  await curves.locator('[data-testid=curve-jpeg] circle').first().click({ force: true });
  await expect.poll(() => bytes(page), { timeout: 20_000 }).toBeLessThan(found / 2);
  await expect(page.getByText('Quality 15', { exact: true })).toBeVisible();
  const light = await bytes(page);
  await curves.getByRole('slider').focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(() => bytes(page), { timeout: 20_000 }).toBeGreaterThan(light);
  await expect(page.getByText('Quality 25', { exact: true })).toBeVisible();
  await page.keyboard.press('2');
  await expect(page.getByText('This quality is in use.')).toBeVisible();
  await expect
    .poll(
      async () =>
        (await readJob(page, job.id))
          .cell(other, slot)
          .files.every((file) => file.quality === 25 && file.made),
      {
        timeout: 60_000,
      },
    )
    .toBe(true);
  const after = await readJob(page, job.id);
  expect(after.cell(mine, 'skerry-shop/grid-square')).toEqual(before.cell(mine, 'skerry-shop/grid-square'));
  // Back: nothing is made again, the files are still there.
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect
    .poll(async () => (await readJob(page, job.id)).cell(other, slot))
    .toEqual(before.cell(other, slot));
});

test('the place is never empty: the frame first, then the file on both sides, and its own point in the drawing', async ({
  page,
}) => {
  const slot = 'harbour-market/listing';
  const job = await makeJob(page, 'Never empty', ['P1050233.JPG'], [slot]);
  let letGo = () => {};
  const held = new Promise<void>((resolve) => (letGo = resolve));
  await page.route('**/trial', async (route) => {
    await held;
    await route.continue();
  });
  await page.route('**/curve', (route) => route.abort());
  await page.route('**/reference*', (route) => route.abort());
  await page.goto(`/job/${job.id}/weighing/${job.pictures[0]!.id}/${slot}`);
  // Not only there: drawn.
  await expect
    .poll(() =>
      page
        .getByTestId('meanwhile')
        .locator('img')
        .first()
        .evaluate((image: HTMLImageElement) => image.naturalWidth),
    )
    .toBeGreaterThan(0);
  letGo();
  await expect(page.getByTestId('after')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByTestId('meanwhile')).toHaveCount(0);
  await expect(page.getByTestId('before')).toBeHidden();
  await expect(page.getByText('Lossless (loading)')).toBeVisible();
  await expect(page.getByTestId('curves').locator('[data-testid=curve-jpeg] circle')).toHaveCount(1);
});

test('the file is compared, its worst place found, and the very same bytes are downloaded', async ({
  page,
}, info) => {
  const slot = 'harbour-market/listing';
  const job = await makeJob(page, 'Bytes', ['P1050233.JPG'], [slot]);
  await page.goto(`/job/${job.id}/weighing/${job.pictures[0]!.id}/${slot}`);
  const link = page.locator('a[data-download]');
  await expect(link).toBeVisible({ timeout: 60_000 });
  await expect(page.getByTestId('likeness')).toContainText(/likeness 0\.9\d\d/);
  await expect(page.getByTestId('loading')).toContainText(/times lighter/);
  await page.getByLabel('Connection').selectOption('20');
  await expect(page.getByTestId('loading')).toContainText('20 Mbit/s');
  await page.keyboard.press('Tab');
  await page.keyboard.press('w');
  await expect(page.getByTestId('worst')).toBeInViewport();
  const divider = page.getByRole('slider', { name: /Divider/ });
  const box = (await divider.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + 60);
  await page.mouse.down();
  await page.mouse.move(box.x - 180, box.y + 60, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => Number(await divider.getAttribute('aria-valuenow'))).toBeLessThan(45);
  await page.keyboard.down('s');
  await expect(divider).toBeHidden();
  await page.keyboard.up('s');
  await expect(divider).toBeVisible();

  const shown = await bytes(page);
  const name = await page.getByTestId('file-name').textContent();
  const seen = await page.getByTestId('after').getAttribute('src');
  const waiting = page.waitForEvent('download');
  await page.keyboard.press('d');
  const download = await waiting;
  expect(download.suggestedFilename()).toBe(name);
  const saved = readFileSync(await download.path());
  expect(saved.length).toBe(shown);
  const looked = await (await page.request.get(seen!)).body();
  const hash = (data: Buffer) => createHash('sha256').update(data).digest('hex');
  expect(hash(looked)).toBe(hash(saved));
  const folder = info.outputPath();
  mkdirSync(folder, { recursive: true });
  writeFileSync(join(folder, 'file.jpg'), saved);
  expect(
    execFileSync('identify', ['-format', '%m %wx%h', join(folder, 'file.jpg')], { encoding: 'utf8' }),
  ).toBe('JPEG 2500x2000');
});

test('types that the slot does not take are drawn for comparison and cannot be picked', async ({ page }) => {
  const slot = 'skerry-shop/grid-square';
  const job = await makeJob(page, 'Others', ['IMG_2109.jpg'], [slot]);
  await page.goto(`/job/${job.id}/weighing/${job.pictures[0]!.id}/${slot}`);
  const curve = (type: string) => page.getByTestId(`curve-${type}`).locator('circle');
  await expect.poll(() => curve('jpeg').count(), { timeout: 60_000 }).toBeGreaterThanOrEqual(7);
  await expect(curve('webp')).toHaveCount(0);
  await page.keyboard.press('o');
  await expect(curve('webp')).toHaveCount(5, { timeout: 60_000 });
  const found = await bytes(page);
  await curve('webp').first().click({ force: true });
  await curve('jpeg').first().click({ force: true });
  // The click on the slot's own type counts alone.
  await expect(page.getByText('Quality 15', { exact: true })).toBeVisible();
  await expect.poll(() => bytes(page)).toBeLessThan(found);
  await page.keyboard.press('o');
  await expect(curve('webp')).toHaveCount(0);
});

test('a quality by hand over the limit is held back until it is let through', async ({ page }) => {
  const slot = 'skerry-shop/grid-square';
  const job = await makeJob(page, 'Heavy', ['weatherworks-mark.png', 'DSC_0452.JPG'], [slot]);
  const id = job.pictures[1]!.id;
  await page.goto(`/job/${job.id}/weighing/${id}/${slot}`);
  await expect(page.locator('a[data-download]')).toBeVisible({
    timeout: 60_000,
  });
  await page.getByRole('slider', { name: /^Quality/ }).fill('100');
  await expect(page.getByText('Breaks', { exact: true })).toBeVisible({
    timeout: 30_000,
  });
  await expect(page.getByText(/bytes over the limit of 55/)).toBeVisible();
  await page.keyboard.press('1');
  await expect(page.getByText('This quality is in use.')).toBeVisible();
  await allMade(page);
  await page.keyboard.press('g');
  const held = page.getByRole('region', { name: /^Not delivered/ });
  await expect(held.getByRole('listitem')).toHaveCount(2, { timeout: 30_000 });
  const before = await page.getByTestId('bundle-weight').textContent();
  await held.getByRole('button', { name: 'Allow anyway' }).first().click();
  await expect(held.getByRole('listitem')).toHaveCount(1);
  await expect(page.getByTestId('bundle-weight')).not.toHaveText(before!);
});
