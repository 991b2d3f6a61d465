import { copyFileSync, mkdirSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { test } from './support';

test('a folder of the machine is looked through, tried, put right, and put back', async ({ page }) => {
  test.setTimeout(300_000);
  await page.goto('/folders');
  const field = page.getByLabel('Folder on this machine');
  const allowed = await field.inputValue();
  await field.fill('/etc');
  await page.getByRole('button', { name: 'Scan' }).click();
  await expect(page.getByRole('alert')).toContainText('Only these folders');
  await field.fill(`${allowed}/2025`);
  await page.getByRole('button', { name: 'Scan' }).click();

  // What it comes to; each figure lists its pictures.
  const figures = page.getByRole('radiogroup', { name: 'Filter' });
  await expect(figures.getByRole('radio', { name: '7 pictures' })).toBeVisible({ timeout: 30_000 });
  const list = page.getByTestId('folder-pictures');
  await expect(list.getByRole('row')).toHaveCount(8);
  await figures.getByRole('radio', { name: '1 with a wrong file extension' }).click();
  await expect(list.getByRole('row')).toHaveCount(2);
  await expect(list).toContainText('banner-final.png');
  await figures.getByRole('radio', { name: '7 pictures' }).click();

  // Tried, nothing is touched, and what it would come to is told.
  await page.getByLabel('Longer side at most').fill('5');
  await page.getByRole('button', { name: 'Preview (nothing is changed)' }).click();
  await expect(page.getByRole('alert')).toContainText('longer side');
  await page.getByLabel('Longer side at most').fill('500');
  await page.getByLabel('Likeness at least').fill('0.9');
  await page.getByRole('button', { name: 'Preview (nothing is changed)' }).click();
  const forecast = page.getByTestId('forecast');
  await expect(forecast).toContainText('7 would be replaced', { timeout: 120_000 });
  await expect(figures.getByRole('radio', { name: /lighter now/ })).toHaveCount(0);

  // What was made is listed, small and with its weights; a picture opens before and after.
  await expect(figures.getByRole('radio', { name: '7 previewed' })).toBeChecked();
  await expect(list.getByRole('row')).toHaveCount(8);
  const small = list.getByRole('row').nth(1).locator('img');
  await expect.poll(() => small.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(0);
  await list
    .getByRole('row')
    .nth(1)
    .getByRole('button', { name: /^Compare / })
    .click();
  const both = page.getByTestId('before-after');
  await expect(both).toContainText('Before: ');
  await expect(both).toContainText('After: ');
  for (const name of ['Before', 'After']) {
    const image = both.getByRole('img', { name });
    await expect
      .poll(() => image.evaluate((img: HTMLImageElement) => img.naturalWidth), { timeout: 20_000 })
      .toBeGreaterThan(0);
  }
  await page.keyboard.press('Escape');

  // Put right, it comes to what was told; the originals are kept.
  await page.getByRole('button', { name: 'Optimise' }).click();
  await expect(page.getByText('7 of 7 pictures are lighter')).toBeVisible({ timeout: 120_000 });
  await expect(page.getByRole('heading', { name: '7 originals are kept' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Remove' })).toBeDisabled();

  // One comes back, then some, then all.
  await list.getByRole('row').nth(1).getByRole('button', { name: 'Restore', exact: true }).click();
  await expect(page.getByRole('heading', { name: '6 originals are kept' })).toBeVisible({ timeout: 30_000 });
  const boxes = list.getByRole('checkbox');
  await expect(boxes).toHaveCount(6);
  await boxes.nth(0).check();
  await boxes.nth(1).check();
  await page.getByRole('button', { name: 'Restore 2' }).click();
  await expect(page.getByRole('heading', { name: '4 originals are kept' })).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Restore all' }).click();
  await expect(page.getByRole('heading', { name: /originals? (is|are) kept/ })).toHaveCount(0, {
    timeout: 30_000,
  });
  await page.getByRole('button', { name: 'Remove' }).click();
  await expect(page).toHaveURL(/\/folders$/);
});

test('a folder that is sent is put right and taken home', async ({ page }) => {
  test.setTimeout(180_000);
  const folder = join(mkdtempSync(join(tmpdir(), 'pantomet-sent-')), 'harbour-fair');
  mkdirSync(join(folder, 'stalls'), { recursive: true });
  const picture = join(import.meta.dirname, '../demo/pictures/barometer-from-chat.jpg');
  for (const path of ['first.jpg', 'stalls/second.jpg']) copyFileSync(picture, join(folder, path));
  await page.goto('/folders');
  await page.getByLabel('Choose a folder of pictures').setInputFiles(folder);
  await expect(page.getByRole('heading', { name: 'harbour-fair' })).toBeVisible({ timeout: 30_000 });
  await page.getByLabel('Longer side at most').fill('300');
  await page.getByRole('button', { name: 'Optimise' }).click();
  await expect(page.getByText('2 of 2 pictures are lighter')).toBeVisible({ timeout: 60_000 });
  const loading = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Download as ZIP' }).click();
  expect((await loading).suggestedFilename()).toBe('harbour-fair.zip');
});
