import { expect, type Page } from '@playwright/test';
import { allMade, command, makeJob, photographs, readJob, settled, test } from './support';

// The working surface: filters, rectangles, acting on what is chosen, two windows, jobs.

const cellOf = (page: Page, picture: string, slot: string) =>
  page.locator(`[data-cell="${picture}|${slot}"]`);

test('a reason leaves only its cells, and what is accepted no longer asks', async ({ page }) => {
  const job = await makeJob(
    page,
    'Reasons',
    ['barometer-from-chat.jpg', 'DSC_0423.JPG'],
    ['skerry-site/opening-large', 'skerry-shop/grid-square', 'lampglow/link-card'],
  );
  await page.goto(`/job/${job.id}`);
  await allMade(page);
  const small = job.pictures[0]!.id;
  await page.getByRole('button', { name: /^Too few pixels/ }).click();
  const wall = page.getByTestId('wall');
  await expect(cellOf(page, small, 'skerry-site/opening-large')).toBeVisible();
  await expect(cellOf(page, job.pictures[1]!.id, 'skerry-shop/grid-square')).toBeHidden();
  await expect(wall.getByRole('option')).toHaveCount(2);
  // The one in hand is large, beside the whole picture with the frame that it is cut by.
  const stage = page.getByTestId('review-stage');
  const crop = (await stage.getByRole('button').boundingBox())!;
  expect(Math.max(crop.width, crop.height)).toBeGreaterThan(400);
  await expect(stage.getByTestId('frame')).toBeVisible();
  // The question stands once, over the cells that ask it.
  await expect(wall.getByRole('group', { name: /^Too few pixels: / })).toHaveCount(1);
  // One by one: what is settled leaves, the next is under the hand, and at the end the bench is there again.
  await page.keyboard.press('a');
  await expect(wall.getByRole('option')).toHaveCount(1);
  await expect(wall.getByRole('option', { selected: true })).toHaveCount(1);
  await page.keyboard.press('Control+z');
  await expect(wall.getByRole('option')).toHaveCount(2);
  await page.keyboard.press('Control+a');
  await page.keyboard.press('a');
  await expect(page.getByTestId('bench')).toBeVisible();
  await settled(page);
  const { cells } = await readJob(page, job.id);
  expect(cells.some((cell) => cell.toReview.includes('too-small'))).toBe(false);
  // Once nothing is to review the next step is to hand over.
  const on = page.getByRole('link', { name: 'Hand over' });
  await expect(page.getByTestId('looks')).toContainText('Nothing to review');
  await expect(on).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: /^Too few pixels 2/ })).toBeVisible();
  await expect(on).toHaveCount(0);
});

test('a rectangle is chosen by drawing, rows and columns by their heads, and acted on in one step', async ({
  page,
}) => {
  const slots = ['skerry-site/opening-large', 'skerry-site/header-strip', 'skerry-shop/grid-square'];
  const job = await makeJob(page, 'Rectangle', ['DSC_0412.JPG', 'DSC_0415.JPG', 'IMG_2102.jpg'], slots);
  await page.goto(`/job/${job.id}`);
  await allMade(page);
  const chosen = page.getByRole('region', { name: 'Chosen cells' });
  const from = (await cellOf(page, job.pictures[0]!.id, slots[0]!).boundingBox())!;
  const to = (await cellOf(page, job.pictures[1]!.id, slots[1]!).boundingBox())!;
  await page.mouse.move(from.x + 20, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(to.x + 20, to.y + 20, { steps: 8 });
  await page.mouse.up();
  await expect(chosen).toContainText('4 cells chosen');
  await page.getByRole('rowheader').first().click();
  await expect(chosen).toContainText('3 cells chosen');
  await page.getByRole('columnheader', { name: /Header strip/ }).click();
  await expect(chosen).toContainText('3 cells chosen');
  await chosen.getByRole('button', { name: /Skip/ }).click();
  await expect
    .poll(async () => (await readJob(page, job.id)).cells.filter((cell) => cell.state === 'skipped').length)
    .toBe(3);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect
    .poll(async () => (await readJob(page, job.id)).cells.filter((cell) => cell.state === 'skipped').length)
    .toBe(0);
  // What stood is not made again.
  expect((await readJob(page, job.id)).cells.every((cell) => cell.files.every((file) => file.made))).toBe(
    true,
  );
});

test('focus here frames around the clicked place, and only that picture is made again', async ({ page }) => {
  const slots = ['skerry-site/header-strip', 'tidewrack/cover'];
  const job = await makeJob(page, 'Focus', ['DSC_0452.JPG', 'IMG_2087.jpg'], slots);
  await page.goto(`/job/${job.id}`);
  await allMade(page);
  const before = await readJob(page, job.id);
  const [mine, other] = job.pictures.map((one) => one.id) as [string, string];
  const crop = cellOf(page, mine, slots[1]!);
  const box = (await crop.boundingBox())!;
  await page.mouse.click(box.x + box.width * 0.5, box.y + box.height * 0.4);
  await page.keyboard.press('f');
  await expect.poll(async () => (await readJob(page, job.id)).cell(mine, slots[1]!).origin).toBe('focus');
  await allMade(page);
  const after = await readJob(page, job.id);
  expect(after.cell(other, slots[0]!).files).toEqual(before.cell(other, slots[0]!).files);
});

test('what a crop cuts off its subject is drawn on the picture with its measure, and a strip is as wide as the window lets it be', async ({
  page,
}) => {
  const strip = 'skerry-site/header-strip';
  const job = await makeJob(page, 'Cut', ['DSC_0412.JPG'], [strip]);
  await page.goto(`/job/${job.id}`);
  await allMade(page);
  await page.getByRole('button', { name: /^Crop to confirm/ }).click();
  const stage = page.getByTestId('review-stage');
  const crop = (await stage.getByRole('button').boundingBox())!;
  expect(crop.width).toBeGreaterThan(800);
  await expect(stage.getByTestId('lost').first()).toHaveText(/^\d[\d\s]* px cut (at the top|at the bottom)$/);
});

test('nothing is chosen at first: heads and bar leave the window to the pictures, and the tray offers what can be done', async ({
  page,
}) => {
  const job = await makeJob(page, 'Window', ['DSC_0412.JPG', 'IMG_2102.jpg'], ['skerry-shop/grid-square']);
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`/job/${job.id}`);
  await allMade(page);
  const tray = page.getByRole('region', { name: 'Chosen cells' });
  await expect(tray).toBeHidden();
  const cell = cellOf(page, job.pictures[0]!.id, 'skerry-shop/grid-square');
  expect((await cell.boundingBox())!.y).toBeLessThanOrEqual(150);
  await cell.click();
  await expect(tray.getByRole('button', { name: /^Skip/ })).toBeVisible();
  // What cannot be done is not there: the cell is linked and breaks nothing.
  await expect(tray.getByRole('button', { name: /^(Link again|Allow anyway)/ })).toHaveCount(0);
  await tray.getByRole('button', { name: /^Skip/ }).click();
  await expect(tray.getByRole('button', { name: /^Include/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(tray).toBeHidden();
});

test('rows are filtered by typing and ordered by what is to review', async ({ page }) => {
  const slots = ['skerry-site/opening-large', 'lampglow/link-card'];
  const job = await makeJob(page, 'Rows', ['DSC_0412.JPG', 'barometer-from-chat.jpg'], slots);
  await page.goto(`/job/${job.id}`);
  await allMade(page);
  const first = () => page.getByRole('rowheader').first();
  await expect(first()).toContainText('3000×2000');
  await page.getByLabel('Order of the pictures').selectOption('Most to review first');
  await expect(first()).toContainText('900×600');
  await page.getByLabel('Filter the pictures by name').fill('0412');
  await expect(page.getByRole('rowheader')).toHaveCount(1);
  await expect(first()).toContainText('3000×2000');
});

test('single letters can be switched off and are reached with Alt then', async ({ page }) => {
  const job = await makeJob(page, 'Letters', ['IMG_2102.jpg'], ['skerry-shop/grid-square']);
  await page.goto(`/job/${job.id}`);
  await allMade(page);
  await page.keyboard.press('?');
  await page.getByRole('checkbox', { name: /^Single-letter shortcuts/ }).uncheck();
  await page.keyboard.press('Escape');
  await page.getByTestId('bench').focus();
  await page.keyboard.press('x');
  await expect(page.getByText('skipped', { exact: true })).toBeHidden();
  await page.keyboard.press('Alt+x');
  await expect(page.getByText('skipped', { exact: true })).toBeVisible();
});

test('two windows on one job stay in step, also about what is undone', async ({ page, context }) => {
  const job = await makeJob(
    page,
    'Windows',
    ['IMG_2109.jpg'],
    ['skerry-site/header-strip', 'harbour-market/listing'],
  );
  await page.goto(`/job/${job.id}`);
  const second = await context.newPage();
  await second.goto(`/job/${job.id}`);
  await expect(second.getByTestId('bench')).toBeVisible();
  await page.getByLabel('Name of the job').fill('In both windows');
  await page.keyboard.press('Enter');
  await expect(second.getByLabel('Name of the job')).toHaveValue('In both windows');
  await page.getByTestId('bench').focus();
  await page.keyboard.press('x');
  await expect(second.getByText('skipped', { exact: true })).toBeVisible();
  await second.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('skipped', { exact: true })).toBeHidden();
  // A picture that is added in one window is framed and made in the other.
  await second.getByLabel('Choose pictures').setInputFiles(photographs[0]!);
  await expect(page.getByRole('row')).toHaveCount(3, { timeout: 30_000 });
  await allMade(page);
  await second.close();
});

test('making files is paused and goes on without redoing what stands', async ({ page }) => {
  const job = await makeJob(
    page,
    'Pause',
    ['DSC_0440.JPG', 'IMG_2081.jpg'],
    ['skerry-site/opening-small', 'tidewrack/post', 'lampglow/tall-card', 'glass-falling/lead'],
  );
  await page.goto(`/job/${job.id}`);
  await page.getByRole('button', { name: 'Pause' }).click();
  await expect(page.getByText(/paused/)).toBeVisible();
  // What is being made is finished first.
  await expect
    .poll(async () => (await readJob(page, job.id)).cells.some((cell) => cell.state === 'making'), {
      timeout: 60_000,
    })
    .toBe(false);
  const paused = await readJob(page, job.id);
  await page.waitForTimeout(1500);
  expect((await readJob(page, job.id)).progress.done).toBe(paused.progress.done);
  expect(paused.progress.done).toBeLessThan(paused.progress.files);
  const made = (cells: typeof paused.cells) =>
    cells.flatMap((cell) => cell.files.filter((file) => file.made).map((file) => file.id));
  await page.reload();
  await page.getByRole('button', { name: 'Resume' }).click();
  await allMade(page);
  const done = await readJob(page, job.id);
  expect(made(done.cells)).toEqual(expect.arrayContaining(made(paused.cells)));
});

test('jobs are copied and put aside without disturbing one another', async ({ page }) => {
  const job = await makeJob(page, 'Original job', ['IMG_2102.jpg'], ['skerry-shop/grid-square']);
  const name = (await (await page.request.get(`/api/jobs/${job.id}`)).json()).head.name as string;
  await page.goto('/');
  await page.getByRole('button', { name: `Copy ${name}`, exact: true }).click();
  const copy = page.getByRole('link', { name: `${name}, copy` });
  await copy.click();
  await expect(page.getByTestId('bench')).toBeVisible();
  await page.getByTestId('bench').focus();
  await page.keyboard.press('x');
  await expect(page.getByText('skipped', { exact: true })).toBeVisible();
  expect((await readJob(page, job.id)).cells.every((cell) => cell.state !== 'skipped')).toBe(true);
  await page.keyboard.press('j');
  await page.getByRole('button', { name: `Archive ${name}, copy` }).click();
  await expect(copy).toBeHidden();
  await page.getByRole('button', { name: /^Archived \(/ }).click();
  await expect(copy).toBeVisible();
  await page.getByRole('button', { name: `Restore ${name}, copy` }).click();
  await expect(copy).toBeHidden();
});

test('crops are alike in height, in proportion by a key, and a closed dialog gives the keyboard back', async ({
  page,
}) => {
  const slots = ['skerry-site/opening-large', 'skerry-shop/grid-square', 'harbour-market/listing'];
  const upright = 'skerry-site/portrait-feature';
  const job = await makeJob(page, 'Likeness', ['DSC_0412.JPG', 'IMG_2102.jpg'], [...slots, upright]);
  await page.goto(`/job/${job.id}`);
  await allMade(page);
  const crop = (slot: string) => cellOf(page, job.pictures[0]!.id, slot).locator('img');
  const heights = async () =>
    Promise.all(slots.map(async (slot) => Math.round((await crop(slot).boundingBox())!.height)));
  const alike = await heights();
  expect(new Set(alike).size).toBe(1);
  expect(alike[0]).toBeGreaterThanOrEqual(64);
  // One that would be too narrow to be judged takes its caption's height as well; the row is no higher for it.
  const tall = (await crop(upright).boundingBox())!;
  expect(tall.width).toBeGreaterThanOrEqual(64);
  expect((await cellOf(page, job.pictures[0]!.id, upright).boundingBox())!.height).toBe(
    (await cellOf(page, job.pictures[0]!.id, slots[0]!).boundingBox())!.height,
  );
  await page.keyboard.press('+');
  await expect.poll(async () => (await heights())[0]).toBeGreaterThan(alike[0]!);
  await page.keyboard.press('p');
  // A listing of 2500 x 2000 stands to a square of 300 as it does on a page.
  await expect
    .poll(async () => {
      const [, square, listing] = await heights();
      return Math.abs(listing! / square! - 2000 / 300);
    })
    .toBeLessThan(0.5);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Shortcuts' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/framing/);
});

test('pictures that go to one slot each are shown as that, and skipped cells when they are asked for', async ({
  page,
}) => {
  const slots = ['skerry-site/header-strip', 'skerry-shop/grid-square', 'harbour-market/listing'];
  const job = await makeJob(page, 'One each', ['DSC_0412.JPG', 'DSC_0415.JPG', 'IMG_2102.jpg'], slots);
  await command(
    page,
    job.id,
    job.pictures.flatMap(({ id }, i) =>
      slots.filter((_, n) => n !== i).map((slot) => ({ do: 'skip', picture: id, slot, skipped: true })),
    ),
  );
  await page.goto(`/job/${job.id}`);
  const cells = page.getByRole('gridcell');
  await expect(cells).toHaveCount(3);
  const bench = page.getByTestId('bench');
  await expect(bench.getByText('Header strip', { exact: true })).toBeVisible();
  // Each goes on to the next by keyboard, and what is done to it is done to its own slot.
  await bench.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  const tray = page.getByRole('region', { name: 'Chosen cells' });
  await expect(tray).toContainText('Listing photo');
  await page.keyboard.press('x');
  await expect(cells).toHaveCount(2);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(cells).toHaveCount(3);

  await page.getByRole('button', { name: 'Show skipped' }).click();
  await expect(cells).toHaveCount(9);
  await expect(tray).toBeHidden();
  await expect(bench.getByText('skipped', { exact: true }).first()).toBeVisible();
});

test('alike pictures stand together, and are framed as one after the change was shown', async ({ page }) => {
  const slot = 'skerry-shop/grid-square';
  // The first and the last are one shot: the last was sent on by chat, smaller.
  const names = ['DSC_0412.JPG', 'DSC_0452.JPG', 'barometer-from-chat.jpg'];
  const job = await makeJob(page, 'Alike', names, [slot]);
  const [first, , last] = job.pictures.map((one) => one.id);
  const frame = { left: 0.3, top: 0.05, right: 0.7, bottom: 0.65 };
  await command(page, job.id, [{ do: 'set-frame', picture: first, slot, frame }]);
  await page.goto(`/job/${job.id}`);
  await expect(page.getByText('alike, 2 of 2')).toBeVisible();
  const rows = page.getByRole('rowheader');
  await expect(rows.nth(0)).toContainText('alike, 1 of 2');
  await expect(rows.nth(1)).toContainText('alike, 2 of 2');
  await expect(rows.nth(2)).not.toContainText('alike');

  await cellOf(page, first!, slot).click();
  await page.getByRole('button', { name: 'Copy frames to 1 alike' }).click();
  const sheet = page.getByRole('dialog');
  // What is alike is chosen, with its crop as it is and as it would be; nothing is changed so far.
  await expect(sheet.getByRole('checkbox', { checked: true })).toHaveCount(1);
  await expect(sheet.getByText('after', { exact: true }).first()).toBeVisible();
  expect((await readJob(page, job.id)).cell(last!, slot).origin).not.toBe('hand');
  await sheet.getByRole('button', { name: 'Copy to 1 picture' }).click();
  await expect.poll(async () => (await readJob(page, job.id)).cell(last!, slot).origin).toBe('hand');
  const copied = (await readJob(page, job.id)).cell(last!, slot).frame;
  for (const [i, value] of [0.3, 0.05, 0.7, 0.65].entries()) expect(copied[i]).toBeCloseTo(value, 2);
});
