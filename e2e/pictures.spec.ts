import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { photographs, test } from './support';

/** In the library, not in the list of what has just arrived. */
const sheet = (page: Page, name: string) =>
  page.getByRole('region', { name: 'Pictures' }).getByTitle(name, { exact: true });
const choose = async (page: Page, name: string) => {
  await page.getByRole('searchbox').fill(name);
  await sheet(page, name).click();
};

test('files are read in, refused with a sentence, and known again; originals stay as they are', async ({
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
  const photograph = photographs[0]!;
  await page.goto('/pictures');
  await page.getByLabel('Choose pictures').setInputFiles([photograph, pageFile]);
  const arrivals = page.getByRole('region', { name: 'Adding pictures' });
  await expect(arrivals.getByText('1 of 2 added, 1 refused')).toBeVisible({
    timeout: 30_000,
  });
  await expect(arrivals.getByText('The file is a web page, not a picture.')).toBeVisible();
  await page.getByLabel('Choose pictures').setInputFiles(photograph);
  await expect(arrivals.getByText(/This file is already in the library/).first()).toBeVisible({
    timeout: 30_000,
  });
  await arrivals.getByRole('button', { name: 'Close' }).click();
  const list = (await (await page.request.get('/api/pictures')).json()) as {
    id: string;
    name: string;
  }[];
  const kept = await page.request.get(
    `/api/pictures/${list.find((one) => photograph.endsWith(one.name))!.id}/original`,
  );
  expect(Buffer.compare(await kept.body(), readFileSync(photograph))).toBe(0);
  expect(elsewhere).toEqual([]);
});

test('files that are dropped or pasted anywhere make a job', async ({ page }) => {
  for (const kind of ['drop', 'paste'] as const) {
    await page.goto('/');
    await expect(page.getByRole('button', { name: /^New job/ })).toBeVisible();
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
    await expect(page.getByRole('img', { name: `${kind}ped.png` })).toBeVisible({ timeout: 20_000 });
    await expect(page.getByText('1 picture is here. Choose where it goes.')).toBeVisible();
  }
});

test('an original is replaced by a newer one and put back, and a picture removed and put back', async ({
  page,
}, info) => {
  const folder = info.outputPath();
  mkdirSync(folder, { recursive: true });
  const draw = (name: string, size: string, colour: string) => {
    const file = join(folder, name);
    execFileSync('convert', [
      '-size',
      size,
      `xc:${colour}`,
      '-fill',
      'white',
      '-draw',
      'circle 60,60 60,100',
      file,
    ]);
    return file;
  };
  await page.goto('/pictures');
  await page.getByLabel('Choose pictures').setInputFiles(draw('rain-gauge.png', '300x200', '#665544'));
  await expect(sheet(page, 'rain-gauge.png')).toBeVisible({
    timeout: 20_000,
  });
  await choose(page, 'rain-gauge.png');
  const originals = page.getByRole('region', { name: 'Originals' });
  await page
    .getByLabel('Choose a newer original')
    .setInputFiles(draw('rain-gauge-new.png', '450x300', '#445566'));
  await expect(originals.getByRole('listitem')).toHaveCount(2);
  await expect(page.getByRole('region', { name: 'Details' })).toContainText('rain-gauge-new.png');
  await originals.getByRole('button', { name: 'Restore original' }).click();
  await expect(page.getByRole('region', { name: 'Details' }).getByRole('heading')).toHaveText(
    'rain-gauge.png',
  );
  await expect(originals.getByRole('listitem')).toHaveCount(2);
  await originals.getByRole('button', { name: 'Remove from the library' }).click();
  await originals.getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByRole('region', { name: 'Pictures' }).getByTitle('rain-gauge.png')).toHaveCount(0);
  await page.getByRole('button', { name: /^Removed \(/ }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Restore original' }).first().click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('region', { name: 'Pictures' }).getByTitle('rain-gauge.png')).toBeVisible();
});

test('what is done to the first picture that is found chooses it, though its new name is not searched for', async ({
  page,
}, info) => {
  const folder = info.outputPath();
  mkdirSync(folder, { recursive: true });
  const draw = (name: string, colour: string) => {
    const file = join(folder, name);
    execFileSync('convert', ['-size', '200x120', `xc:${colour}`, file]);
    return file;
  };
  await page.goto('/pictures');
  await page.getByLabel('Choose pictures').setInputFiles(draw('tide-table.png', '#334455'));
  await expect(sheet(page, 'tide-table.png')).toBeVisible({ timeout: 20_000 });
  await page.getByRole('searchbox').fill('tide-table.png');
  await expect(page.getByRole('heading', { name: '1 picture', exact: true })).toBeVisible();
  await page.getByLabel('Choose a newer original').setInputFiles(draw('tides-of-spring.png', '#554433'));
  await expect(page.getByText('No picture has this in its name or its texts.')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Details' })).toContainText('tides-of-spring.png');
  await expect(page.getByRole('region', { name: 'Originals' }).getByRole('listitem')).toHaveCount(2);
});

test('the facts say what the file is, without misleading', async ({ page }) => {
  await page.goto('/pictures');
  const facts = page.getByRole('region', { name: 'Details' });
  await choose(page, 'DSC_0431.JPG');
  await expect(facts.getByText('Stored rotated; shown upright.')).toBeVisible();
  await expect(facts.getByText(/300 ppi/)).toBeVisible();
  await expect(facts.getByText(/changes neither pixels nor weight/)).toBeVisible();
  await choose(page, 'P1050233.JPG');
  await expect(facts.getByText(/contains the location/)).toBeVisible();
  await choose(page, 'DSC_0452.JPG');
  await expect(facts.getByText(/Adobe RGB/)).toBeVisible();
});

test('a backup is made when it is asked for, and stands in the list', async ({ page }) => {
  await page.goto('/pictures');
  await page.getByRole('button', { name: 'Storage' }).click();
  const backups = page.getByRole('region', { name: 'Backups' });
  const list = backups.getByRole('listitem');
  const before = await list.count();
  await backups.getByRole('button', { name: 'Back up now' }).click();
  await expect(list).toHaveCount(Math.min(8, before + 1), { timeout: 60_000 });
  await expect(list.first()).toContainText('files');
  // Made by themselves, the next is due.
  await backups.getByLabel('Automatically').selectOption('weekly');
  await expect(backups.getByText(/^The next is due on /)).toBeVisible();
  await backups.getByLabel('keep').fill('0');
  await expect(backups.getByLabel('keep')).toHaveAttribute('aria-invalid', 'true');
  await backups.getByLabel('keep').fill('3');
  await page.keyboard.press('Enter');
  await expect
    .poll(async () => (await (await page.request.get('/api/backups')).json()).settings)
    .toEqual({ every: 'weekly', kept: 3 });
  await backups.getByLabel('Automatically').selectOption('never');
  await expect(backups.getByText(/^The next is due on /)).toBeHidden();
});

test('an original is put right, and the first one comes back', async ({ page }) => {
  await page.goto('/pictures');
  await choose(page, 'weatherworks-mark.png');
  const aside = page.getByRole('region', { name: 'Originals' });
  await aside.getByText('Fix the original').click();
  await aside.getByLabel('Longest side, px').fill('600');
  await aside.getByLabel('Background for transparent parts').fill('#ffffff');
  await aside.getByRole('button', { name: 'Make a newer original' }).click();
  await expect(aside.getByRole('link', { name: 'weatherworks-mark.jpg' })).toBeVisible({ timeout: 30_000 });
  await aside
    .getByRole('listitem')
    .filter({ hasText: 'weatherworks-mark.png' })
    .getByRole('button', { name: 'Restore original' })
    .click();
  await expect(
    aside.getByRole('listitem').filter({ hasText: 'weatherworks-mark.png' }).getByText('in use'),
  ).toBeVisible();
});
