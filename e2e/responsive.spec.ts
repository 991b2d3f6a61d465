import { execFileSync } from 'node:child_process';
import { createReadStream, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join, normalize } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { HtmlValidate } from 'html-validate';
import type { JobProgress } from '../client/src/api/client';
import { command, makeJob, test } from './support';

// What a browser really takes of the markup, against what was foretold: 12 windows, 4 screens, 3 kinds of slot.

const viewports = [320, 360, 412, 599, 600, 768, 959, 960, 1024, 1280, 1536, 1920];
const densities = [1, 1.5, 2, 3];
const places = ['skerry-site/portrait-feature', 'skerry-pages/story', 'skerry-pages/front'];
const slots = [
  'skerry-site/portrait-feature',
  'skerry-pages/story',
  'skerry-pages/front-wide',
  'skerry-pages/front-middle',
  'skerry-pages/front-narrow',
];
const types: Record<string, string> = {
  html: 'text/html; charset=utf-8',
  jpg: 'image/jpeg',
  webp: 'image/webp',
};

/** A job whose pictures have words for names, with every file made. */
async function madeJob(page: Page, names: string[], filled: string[]) {
  const { id, pictures } = await makeJob(page, 'Pages', names, filled);
  await command(
    page,
    id,
    pictures.map((one, i) => ({ do: 'give-words', picture: one.id, keywords: `picture ${i}` })),
  );
  await expect
    .poll(
      async () => {
        const { progress } = (await (await page.request.get(`/api/jobs/${id}`)).json()) as {
          progress: JobProgress;
        };
        return progress.files - progress.done - progress.failed;
      },
      { timeout: 180_000 },
    )
    .toBe(0);
  return { job: id, pictures: pictures.map((one) => one.id) };
}

/** Serves a folder as any web server would. */
function serve(folder: string): Promise<{ server: Server; base: string }> {
  const server = createServer((request, response) => {
    const path = join(folder, normalize(decodeURIComponent(new URL(request.url!, 'http://x').pathname)));
    if (!path.startsWith(folder) || !existsSync(path)) return response.writeHead(404).end();
    response.setHeader('Content-Type', types[path.split('.').at(-1)!] ?? 'application/octet-stream');
    createReadStream(path).pipe(response);
  });
  return new Promise((done) =>
    server.listen(0, '127.0.0.1', () =>
      done({ server, base: `http://127.0.0.1:${(server.address() as AddressInfo).port}` }),
    ),
  );
}

const pageOf = (body: string) =>
  `<!DOCTYPE html>\n<html lang="en">\n<head><title>Skerry</title></head>\n<body>\n${body}\n</body>\n</html>\n`;

test('a browser takes what was foretold, and a checker accepts the markup', async ({
  page,
  browser,
}, info) => {
  test.setTimeout(240_000);
  const { job, pictures } = await madeJob(page, ['P1050233.JPG', 'barometer-from-chat.jpg'], slots);
  const folder = info.outputPath('bundle');
  mkdirSync(folder, { recursive: true });
  const zip = join(folder, 'bundle.zip');
  writeFileSync(zip, await (await page.request.get(`/api/jobs/${job}/bundle.zip`)).body());
  execFileSync('unzip', ['-q', zip, '-d', folder]);
  const { server, base } = await serve(folder);
  try {
    const bodies: string[] = [];
    const shown: { place: string; foretold: { viewport: number; density: number; address: string }[] }[] = [];
    const screens = `viewports=${viewports.join('&viewports=')}&densities=${densities.join('&densities=')}`;
    for (const picture of pictures) {
      const answer = await page.request.get(`/api/jobs/${job}/pages?picture=${picture}&base=${base}`);
      const all = (await answer.json()) as { destination: string; key: string; html: string }[];
      expect(all.map((one) => `${one.destination}/${one.key}`).toSorted()).toEqual(places.toSorted());
      for (const one of all) {
        const body = one.html.replace('loading="lazy" ', '');
        const checked = await new HtmlValidate({ extends: ['html-validate:standard'] }).validateString(
          pageOf(body),
        );
        expect(
          checked.results.flatMap((result) => result.messages.map((message) => message.message)),
        ).toEqual([]);
        const place = `${one.destination}/${one.key}`;
        const foretold = await page.request.get(
          `/api/jobs/${job}/loads?picture=${picture}&place=${place}&base=${base}&${screens}`,
        );
        bodies.push(body);
        shown.push({ place, foretold: await foretold.json() });
      }
    }
    writeFileSync(join(folder, 'page.html'), pageOf(bodies.join('\n')));
    let compared = 0;
    for (const viewport of viewports) {
      for (const density of densities) {
        const context = await browser.newContext({
          viewport: { width: viewport, height: 700 },
          deviceScaleFactor: density,
        });
        const tab = await context.newPage();
        await tab.goto(`${base}/page.html`);
        const taken = await tab.locator('img').evaluateAll((images: HTMLImageElement[]) =>
          Promise.all(
            images.map(async (image) => {
              await image.decode();
              return image.currentSrc;
            }),
          ),
        );
        expect(taken.length).toBe(shown.length);
        for (const [i, { place, foretold }] of shown.entries()) {
          const own = foretold.filter((one) => one.viewport === viewport && one.density === density);
          expect(taken[i], `${place} at ${viewport} px and ${density}x`).toBe(own[0]!.address);
          compared++;
        }
        await context.close();
      }
    }
    expect(compared).toBe(viewports.length * densities.length * places.length * pictures.length);
  } finally {
    server.close();
  }
});

test('the page of all pictures works from the file system and lets widths be tried', async ({
  page,
}, info) => {
  const { job } = await madeJob(page, ['P1050233.JPG'], ['skerry-pages/story']);
  const folder = info.outputPath('bundle');
  mkdirSync(folder, { recursive: true });
  const zip = join(folder, 'bundle.zip');
  writeFileSync(zip, await (await page.request.get(`/api/jobs/${job}/bundle.zip`)).body());
  execFileSync('unzip', ['-q', zip, '-d', folder]);
  const manifest = JSON.parse(readFileSync(join(folder, 'manifest.json'), 'utf8')) as {
    schema: string;
    places: { group: string; slots: { files: { path: string; width: number; type: string }[] }[] }[];
  };
  expect(manifest.schema).toBe('pantomet-manifest/1');
  const files = manifest.places[0]!.slots[0]!.files;
  expect(files.every((file) => existsSync(join(folder, file.path)))).toBe(true);
  const asked: string[] = [];
  page.on('request', (request) => asked.push(request.url()));
  await page.goto(`file://${folder}/preview.html`);
  const taken = page.locator('.taken');
  await expect(taken).toContainText('px are needed');
  const widths = new Set<string>();
  for (const [viewport, density] of [
    [360, '1'],
    [360, '2'],
    [940, '2'],
    [1900, '1'],
  ] as const) {
    await page.locator('#viewport').fill(String(viewport));
    await page.locator('#density').selectOption(density);
    widths.add((await page.locator('.place img').getAttribute('src'))!);
    expect(
      await page.locator('.place img').evaluate(async (image: HTMLImageElement) => {
        await image.decode();
        return image.naturalWidth > 0;
      }),
    ).toBe(true);
  }
  expect(widths.size).toBeGreaterThanOrEqual(3);
  expect(asked.every((url) => url.startsWith('file://'))).toBe(true);
});

test('the ladder shows which screen takes what, and a changed rule is tried before it is set', async ({
  page,
}) => {
  const { job, pictures } = await madeJob(page, ['P1050233.JPG'], ['skerry-pages/story']);
  await page.goto(`/job/${job}/responsive/${pictures[0]}/skerry-pages/story`);
  const files = page.getByTestId('files');
  const before = await files.getAttribute('data-widths');
  await expect(page.locator('[data-screen="1280@1"]')).toHaveAttribute('data-takes', '926');
  await expect(page.getByTestId('typical')).toContainText('times as much');
  const sizes = page.getByLabel('Display width (sizes)');
  await sizes.fill('(min-width: 60em) 50%, 100vw');
  await expect(page.getByRole('alert')).toContainText('percentages');
  await expect(page.getByRole('button', { name: 'Save rule' })).toBeDisabled();
  await sizes.fill('(min-width: 60em) 400px, 100vw');
  await expect(files).not.toHaveAttribute('data-widths', before!);
  await page.getByRole('button', { name: 'Discard changes' }).click();
  await expect(files).toHaveAttribute('data-widths', before!);
});

test('markup is copied by a key, and missing texts are worked off', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const { job } = await madeJob(page, ['P1050233.JPG', 'DSC_0452.JPG'], ['skerry-site/header-strip']);
  await page.goto(`/job/${job}/handing-over/pages`);
  await expect(page.getByTestId('no-text')).toHaveText('2');
  await page.getByLabel('Base URL').fill('/pictures');
  await expect(page.getByLabel('Markup for Header strip')).toContainText('src="/pictures/skerry-site/');
  await page.getByLabel(/^Alternative text for/).fill('A "white" station');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('no-text')).toHaveText('1');
  await expect(page.getByLabel('Markup for Header strip')).toContainText('alt="A &quot;white&quot; station"');
  await page.locator('main').press('c');
  await expect(page.getByTestId('copied')).toContainText('copied');
  expect(await page.evaluate(() => navigator.clipboard.readText())).toContain(
    '<img src="/pictures/skerry-site/',
  );
  await page.keyboard.press('e');
  await page.getByLabel('Decorative (empty alt text)').check();
  await expect(page.getByText('Every picture has an alternative text.')).toBeVisible();
  await page.getByLabel('Base URL').fill('java script:');
  await expect(page.getByRole('alert')).toContainText('A base URL has no spaces');
});

test('a job is made live, a page uses it, and what differs is made live in one step', async ({ page }) => {
  const { job, pictures } = await madeJob(page, ['barometer-from-chat.jpg'], ['skerry-site/header-strip']);
  await page.goto(`/job/${job}/handing-over/live`);
  await page.getByRole('button', { name: 'Publish the job' }).click();
  await expect(page.getByText('Live and current: 1')).toBeVisible();
  const address = await page.getByRole('link', { name: 'Open' }).getAttribute('href');
  const before = await page.request.get(address!);
  expect(before.headers()['cache-control']).toBe('public, max-age=60');

  await command(page, job, [
    {
      do: 'set-frame',
      picture: pictures[0],
      slot: 'skerry-site/header-strip',
      frame: { left: 0, top: 0, right: 0.7, bottom: 0.3 },
    },
  ]);
  const differs = page.getByTestId('differs');
  await expect(differs.getByAltText('Live now')).toBeVisible();
  await expect(differs.getByAltText('In the job')).toBeVisible({ timeout: 60_000 });
  await differs.getByRole('button', { name: 'Publish' }).click();
  await expect(page.getByText('Live and current: 1')).toBeVisible();
  await expect(differs).toBeHidden();
  const after = await page.request.get(address!);
  expect(after.headers().etag).not.toBe(before.headers().etag);

  await page.getByRole('button', { name: 'Unpublish' }).click();
  await expect(page.getByRole('button', { name: 'Publish the job' })).toBeVisible();
  expect((await page.request.get(address!)).status()).toBe(404);
});
