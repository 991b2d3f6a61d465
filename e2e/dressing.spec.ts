import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { makeJob, test } from './support';

const width = 1200;
const height = 300;

/** Texts with the file of their font, its name and weight, and a size: accents, joined letters, both directions. */
const texts = [
  ['Brass that tells the weather: é ű ñ Ł', 'archivo/Archivo_400Regular', 'Archivo', 400, 40],
  ['Storm lanterns by the quay', 'caveat/Caveat_700Bold', 'Caveat', 700, 90],
  ['שלום עולם Brass 123 مرحبا بالعالم', 'rubik/Rubik_400Regular', 'Rubik', 400, 33],
] as const;

/** How many dark pixels of each of two pictures have none in the other within a pixel, and how many there are. */
function apart(page: Page, one: Buffer, other: Buffer) {
  return page.evaluate(
    async ([first, second]) => {
      const read = async (data: string) => {
        const image = await createImageBitmap(await (await fetch(`data:image/png;base64,${data}`)).blob());
        const context = new OffscreenCanvas(image.width, image.height).getContext('2d')!;
        context.drawImage(image, 0, 0);
        return context.getImageData(0, 0, image.width, image.height);
      };
      const [a, b] = [await read(first!), await read(second!)];
      const value = (of: ImageData, x: number, y: number) =>
        x < 0 || y < 0 || x >= of.width || y >= of.height ? 255 : of.data[4 * (y * of.width + x)]!;
      const missing = (from: ImageData, to: ImageData) => {
        let [dark, lost] = [0, 0];
        for (let y = 0; y < from.height; y++)
          for (let x = 0; x < from.width; x++) {
            if (value(from, x, y) >= 96) continue;
            dark++;
            let near = false;
            for (let v = -1; v <= 1; v++)
              for (let u = -1; u <= 1; u++) near ||= value(to, x + u, y + v) < 160;
            lost += near ? 0 : 1;
          }
        return { dark, lost };
      };
      return [missing(a, b), missing(b, a)];
    },
    [one.toString('base64'), other.toString('base64')],
  );
}

test('words are drawn as a browser draws them, within a pixel', async ({ page }, info) => {
  await page.setViewportSize({ width, height });
  const white = info.outputPath('white.png');
  await page.setContent('');
  writeFileSync(white, await page.screenshot());
  const rules = info.outputPath('rules.json');
  const slots = texts.map(([text, , font, weight, size], i) => ({
    key: `t${i}`,
    size: { width, height },
    types: ['png'],
    dress: { title: { text, font, weight, size, ink: '#000000' } },
  }));
  writeFileSync(
    rules,
    JSON.stringify({ schema: 'pantomet-rules/1', destinations: [{ key: 'words', slots }] }),
  );
  execFileSync('../pantomet', ['render', '--rules', rules, '--out', info.outputPath('out'), white]);
  for (const [i, [text, file, , , size]] of texts.entries()) {
    const font = readFileSync(`../assets/fonts/${file}.ttf`).toString('base64');
    await page.setContent(`<style>
      @font-face { font-family: X; src: url(data:font/ttf;base64,${font}) }
      body { margin: 0; height: ${height}px; display: flex; align-items: center }
      div { width: 100%; font: ${size}px X; text-rendering: geometricPrecision }
    </style><div dir="auto">${text}</div>`);
    await page.evaluate(() => document.fonts.ready);
    const [ours, theirs] = await apart(
      page,
      readFileSync(info.outputPath('out', 'words', `white-t${i}.png`)),
      await page.screenshot(),
    );
    expect(ours!.dark).toBeGreaterThan(1500);
    expect([ours!.lost, theirs!.lost], text).toEqual([0, 0]);
  }
});

test('a slot is dressed in the book of rules, and its files wear it', async ({ page }) => {
  await page.request.post('/api/destinations', { data: { name: 'Wardrobe' } });
  await page.request.put('/api/destinations/wardrobe/slots/strip', {
    data: { rule: { key: 'strip', name: 'Strip', size: { width: 480, height: 120 } }, pattern: '' },
  });
  const { id, pictures } = await makeJob(page, 'Dressed', ['barometer-from-chat.jpg'], ['wardrobe/strip']);

  await page.goto('/destinations/wardrobe/strip');
  const rule = page.getByRole('complementary', { name: 'Rule of the slot' });
  await rule.getByLabel('With a title').check();
  await rule.getByRole('textbox', { name: 'Text', exact: true }).fill('Brass that tells');
  await rule.getByRole('textbox', { name: /^Area/ }).fill('0.05 0.1 0.5 2');
  await expect(
    rule.getByText('A fraction from 0 to 1 is needed here, not 2.', { exact: true }),
  ).toBeVisible();
  await rule.getByRole('textbox', { name: /^Area/ }).fill('0.05 0.1 0.95 0.9');
  await rule.getByRole('combobox', { name: 'Font' }).selectOption('Zilla Slab');
  await rule.getByRole('button', { name: 'Save rule' }).click();
  await expect(rule.getByRole('button', { name: 'Save rule' })).toBeDisabled();

  // What is on a screen is made first.
  await page.goto(`/job/${id}/weighing/${pictures[0]!.id}/wardrobe/strip`);
  const dress = async () => {
    const report = (await (await page.request.get(`/api/jobs/${id}/report.json`)).json()) as {
      variants: { dress?: { contrast: number; titleBox: number[] } }[];
    };
    return report.variants[0]!.dress;
  };
  await expect.poll(dress, { timeout: 120_000 }).toBeDefined();
  expect((await dress())!.contrast).toBeGreaterThanOrEqual(3);
  expect((await dress())!.titleBox[0]).toBeGreaterThanOrEqual(22);
  await expect(page.getByText('480 × 120 px', { exact: false }).first()).toBeVisible();
});

test('a title is typed, placed and done on the very file, for one picture and for all', async ({ page }) => {
  await page.request.post('/api/destinations', { data: { name: 'Banners' } });
  await page.request.put('/api/destinations/banners/slots/head', {
    data: { rule: { key: 'head', name: 'Head', size: { width: 600, height: 300 } }, pattern: '' },
  });
  const { id, pictures } = await makeJob(
    page,
    'Titled',
    ['DSC_0415.JPG', 'barometer-from-chat.jpg'],
    ['banners/head'],
  );
  const [first, second] = [pictures[0]!.id, pictures[1]!.id];
  const dressOf = async (picture: string) => {
    const { files } = (await (
      await page.request.get(`/api/jobs/${id}/cells/${picture}/banners/head`)
    ).json()) as { files: { dress: { titleBox: number[]; contrast: number; wanted: number } | null }[] };
    return files[0]?.dress ?? null;
  };
  // At an odd height the corner lies on a half pixel, and a press on it could begin the browser's own drag.
  await page.setViewportSize({ width: 1280, height: 801 });
  await page.goto(`/job/${id}/framing/${first}?slot=banners/head`);
  await page.getByRole('button', { name: 'Text and overlay' }).waitFor();
  await page.keyboard.press('o');

  // Type: the field has the keyboard, and the words stand on the picture and in every font.
  await page.keyboard.type('Storm vane');
  await expect(page.getByTestId('reached')).toContainText('3.00 : 1 wanted');
  await expect(
    page.getByRole('list', { name: 'Fonts' }).getByRole('button', { name: /^Storm vane/ }),
  ).toHaveCount(7);
  await page.getByRole('list', { name: 'Fonts' }).getByRole('button', { name: /Lora/ }).hover();
  await expect(page.getByRole('button', { name: /Archivo$/ })).toHaveAttribute('aria-pressed', 'true');

  // Place: the area follows the hand, the rule says where.
  const area = (await page.getByTestId('over-area').boundingBox())!;
  const look = (await page.getByTestId('over-look').boundingBox())!;
  await page.mouse.move(area.x + area.width / 2, area.y + area.height / 2);
  await page.mouse.down();
  await page.mouse.move(area.x + area.width / 2, area.y + area.height / 2 - look.height, { steps: 5 });
  await page.mouse.up();
  await expect(async () =>
    expect((await page.getByTestId('over-area').boundingBox())!.y).toBeCloseTo(look.y, 0),
  ).toPass();

  // A corner makes it smaller, and the opposite one stays.
  const wide = (await page.getByTestId('over-area').boundingBox())!;
  await page.locator('[data-corner="right bottom"]').hover();
  await page.mouse.down();
  await page.mouse.move(wide.x + wide.width - 100, wide.y + wide.height - 20, { steps: 4 });
  await page.mouse.up();
  await expect(async () => {
    const now = (await page.getByTestId('over-area').boundingBox())!;
    expect([now.x, now.y]).toEqual([wide.x, wide.y]);
    expect(now.width).toBeCloseTo(wide.width - 100, -1);
  }).toPass();

  // Done.
  await page.getByTestId('over-words').press('Enter');
  await expect(page.getByTestId('stage')).toBeVisible();
  await expect.poll(() => dressOf(first), { timeout: 60_000 }).toMatchObject({ wanted: 3 });
  const made = (await dressOf(first))!;
  expect(made.titleBox[3]).toBeLessThan(150);
  expect(made.contrast).toBeGreaterThanOrEqual(3);
  expect(await dressOf(second)).toBeNull();

  // The same for every picture of the slot, each with its own words.
  await page.keyboard.press('o');
  await page.getByRole('button', { name: 'For every picture of the slot' }).click();
  await expect(page.getByTestId('stage')).toBeVisible();
  const rule = (await (await page.request.get('/api/destinations/banners/slots/head')).json()) as {
    rule: { dress: { title: { text: string; area: number[] } } };
  };
  expect(rule.rule.dress.title.text).toBe('{title}');
  expect(rule.rule.dress.title.area[1]).toBe(0);
  await page.goto(`/job/${id}/framing/${second}?slot=banners/head&over`);
  await page.getByTestId('over-words').fill('Barometer');
  await expect(page.getByTestId('over-whose')).toContainText('As the slot');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await dressOf(second))?.wanted, { timeout: 60_000 }).toBe(3);
});

test('an ink is picked from the picture with a glass, and a dressing is kept by name', async ({ page }) => {
  const { id, pictures } = await makeJob(page, 'Inked', ['DSC_0415.JPG'], ['skerry-shop/grid-square']);
  const mark = await page.request.put('/api/side-files/maker.svg', {
    data: Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="20" height="8"><path d="M0 0h20v8z"/></svg>',
    ),
    headers: { 'content-type': 'application/octet-stream' },
  });
  expect(mark.ok()).toBe(true);
  await page.goto(`/job/${id}/framing/${pictures[0]!.id}?slot=skerry-shop/grid-square&over`);
  await page.getByTestId('over-words').fill('Glass');
  // The hand may rest there before the pixels have come.
  await page.route('**/api/previews/*', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 1500));
    await route.continue();
  });
  await page.getByRole('button', { name: 'Pick from the picture' }).click();
  const picker = page.getByTestId('ink-picker');
  await picker.hover({ position: { x: 60, y: 40 } });
  await expect(page.getByTestId('picked')).toHaveText(/^#[0-9a-f]{6}$/);
  const ink = (await page.getByTestId('picked').textContent())!;
  await page.mouse.down();
  await page.mouse.up();
  await expect(page.getByTestId('reached')).toContainText(`text colour ${ink}`);
  await page.getByLabel('With a logo').check();
  await page.getByRole('combobox', { name: /^Corner/ }).selectOption('above, left');
  await page.getByRole('textbox', { name: 'Name of the style' }).fill('Glass by the sea');
  await page.getByRole('button', { name: 'Save style' }).click();
  await expect(page.getByRole('button', { name: 'Glass by the sea' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  const rules = (await (await page.request.get('/api/destinations/rules.json')).json()) as {
    dressings: Record<string, { title: { ink: string }; mark: { file: string; at: string } }>;
  };
  expect(rules.dressings['Glass by the sea']!.mark).toMatchObject({ file: 'maker.svg', at: 'top-left' });
  expect(rules.dressings['Glass by the sea']!.title.ink).toBe(ink);
  await page.getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByRole('button', { name: 'Glass by the sea' })).toHaveCount(0);
  // Left as it was: nothing is sent.
  const titleOf = async () => {
    const job = (await (await page.request.get(`/api/jobs/${id}`)).json()) as {
      head: { pictures: { decisions: { title: string } }[] };
    };
    return job.head.pictures[0]!.decisions.title;
  };
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByTestId('stage')).toBeVisible();
  await expect.poll(titleOf).toBe('');
});
