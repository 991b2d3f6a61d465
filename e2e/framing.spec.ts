import { expect } from '@playwright/test';
import { frameFor } from '../client/src/domain/solver';
import { command, figures, makeJob, openFraming, readJob, settled, test } from './support';

// Framing across slots: shared and unlinked frames, keep boxes and focus, straightening, copying.

const slots = [
  'skerry-site/opening-large',
  'skerry-site/opening-small',
  'skerry-shop/grid-square',
  'tidewrack/cover',
];

test('the content is drawn under the slot, kin move together, and one is let loose', async ({ page }) => {
  const job = await makeJob(page, 'Kin', ['DSC_0440.JPG'], slots);
  const id = job.pictures[0]!.id;
  await openFraming(page, job.id, id, slots[0]);
  await expect(page.getByTestId('tied')).toContainText('Linked with 1 other slot');
  const before = await figures(page);
  await page.keyboard.press('+');
  await page.keyboard.press('+');
  await page.keyboard.press('+');
  await expect.poll(async () => (await figures(page)).width).toBeLessThan(before.width * 0.87);
  const tight = await figures(page);

  const slot = page.getByTestId('slot-window');
  const box = (await slot.boundingBox())!;
  // A pointer moves by whole pixels.
  const [x, y] = [Math.round(box.x + box.width / 2), Math.round(box.y + box.height / 2)];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 8, y, {
    steps: 5,
  });
  await page.mouse.up();
  const scale = box.width / tight.width;
  // The content follows the finger: what is seen moves to the left in the picture.
  await expect.poll(async () => Math.abs(tight.x - (await figures(page)).x - 8 / scale)).toBeLessThan(4);
  await expect
    .poll(async () => {
      const now = await readJob(page, job.id);
      return JSON.stringify(now.cell(id, slots[0]!).frame) === JSON.stringify(now.cell(id, slots[1]!).frame);
    })
    .toBe(true);
  await settled(page);
  const shared = (await readJob(page, job.id)).cell(id, slots[1]!).frame;

  await page.keyboard.press('l');
  await expect(page.getByTestId('tied')).toContainText('Not linked');
  await page.keyboard.press('-');
  await expect.poll(async () => (await readJob(page, job.id)).cell(id, slots[0]!).frame).not.toEqual(shared);
  expect((await readJob(page, job.id)).cell(id, slots[1]!).frame).toEqual(shared);
  await page.keyboard.press('t');
  await expect.poll(async () => (await readJob(page, job.id)).cell(id, slots[0]!).frame).toEqual(shared);
  for (let i = 0; i < 7; i++) await page.keyboard.press('Control+z');
  await expect.poll(async () => (await figures(page)).width).toBe(before.width);
});

test('the slot in hand is drawn larger, and never grows while a hand is down', async ({ page }) => {
  const job = await makeJob(page, 'In hand', ['DSC_0440.JPG'], slots);
  await openFraming(page, job.id, job.pictures[0]!.id, slots[0]);
  const windowOf = (slot: string) => page.locator(`[data-slot="${slot}"] > div`);
  const size = async (slot: string) => (await windowOf(slot).boundingBox())!;
  const [large, small] = [await size(slots[0]!), await size(slots[2]!)];
  const beside = await size(slots[1]!);
  const place = { x: small.x + small.width / 2, y: small.y + small.height / 2 };
  await page.mouse.move(place.x, place.y);
  await page.mouse.down();
  await expect(page.getByRole('region', { name: 'The active slot' })).toContainText('Grid square');
  expect(await size(slots[2]!)).toEqual(small);
  await page.mouse.up();
  await expect.poll(async () => (await size(slots[2]!)).height).toBeGreaterThan(1.3 * small.height);
  expect((await size(slots[0]!)).height).toBeLessThan(large.height);
  // Nothing else moved.
  expect(await size(slots[1]!)).toEqual(beside);
  const { x, y } = await size(slots[2]!);
  expect({ x, y }).toEqual({ x: small.x, y: small.y });
});

test('a frame that is held is weighed, and the weight stands once it is let go', async ({ page }) => {
  const job = await makeJob(page, 'Held', ['IMG_2109.jpg'], [slots[0]!]);
  await openFraming(page, job.id, job.pictures[0]!.id, slots[0]);
  await page.keyboard.press('+');
  await page.keyboard.press('+');
  const weight = page.locator("[data-weight='1x']");
  await expect(weight).toContainText(/B$/);
  const before = await weight.textContent();
  const frame = (await page.locator('[data-part=frame]').boundingBox())!;
  const [x, y] = [frame.x + frame.width / 2, frame.y + frame.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 12, y - 9, { steps: 4 });
  // Another weight, and nothing is decided while the hand holds it.
  await expect(weight).not.toHaveText(before!);
  await expect(weight).toContainText(/B$/);
  const held = await weight.textContent();
  const untouched = await readJob(page, job.id);
  await page.mouse.up();
  await expect
    .poll(async () => (await readJob(page, job.id)).cell(job.pictures[0]!.id, slots[0]!).frame)
    .not.toEqual(untouched.cell(job.pictures[0]!.id, slots[0]!).frame);
  await expect(weight).toHaveText(held!);
});

test('a keep box is drawn and every slot holds it; the focus takes its place; all is undone', async ({
  page,
}) => {
  const job = await makeJob(page, 'Keep', ['IMG_2087.jpg'], slots);
  const id = job.pictures[0]!.id;
  await openFraming(page, job.id, id, slots[2]);
  const stage = (await page.getByRole('img', { name: 'IMG_2087.jpg, whole picture' }).boundingBox())!;
  const at = (x: number, y: number) => [stage.x + stage.width * x, stage.y + stage.height * y] as const;
  await page.keyboard.press('k');
  await page.mouse.move(...at(0.7, 0.25));
  await page.mouse.down();
  await page.mouse.move(...at(0.95, 0.65), { steps: 8 });
  await page.mouse.up();
  await expect(page.getByTestId('keep')).toBeVisible();
  await expect.poll(async () => (await readJob(page, job.id)).cell(id, slots[2]!).origin).toBe('kept');
  for (const cell of (await readJob(page, job.id)).cells.filter((one) => one.slot !== 'tidewrack/cover')) {
    const [left, top, right, bottom] = cell.frame as [number, number, number, number];
    expect(left).toBeLessThanOrEqual(0.705);
    expect(right).toBeGreaterThanOrEqual(0.945);
    expect(top).toBeLessThanOrEqual(0.255);
    expect(bottom).toBeGreaterThanOrEqual(0.645);
  }
  await page.keyboard.press('f');
  await page.mouse.click(...at(0.3, 0.5));
  await expect(page.getByTestId('focus')).toBeVisible();
  await expect.poll(async () => (await readJob(page, job.id)).cell(id, slots[2]!).origin).toBe('focus');
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('keep')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('keep')).toBeHidden();
  await page.getByRole('button', { name: 'Reject' }).click();
  await expect.poll(async () => (await readJob(page, job.id)).cell(id, slots[2]!).origin).toBe('centred');
});

test('a picture is turned by quarters and straightened, and marks stay on what they mark', async ({
  page,
}) => {
  const job = await makeJob(page, 'Turn', ['IMG_2109.jpg'], slots);
  const id = job.pictures[0]!.id;
  await openFraming(page, job.id, id, slots[2]);
  await page.keyboard.press('u');
  await expect(page.getByTestId('keep')).toBeVisible();
  await expect.poll(async () => (await readJob(page, job.id)).cell(id, slots[2]!).origin).toBe('kept');
  const before = (await readJob(page, job.id)).head.pictures[0]!;
  await page.getByRole('button', { name: 'Turn right by 90 degrees' }).click();
  await expect.poll(async () => (await readJob(page, job.id)).head.pictures[0]!.width).toBe(before.height);
  const turned = (await readJob(page, job.id)).head.pictures[0]!;
  const [was] = before.decisions.keep as {
    left: number;
    top: number;
    right: number;
    bottom: number;
  }[];
  const [is] = turned.decisions.keep as typeof was extends undefined
    ? never
    : { left: number; top: number }[];
  expect(is!.left).toBeCloseTo(1 - was!.bottom, 6);
  expect(is!.top).toBeCloseTo(was!.left, 6);
  await page.getByRole('slider', { name: 'Straighten' }).fill('3.5');
  await expect
    .poll(async () => (await readJob(page, job.id)).head.pictures[0]!.width, {
      timeout: 10_000,
    })
    .toBeLessThan(turned.width);
  // The turned pixels are really there: the preview has the new shape.
  const shown = (await readJob(page, job.id)).head.pictures[0]!;
  const image = page.getByRole('img', { name: 'IMG_2109.jpg, whole picture' });
  await expect
    .poll(() => image.evaluate((one: HTMLImageElement) => one.naturalWidth / one.naturalHeight), {
      timeout: 30_000,
    })
    .toBeCloseTo(shown.width / shown.height, 1);
});

test('frames and marks are copied to other pictures in one step', async ({ page }) => {
  const job = await makeJob(page, 'Copy', ['DSC_0412.JPG', 'DSC_0415.JPG', 'IMG_2081.jpg'], slots);
  const id = job.pictures[0]!.id;
  await openFraming(page, job.id, id, slots[3]);
  await page.keyboard.press('+');
  await expect(page.getByTestId('tied')).toContainText('Framed by hand');
  await page.keyboard.press('c');
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('button', { name: 'Copy to 1 picture' })).toBeVisible();
  await dialog.getByRole('button', { name: 'Copy to 1 picture' }).click();
  await expect
    .poll(async () => {
      const now = await readJob(page, job.id);
      return now
        .cell(job.pictures[1]!.id, slots[3]!)
        .frame.map((edge) => edge.toFixed(4))
        .join();
    })
    .toBe(
      (await readJob(page, job.id))
        .cell(id, slots[3]!)
        .frame.map((edge) => edge.toFixed(4))
        .join(),
    );
  expect((await readJob(page, job.id)).cell(job.pictures[2]!.id, slots[3]!).origin).not.toBe('hand');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect
    .poll(async () => (await readJob(page, job.id)).cell(job.pictures[1]!.id, slots[3]!).origin)
    .not.toBe('hand');
});

test('wheel, corner and exact figures frame as well, and the shape is kept', async ({ page }) => {
  const job = await makeJob(page, 'Figures', ['P1050233.JPG'], ['tidewrack/cover']);
  await openFraming(page, job.id, job.pictures[0]!.id);
  const shape = 851 / 315;
  const widest = await figures(page);
  expect(widest.width).toBe(4800);
  await page.keyboard.press('+');
  await expect.poll(async () => (await figures(page)).width).toBe(4560);
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => (await figures(page)).x).toBe(168);
  await page.keyboard.press('Shift+ArrowLeft');
  await expect.poll(async () => (await figures(page)).x).toBe(167);
  const box = (await page.locator('[data-part=frame]').boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.wheel(0, -300);
  await expect.poll(async () => (await figures(page)).width).toBeLessThan(4000);
  await page.getByRole('textbox', { name: /^Width/ }).fill('2000');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await figures(page)).width).toBe(2000);
  expect((await figures(page)).height).toBeCloseTo(2000 / shape, 0);
  const corner = (await page.locator('[data-part=bottom-right]').boundingBox())!;
  await page.mouse.move(corner.x + corner.width / 2, corner.y + corner.height / 2);
  await page.mouse.down();
  await page.mouse.move(corner.x - 80, corner.y - 10, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => (await figures(page)).width).toBeLessThan(1900);
  const drawn = await figures(page);
  expect(Math.abs(drawn.width / drawn.height - shape)).toBeLessThan(0.01);
  await page.getByTestId('stage').click({ position: { x: 5, y: 5 } });
  await page.keyboard.press('0');
  await expect.poll(() => figures(page)).toEqual(widest);
});

test('the solver in the browser finds the same frames as the one in the core', async ({ page }) => {
  const job = await makeJob(
    page,
    'Solver',
    ['DSC_0415.JPG', 'IMG_2081.jpg', 'DSC_0423.JPG'],
    [
      ...slots,
      'skerry-site/text-column',
      'skerry-site/header-strip',
      'skerry-shop/product-mat',
      'lampglow/tall-card',
    ],
  );
  let state = 7;
  const random = () => (state = (state * 48271) % 2147483647) / 2147483647;
  let compared = 0;
  for (let round = 0; round < 12; round++) {
    const now = await readJob(page, job.id);
    const changes = now.head.pictures.flatMap((one) => {
      const picture = one.picture.id;
      const [left, top] = [random() * 0.7, random() * 0.7];
      const box = {
        left,
        top,
        right: left + 0.05 + random() * 0.25,
        bottom: top + 0.05 + random() * 0.25,
      };
      const focus = { x: random(), y: random() };
      return [
        { do: 'clear-marks', picture },
        round % 3 === 0
          ? { do: 'add-keep-box', picture, box }
          : {
              do: 'set-focus',
              picture,
              focus: round % 3 === 1 ? focus : null,
            },
        ...(round === 11 ? [{ do: 'reject-suggestion', picture }] : []),
      ];
    });
    await command(page, job.id, changes);
    const next = await readJob(page, job.id);
    for (const picture of next.head.pictures)
      for (const slot of next.head.slots) {
        const box = frameFor(picture, slot.slot, slot.address, picture.decisions);
        const [left, top, right, bottom] = next.cell(picture.picture.id, slot.address).frame as [
          number,
          number,
          number,
          number,
        ];
        expect(box.x).toBeCloseTo(left * picture.width, 3);
        expect(box.y).toBeCloseTo(top * picture.height, 3);
        expect(box.x + box.width).toBeCloseTo(right * picture.width, 3);
        expect(box.y + box.height).toBeCloseTo(bottom * picture.height, 3);
        compared++;
      }
  }
  expect(compared).toBe(12 * 3 * 8);
});
