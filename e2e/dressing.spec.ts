import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { makeJob } from './support';

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
  const rule = page.getByRole('complementary', { name: 'Rule of a slot' });
  await rule.getByLabel('With a title').check();
  await rule.getByRole('textbox', { name: 'Text', exact: true }).fill('Brass that tells');
  await rule.getByRole('textbox', { name: 'Area' }).fill('0.05 0.1 0.5 2');
  await expect(
    rule.getByText('A fraction from 0 to 1 is needed here, not 2.', { exact: true }),
  ).toBeVisible();
  await rule.getByRole('textbox', { name: 'Area' }).fill('0.05 0.1 0.95 0.9');
  await rule.getByRole('combobox', { name: 'Font' }).selectOption('Zilla Slab');
  await rule.getByRole('button', { name: 'Set the rule' }).click();
  await expect(rule.getByRole('button', { name: 'Set the rule' })).toBeDisabled();

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
