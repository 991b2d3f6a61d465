import { execFileSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { command, allMade, makeJob, test } from './support';

test('texts that are missing are counted and written one after the other', async ({ page }) => {
  const names = ['barometer-from-chat.jpg', 'IMG_2102.jpg', 'DSC_0412.JPG'];
  const job = await makeJob(page, 'Texts', names, ['skerry-shop/grid-square']);
  await command(page, job.id, [{ do: 'give-words', picture: job.pictures[2]!.id, decorative: true }]);
  await page.goto(`/job/${job.id}/handing-over`);
  const missing = page.getByRole('region', { name: 'Not in the bundle' });
  await expect(missing).toContainText('2 pictures have no alternative text');
  await expect(missing).not.toContainText('title');
  await missing.getByRole('button', { name: /alternative text/ }).click();
  await expect(page.getByLabel('Alternative text for barometer-from-chat.jpg')).toBeFocused();
  await page.keyboard.type('A barometer on a desk.');
  await page.keyboard.press('Enter');
  // What was written leads to the next; the decorative one is not asked for.
  await expect(page.getByLabel('Alternative text for IMG_2102.jpg')).toBeFocused();
  await expect(missing).toContainText('1 picture has no alternative text');
  await page.keyboard.type('A lantern.');
  await page.keyboard.press('Enter');
  await expect(missing).not.toContainText('alternative text');
  // The key goes to whatever is missing then: a name.
  await page.getByRole('heading', { name: 'Texts of each picture' }).click();
  await page.keyboard.press('e');
  await expect(page.getByLabel(/^Keywords for (IMG_2102|DSC_0412)/).and(page.locator(':focus'))).toHaveCount(
    1,
  );
});

test('pictures that have only a number are asked about once, and named', async ({ page }, info) => {
  const job = await makeJob(
    page,
    'Names',
    ['DSC_0412.JPG', 'IMG_2102.jpg', 'barometer-from-chat.jpg'],
    ['skerry-shop/grid-square'],
  );
  await command(page, job.id, [{ do: 'name-job', name: 'Glass & Brass' }]);
  await page.goto(`/job/${job.id}/handing-over`);
  await allMade(page);
  await expect(page.getByText('2 pictures have only a camera')).toBeVisible();
  await expect(page.locator('a[data-download]')).toBeHidden();
  expect((await page.request.get(`/api/jobs/${job.id}/bundle.zip`)).status()).toBe(409);

  await page.getByLabel('Keywords for DSC_0412.JPG').fill('Brass barometer, Öland');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 picture has only a camera')).toBeVisible();
  await page.getByRole('button', { name: /Number them/ }).click();
  await expect(page.locator('a[data-download]')).toBeVisible();
  await page.getByLabel('Prefix').fill('Skerry');
  await page.keyboard.press('Enter');
  await page.getByLabel('Alternative text for DSC_0412.JPG').fill('A barometer, "set fair"');
  await page.keyboard.press('Enter');
  await page.getByText('Patterns of file names').click();
  const pattern = page.getByLabel('Pattern for Skerry shop');
  await pattern.fill('{picture}/{slot}');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('must not have a path');
  await pattern.fill('{picture}-{width}{density}');
  await page.keyboard.press('Enter');
  // The names that the files will have are there at once.
  for (const name of [
    'skerry-brass-barometer-oland-300.jpg',
    'skerry-brass-barometer-oland-600@2x.jpg',
    'skerry-glass-brass-02-300.jpg',
    'skerry-barometer-from-chat-300.jpg',
  ])
    await expect(page.getByText(name, { exact: true })).toBeVisible();

  const csv = await (await page.request.get(`/api/jobs/${job.id}/report.csv`)).text();
  expect(csv).toContain('"A barometer, ""set fair"""');
  await page.getByRole('button', { name: 'Write to folder' }).click();
  const said = await page.getByTestId('folder').textContent();
  const folder = said!.slice(said!.indexOf('/'));
  expect(existsSync(join(folder, 'report.json'))).toBe(true);
  const waiting = page.waitForEvent('download');
  await page.keyboard.press('d');
  const zip = info.outputPath('bundle.zip');
  await (await waiting).saveAs(zip);
  const inZip = execFileSync('unzip', ['-Z1', zip], { encoding: 'utf8' }).trim().split('\n');
  expect(
    inZip
      .filter((one) => one.startsWith('skerry-shop/'))
      .map((one) => one.slice(12))
      .toSorted(),
  ).toEqual(readdirSync(join(folder, 'skerry-shop')).toSorted());
});
