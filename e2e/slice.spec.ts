import { createHash } from 'node:crypto';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { expect, type Page, test } from '@playwright/test';

// An open photograph of Debian's package lomiri-wallpapers-16.04; it is not in the repository.
const photograph = '/usr/share/backgrounds/Bridge_by_Sander_Klootwijk.jpg';

async function open(page: Page, picture: string, slot: RegExp) {
  await page.goto('/');
  await page.getByTitle(picture, { exact: true }).first().click();
  await page.getByRole('region', { name: 'Places' }).getByRole('button', { name: slot }).click();
  await expect(page.locator('[data-part=frame]')).toBeVisible();
}

async function figures(page: Page) {
  const value = async (name: string) => Number(await page.getByRole('textbox', { name }).inputValue());
  return {
    x: await value('From the left'),
    y: await value('From the top'),
    width: await value('Width'),
    height: await value('Height'),
  };
}

test('a picture goes the whole way: read in, framed by dragging, weighed, downloaded', async ({
  page,
}, info) => {
  const elsewhere: string[] = [];
  page.on('request', (request) => {
    if (!request.url().startsWith('http://127.0.0.1:5499/') && !/^(data|blob):/.test(request.url()))
      elsewhere.push(request.url());
  });
  const folder = info.outputPath();
  mkdirSync(folder, { recursive: true });
  const pageFile = join(folder, 'page.jpg');
  writeFileSync(pageFile, '<!doctype html><p>Not found</p>');

  await page.goto('/');
  await page.locator('input[type=file]').setInputFiles([photograph, pageFile]);
  const arrivals = page.getByRole('region', { name: 'Reading in' });
  await expect(arrivals.getByText('1 of 2 read in, 1 refused')).toBeVisible({ timeout: 30_000 });
  await expect(arrivals.getByText('The file is a web page, not a picture.')).toBeVisible();
  await page.locator('input[type=file]').setInputFiles(photograph);
  await expect(arrivals.getByText(/The same file is here already/)).toBeVisible({ timeout: 30_000 });
  await arrivals.getByRole('button', { name: 'Put away' }).click();

  await open(page, 'Bridge_by_Sander_Klootwijk.jpg', /^Listing photo/);
  const before = await figures(page);
  // The widest frame, at the left edge because the foreshore there was suggested.
  expect(before).toEqual({ x: 0, y: 0, width: 3060, height: 2448 });
  await expect(page.getByText(/a suggestion until it is confirmed/).first()).toBeVisible();

  // Draw the frame to the right by its middle; the picture follows the pointer in its own pixels.
  const frame = page.locator('[data-part=frame]');
  const box = (await frame.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 60, box.y + box.height / 2 + 20, { steps: 6 });
  await page.mouse.up();
  const scale = box.width / before.width;
  await expect.poll(async () => Math.abs((await figures(page)).x - 60 / scale)).toBeLessThan(3);
  await expect(page.getByText('Framed by hand.')).toBeVisible();
  const dragged = await figures(page);
  expect(dragged.y).toBe(0);

  await page.keyboard.press('Control+z');
  await expect.poll(() => figures(page)).toEqual(before);
  await page.keyboard.press('Control+Shift+Z');
  await expect.poll(() => figures(page)).toEqual(dragged);

  await page.getByRole('button', { name: /Go on to weighing/ }).click();
  const link = page.locator('a[data-download]');
  await expect(link).toBeVisible({ timeout: 60_000 });
  const bytes = Number(await page.getByTestId('bytes').getAttribute('data-bytes'));
  expect(bytes).toBeLessThanOrEqual(1_000_000);
  await page.getByLabel('Quality', { exact: false }).first().waitFor();
  await page.getByRole('slider', { name: /^Quality/ }).fill('60');
  await expect(page.getByText('by hand', { exact: true })).toBeVisible();
  await expect
    .poll(async () => Number(await page.getByTestId('bytes').getAttribute('data-bytes')), { timeout: 30_000 })
    .toBeLessThan(bytes);
  await expect(link).toBeVisible({ timeout: 30_000 });

  await expect(page.getByTestId('likeness')).toContainText(/likeness 0\.9\d\d/);
  await page.keyboard.press('w');
  await expect(page.getByTestId('worst')).toBeInViewport();

  const shown = Number(await page.getByTestId('bytes').getAttribute('data-bytes'));
  const name = await page.getByTestId('file-name').textContent();
  const seen = await page.getByTestId('after').getAttribute('src');
  const waiting = page.waitForEvent('download');
  await page.keyboard.press('d');
  const download = await waiting;
  expect(download.suggestedFilename()).toBe(name);
  expect(name).toBe('bridge-by-sander-klootwijk-listing.jpg');
  const saved = readFileSync(await download.path());
  expect(saved.length).toBe(shown);
  const looked = await (await page.request.get(seen!)).body();
  expect(createHash('sha256').update(looked).digest('hex')).toBe(
    createHash('sha256').update(saved).digest('hex'),
  );
  const file = join(folder, name!);
  writeFileSync(file, saved);
  expect(execFileSync('identify', ['-format', '%m %wx%h', file], { encoding: 'utf8' })).toBe(
    'JPEG 2500x2000',
  );

  const list = (await (await page.request.get('/api/pictures')).json()) as { id: string; name: string }[];
  const kept = await page.request.get(
    `/api/pictures/${list.find((one) => one.name.startsWith('Bridge'))!.id}/original`,
  );
  expect(Buffer.compare(await kept.body(), readFileSync(photograph))).toBe(0);
  expect(elsewhere).toEqual([]);
});

test('files may be dropped anywhere or pasted', async ({ page }) => {
  await page.goto('/');
  for (const kind of ['drop', 'paste'] as const) {
    await page.evaluate(async (kind) => {
      const canvas = new OffscreenCanvas(kind === 'drop' ? 64 : 80, 48);
      const context = canvas.getContext('2d')!;
      context.fillStyle = kind === 'drop' ? '#b08030' : '#305080';
      context.fillRect(0, 0, 80, 48);
      const file = new File([await canvas.convertToBlob({ type: 'image/png' })], `${kind}ped.png`, {
        type: 'image/png',
      });
      const data = new DataTransfer();
      data.items.add(file);
      const event =
        kind === 'drop'
          ? new DragEvent('drop', { dataTransfer: data, bubbles: true })
          : new ClipboardEvent('paste', { clipboardData: data, bubbles: true });
      document.body.dispatchEvent(event);
    }, kind);
    await expect(page.getByTitle(`${kind}ped.png`, { exact: true }).first()).toBeVisible({ timeout: 20_000 });
  }
});

test('keys, wheel and exact figures frame as well, and the shape is kept', async ({ page }) => {
  await open(page, 'P1050233.JPG', /^Cover/);
  const shape = 851 / 315;
  const widest = await figures(page);
  expect(widest.width).toBe(4800);

  await page.keyboard.press('t');
  await expect.poll(async () => (await figures(page)).width).toBe(4560);
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => (await figures(page)).x).toBe(168);
  await page.keyboard.press('Shift+ArrowLeft');
  await expect.poll(async () => (await figures(page)).x).toBe(167);

  const box = (await page.locator('[data-part=frame]').boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.wheel(0, -300);
  await expect.poll(async () => (await figures(page)).width).toBeLessThan(4000);

  await page.getByRole('textbox', { name: 'Width' }).fill('2000');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await figures(page)).width).toBe(2000);
  const exact = await figures(page);
  expect(exact.height).toBeCloseTo(2000 / shape, 0);
  await expect(page.getByTestId('offer')).toHaveText('This frame offers 2.35x at most.');

  const corner = (await page.locator('[data-part=bottom-right]').boundingBox())!;
  await page.mouse.move(corner.x + corner.width / 2, corner.y + corner.height / 2);
  await page.mouse.down();
  await page.mouse.move(corner.x - 80, corner.y - 10, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => (await figures(page)).width).toBeLessThan(1900);
  const drawn = await figures(page);
  expect(Math.abs(drawn.width / drawn.height - shape)).toBeLessThan(0.01);

  await page.getByRole('button', { name: 'Widest' }).click();
  await expect.poll(() => figures(page)).toEqual(widest);
});

test('a frame let loose while it is still being saved is let go of', async ({ page }) => {
  await open(page, 'P1050233.JPG', /^Cover/);
  const widest = await figures(page);
  await page.keyboard.press('t');
  await expect(page.getByRole('button', { name: 'Widest' })).toBeEnabled();
  // The answer to the next change comes late, after Widest was asked for.
  await page.route('**/framings/**', async (route) => {
    if (route.request().method() === 'PUT') await new Promise((done) => setTimeout(done, 600));
    await route.continue();
  });
  await page.keyboard.press('t');
  await page.getByRole('button', { name: 'Widest' }).click();
  await expect.poll(() => figures(page)).toEqual(widest);
});

test('a picture too small for a dense screen is told so, in figures', async ({ page }) => {
  await open(page, 'barometer-from-chat.jpg', /^Opening picture, large/);
  await expect(page.getByText(/it offers 0\.6x of the 1x asked/)).toBeVisible();
  await expect(page.getByText(/it offers 0\.6x of the 2x asked/)).toBeVisible();
});

test('the divider is drawn and S sees through', async ({ page }) => {
  await open(page, 'IMG_2102.jpg', /^Header strip/);
  await page.keyboard.press('g');
  await expect(page.locator('a[data-download]')).toBeVisible({ timeout: 60_000 });
  const divider = page.getByRole('slider', { name: /Divider/ });
  await expect(divider).toHaveAttribute('aria-valuenow', '50');
  const box = (await divider.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + 200);
  await page.mouse.down();
  await page.mouse.move(box.x - 180, box.y + 200, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => Number(await divider.getAttribute('aria-valuenow'))).toBeLessThan(40);
  await page.keyboard.down('s');
  await expect(divider).toBeHidden();
  await page.keyboard.up('s');
  await expect(divider).toBeVisible();
});

test('the keys are listed and the screens fit', async ({ page }) => {
  for (const width of [1280, 1024]) {
    await page.setViewportSize({ width, height: 800 });
    await open(page, 'DSC_0423.JPG', /^Grid square/);
    const overflow = await page.evaluate(
      () =>
        document.documentElement.scrollWidth > innerWidth ||
        document.documentElement.scrollHeight > innerHeight,
    );
    expect(overflow).toBe(false);
  }
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.goto('/nowhere');
  await expect(page.getByText('There is nothing at this address.')).toBeVisible();
});
