import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { command, allMade, makeJob, readJob, test } from './support';

test('a destination is made, its slot written with faults placed, retired, copied and saved', async ({
  page,
}, info) => {
  await page.goto('/destinations');
  await page.getByLabel('Name of a new destination').fill('Tide Table');
  await page.getByRole('button', { name: 'Add destination', exact: true }).click();
  const rule = page.getByRole('complementary', { name: 'Rule of the slot' });
  await expect(rule.getByRole('textbox', { name: 'Key' })).toHaveValue('first');
  await rule.getByRole('combobox', { name: 'Size given as' }).selectOption({ label: 'Ratio and width' });
  await rule.getByRole('textbox', { name: 'Ratio', exact: true }).fill('0:4');
  await expect(rule.getByText('Both sides of a ratio must be greater than 0.').first()).toBeVisible();
  await expect(rule.getByRole('button', { name: 'Save rule' })).toBeDisabled();
  await rule.getByRole('textbox', { name: 'Ratio', exact: true }).fill('2:1');
  await rule.getByRole('textbox', { name: 'Weight at most' }).fill('120 kg');
  await expect(rule.getByText(/is not a weight/i).first()).toBeVisible();
  await rule.getByRole('textbox', { name: 'Weight at most' }).fill('120 kB');
  await rule.getByRole('checkbox', { name: 'WebP' }).check();
  await rule.getByRole('textbox', { name: 'Densities' }).fill('1, 2');
  const edge = rule.getByRole('slider', { name: 'Clear area, left edge' });
  await edge.focus();
  for (let i = 0; i < 10; i++) await page.keyboard.press('ArrowRight');
  await expect(rule.getByRole('textbox', { name: 'Clear area from left' })).toHaveValue('0.1');
  await rule.getByRole('button', { name: 'Save rule' }).click();
  await expect(rule.getByRole('button', { name: 'Save rule' })).toBeDisabled();
  // Slots of the same shape elsewhere are shown as kin.
  await expect(
    page.getByRole('region', { name: 'Skerry site' }).getByText('2:1, same shape').first(),
  ).toBeVisible();

  const sheet = page.getByRole('region', { name: 'Tide Table', exact: true });
  const waiting = page.waitForEvent('download');
  const more = async (item: string) => {
    await sheet.getByRole('button', { name: 'More for Tide Table' }).click();
    await page.getByRole('menuitem', { name: item }).click();
  };
  await more('Export rules');
  const file = info.outputPath('rules.json');
  await (await waiting).saveAs(file);
  const saved = JSON.parse(readFileSync(file, 'utf8'));
  expect(saved.destinations[0].slots[0]).toMatchObject({
    key: 'first',
    size: { ratio: '2:1', width: 1200 },
    limits: { maxBytes: 120_000 },
    types: ['jpeg', 'webp'],
    densities: [1, 2],
    clear: [0.1, 0, 1, 1],
  });
  await more('Copy');
  await expect(page.getByRole('region', { name: 'Tide Table, copy' })).toBeVisible();
  await more('Retire');
  await expect(sheet.getByText('retired')).toBeVisible();
  const job = await makeJob(page, 'Retired', ['IMG_2102.jpg'], ['skerry-shop/grid-square']);
  await page.goto(`/job/${job.id}`);
  await expect(page.getByTestId('bench')).toBeVisible();
  await page.keyboard.press('s');
  const places = page.getByRole('complementary', { name: 'Slots' });
  await expect(places.getByRole('checkbox', { name: 'Tide Table, copy', exact: true })).toBeVisible();
  await expect(places.getByRole('checkbox', { name: 'Tide Table', exact: true })).toBeHidden();
});

test('a rule shows the file that it leads to on a picture of the library, before it is saved', async ({
  page,
}) => {
  const job = await makeJob(page, 'Uses the opening', ['IMG_2102.jpg'], ['skerry-site/opening-small']);
  await page.goto('/destinations/skerry-site/opening-small');
  const rule = page.getByRole('complementary', { name: 'Rule of the slot' });
  await expect(rule.getByTestId('slot-uses').getByRole('link', { name: 'Uses the opening' })).toHaveAttribute(
    'href',
    `/job/${job.id}`,
  );
  const figures = rule.getByTestId('rule-trial');
  await expect(figures).toContainText('500 × 250 px', { timeout: 30_000 });
  const size = () =>
    rule.getByTestId('trial-file').evaluate((img: HTMLImageElement) => [img.naturalWidth, img.naturalHeight]);
  await expect.poll(size).toEqual([500, 250]);
  // What is typed leads to another file at once; the rule itself is as it was.
  await rule
    .getByRole('textbox', { name: /^Width/ })
    .first()
    .fill('300');
  await expect(figures).toContainText('300 × 150 px', { timeout: 30_000 });
  await expect.poll(size).toEqual([300, 150]);
  const before = await figures.textContent();
  await rule.getByRole('button', { name: 'Try on the next picture' }).click();
  await expect(figures).not.toHaveText(before!, { timeout: 30_000 });
  // A rule that cannot be saved leads to no file.
  await rule
    .getByRole('textbox', { name: /^Width/ })
    .first()
    .fill('0');
  await expect(rule.getByTestId('trial-file')).toHaveCount(0);
  await rule.getByRole('button', { name: 'Discard changes' }).click();
  await expect(figures).toContainText('500 × 250 px', { timeout: 30_000 });
});

test('what all rules ask for is told while no slot is chosen, and a new slot begins from a common shape', async ({
  page,
}) => {
  await page.goto('/destinations');
  const rule = page.getByRole('complementary', { name: 'Rule of the slot' });
  await expect(rule.getByText(/^\d+ files, at most [\d.]+ MB together/)).toBeVisible();
  await page.getByRole('region', { name: 'Lampglow' }).getByRole('button', { name: 'New slot' }).click();
  await rule.getByRole('button', { name: '4:5', exact: true }).click();
  await expect(rule.getByRole('textbox', { name: 'Ratio', exact: true })).toHaveValue('4:5');
  await expect(rule.getByRole('textbox', { name: 'Width px' })).toHaveValue('1080');
});

test('a rules file with a fault is refused with its place, a good one replaces slots of the same key', async ({
  page,
}) => {
  await page.goto('/destinations');
  const chooser = page.getByLabel('Choose a file of rules');
  const file = (json: unknown) => ({
    name: 'rules.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(json)),
  });
  const book = (slot: object) => ({
    schema: 'pantomet-rules/1',
    destinations: [{ key: 'fog-signal', name: 'Fog Signal', slots: [{ key: 'a', ...slot }] }],
  });
  await chooser.setInputFiles(file(book({ size: { width: 0 } })));
  await expect(page.getByRole('alert')).toContainText('$.destinations[0].slots[0].size.width');
  await chooser.setInputFiles(file(book({ size: { width: 500 } })));
  await expect(page.getByRole('region', { name: 'Fog Signal' })).toBeVisible();
  await chooser.setInputFiles(file(book({ size: { width: 700 }, name: 'Horn' })));
  await expect(page.getByRole('region', { name: 'Fog Signal' }).getByText('Horn')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Skerry site' })).toBeVisible();
});

test('a changed rule shows which delivered files no longer meet this rule, and redoes only its own', async ({
  page,
}) => {
  const slot = 'lampglow/tall-card';
  const job = await makeJob(
    page,
    'Delivered',
    ['IMG_2081.jpg', 'barometer-from-chat.jpg'],
    [slot, 'skerry-shop/grid-square'],
  );
  await page.goto(`/job/${job.id}`);
  await allMade(page);
  await command(page, job.id, [{ do: 'name-job', numbered: true }]);
  expect((await page.request.post(`/api/jobs/${job.id}/folder`)).ok()).toBe(true);
  const before = await readJob(page, job.id);
  await page.goto(`/destinations/${slot}`);
  const rule = page.getByRole('complementary', { name: 'Rule of the slot' });
  await expect(rule.getByText('All 2 delivered files meet this rule.')).toBeVisible();
  const heaviest = Math.max(
    ...before.cells
      .filter((cell) => cell.slot === slot)
      .flatMap((cell) => cell.files.map((file) => file.bytes!)),
  );
  await rule.getByRole('textbox', { name: 'Weight at most' }).fill(String(heaviest - 1));
  await expect(rule.getByTestId('breaches')).toContainText('1 of 2 delivered files no longer meet this rule');
  // It cannot be set twice from the moment it is sent; it is set once that was answered.
  const set = page.waitForResponse(
    (answer) => answer.request().method() === 'PUT' && answer.url().includes('/slots/'),
  );
  await rule.getByRole('button', { name: 'Save rule' }).click();
  await set;
  await page.goto(`/job/${job.id}`);
  await allMade(page);
  const after = await readJob(page, job.id);
  for (const { id } of job.pictures) {
    expect(Math.max(...after.cell(id, slot).files.map((file) => file.bytes!))).toBeLessThan(heaviest);
    expect(after.cell(id, 'skerry-shop/grid-square').files).toEqual(
      before.cell(id, 'skerry-shop/grid-square').files,
    );
  }
});
