import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { allMade, photographs, readJob, smallPhotographs, test } from './support';

// The yardstick: 12 pictures for 8 slots, from an empty job to the downloaded bundle, with every action counted.

/** Counts what a person does: a click, a key, a drop of files. Waiting is no action. */
function counter() {
  const done: string[] = [];
  return {
    done,
    act: async (words: string, act: () => Promise<unknown>) => (done.push(words), await act()),
  };
}

/** What every file of a bundle must be, by the rules of the demo. */
const limits: Record<string, { size: (density: number) => string | RegExp; most: number; type: string }> = {
  'opening-large': {
    size: (d) => `${1500 * d}x${750 * d}`,
    most: 300_000,
    type: 'JPEG',
  },
  'opening-small': {
    size: (d) => `${500 * d}x${250 * d}`,
    most: 60_000,
    type: 'JPEG',
  },
  'text-column': { size: () => /^\d+x\d+$/, most: 300_000, type: 'JPEG' },
  'header-strip': { size: () => '960x190', most: 40_000, type: 'JPEG' },
  'portrait-feature': {
    size: (d) => `${400 * d}x${600 * d}`,
    most: 130_000,
    type: 'JPEG',
  },
  'grid-square': {
    size: (d) => `${300 * d}x${300 * d}`,
    most: 55_000,
    type: 'JPEG',
  },
  'product-mat': { size: () => '1200x1200', most: 200_000, type: 'JPEG' },
  'maker-mark': { size: () => /^\d+x\d+$/, most: 40_000, type: 'PNG' },
};

function checkBundle(folder: string, zip: string, pictures: number) {
  execFileSync('unzip', ['-q', '-o', zip, '-d', folder]);
  const listed = execFileSync('unzip', ['-Z1', zip], { encoding: 'utf8' }).trim().split('\n');
  const report = JSON.parse(readFileSync(join(folder, 'report.json'), 'utf8')) as {
    variants: {
      file?: string;
      slot: string;
      density: number;
      bytes: number;
      width: number;
      height: number;
      reasons: { code: string }[];
    }[];
  };
  const files = report.variants.filter((one) => one.file);
  expect(listed.toSorted()).toEqual(
    [
      ...files.map((one) => one.file!),
      'manifest.json',
      'preview.html',
      'report.csv',
      'report.json',
    ].toSorted(),
  );
  expect(new Set(files.map((one) => `${one.slot}`)).size).toBe(8);
  expect(files.length).toBeGreaterThanOrEqual(pictures * 8);
  expect(new Set(listed.map((one) => one.toLowerCase())).size).toBe(listed.length);
  const said = execFileSync(
    'identify',
    ['-format', '%i %m %wx%h\n', ...files.map((one) => join(folder, one.file!))],
    {
      encoding: 'utf8',
      maxBuffer: 1 << 24,
    },
  )
    .trim()
    .split('\n');
  for (const [i, one] of files.entries()) {
    const [, type, size] = said[i]!.split(' ');
    const rule = limits[one.slot]!;
    expect(type, one.file).toBe(rule.type);
    // A photograph that is too small for a dense screen says so; every other has the size of its rule.
    if (!one.reasons.some((reason) => reason.code === 'too-small'))
      expect(size, one.file).toMatch(rule.size(one.density));
    expect(size, one.file).toBe(`${one.width}x${one.height}`);
    const bytes = readFileSync(join(folder, one.file!)).length;
    expect(bytes, one.file).toBe(one.bytes);
    expect(bytes, one.file).toBeLessThanOrEqual(rule.most);
    expect(one.file).toMatch(/^[a-z0-9-]+\/[a-z0-9@.-]+$/);
  }
  return files.length;
}

async function emptyJob(page: Page): Promise<string> {
  await page.goto('/');
  await page.getByRole('button', { name: /^New job/ }).click();
  await expect(page.getByText('Drop pictures here')).toBeVisible();
  return page.url().split('/').at(-1)!;
}

test('12 pictures for 8 slots take at most 10 actions, and an exception at most 3', async ({
  page,
}, info) => {
  test.setTimeout(400_000);
  const folder = info.outputPath('bundle');
  mkdirSync(folder, { recursive: true });
  // One as large as cameras make them, so that every size of every slot is made; the others smaller.
  const twelve = [...photographs.slice(0, 1), ...smallPhotographs(1, 12)];
  const job = await emptyJob(page);
  const { done, act } = counter();
  const places = page.getByRole('complementary', { name: 'Slots' });

  await act('choose twelve pictures', () => page.getByLabel('Choose pictures').setInputFiles(twelve));
  await act('tick a destination', () =>
    places.getByRole('checkbox', { name: 'Skerry site', exact: true }).check(),
  );
  await act('tick a destination', () =>
    places.getByRole('checkbox', { name: 'Skerry shop', exact: true }).check(),
  );
  await expect(page.getByRole('region', { name: 'Adding pictures' }).getByText('12 of 12 added')).toBeVisible(
    {
      timeout: 60_000,
    },
  );
  await allMade(page, 300_000);
  const toBundle = done.length;

  // One exception: the next cell that is to review is looked at and accepted.
  const before = await page.getByTestId('looks').textContent();
  await act('exception: next look', () => page.keyboard.press('e'));
  await act('exception: accept', () => page.keyboard.press('a'));
  await expect(page.getByTestId('looks')).not.toHaveText(before!);
  const forException = done.length - toBundle;

  await act('go to handing over', () => page.keyboard.press('g'));
  const link = page.locator('a[data-download]');
  await expect(link).toBeVisible({ timeout: 20_000 });
  const waiting = page.waitForEvent('download');
  await act('download', () => link.click());
  const zip = join(folder, 'bundle.zip');
  await (await waiting).saveAs(zip);

  const actions = done.length - forException;
  expect(actions).toBeLessThanOrEqual(10);
  expect(forException).toBeLessThanOrEqual(3);
  const files = checkBundle(folder, zip, 12);
  expect((await readJob(page, job)).cells.length).toBe(96);
  writeFileSync(
    join(info.project.outputDir, 'yardstick.json'),
    JSON.stringify({ pictures: 12, slots: 8, files, actions, forException, done }, null, 2),
  );
  console.log(
    `yardstick: ${actions} actions for 12 pictures x 8 slots (${files} files), ${forException} for an exception`,
  );
});

test('the same way can be gone by keyboard alone', async ({ page }, info) => {
  test.setTimeout(300_000);
  const folder = info.outputPath('bundle');
  mkdirSync(folder, { recursive: true });
  // Listening begins before the page is there: a browser takes a moment until it hands its file dialog over, and a
  // key pressed within that moment opens the real one.
  const chooser = page.waitForEvent('filechooser', { timeout: 60_000 });
  await page.goto('/');
  await expect(page.getByRole('button', { name: /^New job/ })).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByText('Drop pictures here')).toBeVisible();
  await page.keyboard.press('r');
  await (await chooser).setFiles(smallPhotographs(12, 15));
  await expect(page.getByText('3 pictures are here')).toBeVisible({
    timeout: 60_000,
  });

  // Tab to the two destinations and tick them.
  for (const name of ['Skerry site', 'Skerry shop']) {
    const box = page.getByRole('checkbox', { name, exact: true });
    for (let i = 0; i < 60 && !(await box.evaluate((one) => one === document.activeElement)); i++)
      await page.keyboard.press('Tab');
    await page.keyboard.press('Space');
    await expect(box).toBeChecked();
  }
  await allMade(page);
  // Keys go to the bench again once the list of slots is closed.
  const bench = page.getByTestId('bench');
  await expect(bench).toBeVisible();
  for (let i = 0; i < 60 && !(await bench.evaluate((one) => one === document.activeElement)); i++)
    await page.keyboard.press('Shift+Tab');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('region', { name: 'Chosen cells' })).toContainText('Opening picture, small');

  // Framing and weighing by keys, and back.
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('tied')).toContainText('Framed automatically');
  await page.keyboard.press('+');
  await expect(page.getByTestId('tied')).toContainText('Framed by hand');
  await page.keyboard.press('g');
  await expect(page.locator('a[data-download]')).toBeVisible({
    timeout: 30_000,
  });
  await page.keyboard.press('-');
  await expect(page.getByText('by hand', { exact: true })).toBeVisible();
  await expect(page.locator('a[data-download]')).toBeVisible({
    timeout: 30_000,
  });
  await page.keyboard.press('1');
  await expect(page.getByText('This quality is in use.')).toBeVisible();
  await page.keyboard.press('b');
  await allMade(page);
  await page.keyboard.press('g');
  await expect(page.locator('a[data-download]')).toBeVisible({
    timeout: 20_000,
  });
  const waiting = page.waitForEvent('download');
  await page.keyboard.press('d');
  const zip = join(folder, 'bundle.zip');
  await (await waiting).saveAs(zip);
  checkBundle(folder, zip, 3);
});
