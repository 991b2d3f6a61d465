import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import { allMade, makeJob, test } from './support';

// Every main screen: nothing for axe to find, in both surrounds, and nothing outside of the page.

async function job(page: Page) {
  const slots = [
    'skerry-site/opening-large',
    'skerry-shop/grid-square',
    'skerry-shop/product-mat',
    'tidewrack/cover',
  ];
  const made = await makeJob(page, 'Screens', ['barometer-from-chat.jpg', 'weatherworks-mark.png'], slots);
  const id = made.pictures[0]!.id;
  await page.goto(`/job/${made.id}`);
  await allMade(page);
  const empty = await makeJob(page, 'Nothing yet', [], []);
  return [
    ['jobs', '/'],
    ['pictures', '/pictures'],
    ['destinations', '/destinations/tidewrack/cover'],
    ['empty job', `/job/${empty.id}`],
    ['bench', `/job/${made.id}`],
    ['framing', `/job/${made.id}/framing/${id}`],
    ['over the picture', `/job/${made.id}/framing/${id}?slot=${slots[1]}&over`],
    ['weighing', `/job/${made.id}/weighing/${id}/${slots[0]}`],
    ['handing over', `/job/${made.id}/handing-over`],
    ['receivers', `/job/${made.id}/handing-over/receivers`],
    ['on pages', `/job/${made.id}/handing-over/pages`],
    ['live links', `/job/${made.id}/handing-over/live`],
    ['ladder', `/job/${made.id}/responsive/${id}/${slots[0]}`],
    ['a ladder rule', '/destinations/skerry-pages/story'],
    ['page checks', '/page-checks'],
    ['folders', '/folders'],
  ] as const;
}

// What depends on the surround is its colours; everything else is looked at once.
const colours = ['color-contrast', 'link-in-text-block'];
const tags = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice', 'experimental'];

/** Only what is wrong is wanted, and no page has another page within: what serves anything else takes longer than finding out. */
const looking = (page: Page) =>
  new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).setLegacyMode();

async function nothingFound(name: string, axe: AxeBuilder) {
  const found = await axe.analyze();
  expect(
    found.violations.map(
      (one) => `${name}: ${one.id}: ${one.nodes.map((node) => node.html.slice(0, 120)).join(' | ')}`,
    ),
  ).toEqual([]);
}

async function surround(page: Page, value: 'lighter' | 'darker') {
  await page.evaluate((to) => (document.documentElement.dataset.surround = to), value);
  await expect(page.locator('html')).toHaveAttribute('data-surround', value);
}

/** Waits until what the page asked for is there and drawn. */
async function atRest(page: Page) {
  await page.waitForLoadState('networkidle');
  await page.waitForFunction(() => [...document.images].every((one) => one.complete));
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
}

test('axe finds nothing on any screen in either surround, and each fits from 1280 down to 1024 wide', async ({
  page,
}) => {
  test.setTimeout(300_000);
  await page.addInitScript(() => localStorage.setItem('pantomet-surround', 'lighter'));
  for (const [name, address] of await job(page)) {
    await page.goto(address);
    await atRest(page);
    await expect(page.locator('html')).toHaveAttribute('data-surround', 'lighter');
    await nothingFound(name, looking(page).withTags(tags));
    await surround(page, 'darker');
    await nothingFound(`${name}, darker`, looking(page).withRules(colours));
    if (name === 'bench') {
      for (const value of ['darker', 'lighter'] as const) {
        await surround(page, value);
        await page.keyboard.press('?');
        await expect(page.getByRole('dialog', { name: 'Shortcuts' })).toBeVisible();
        await nothingFound(`keys, ${value}`, looking(page).include('[role=dialog]'));
        await page.keyboard.press('Escape');
      }
    }
    for (const width of [1024, 1280]) {
      await page.setViewportSize({ width, height: 800 });
      await page.evaluate(
        () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))),
      );
      const overflow = await page.evaluate(
        () =>
          document.documentElement.scrollWidth > innerWidth ||
          document.documentElement.scrollHeight > innerHeight,
      );
      expect(overflow, `${name} at ${width}`).toBe(false);
    }
  }
});

test('an address that leads nowhere says so', async ({ page }) => {
  await page.goto('/nowhere');
  await expect(page.getByText('There is no page at this address.')).toBeVisible();
  await page.goto('/job/00000000-0000-0000-0000-000000000000');
  await expect(page.getByText('This job does not exist.')).toBeVisible();
});

test('lists and forms reflow to 320 px: they scroll down, never across', async ({ page }) => {
  test.setTimeout(120_000);
  const screens = await job(page);
  const drawings = [
    'bench',
    'framing',
    'over the picture',
    'weighing',
    'ladder',
    'a ladder rule',
    'destinations',
  ];
  await page.setViewportSize({ width: 320, height: 640 });
  for (const [name, address] of [...screens, ['all destinations', '/destinations'] as const]) {
    await page.goto(address);
    // Pictures further down are fetched when they come into view.
    await page.waitForLoadState('networkidle');
    if (drawings.includes(name)) {
      // A drawing needs its room: the screens of a job say so.
      if (['bench', 'framing', 'weighing'].includes(name))
        await expect(page.getByText('This screen works in a window of 820 px and more')).toBeVisible();
      continue;
    }
    const across = await page.evaluate(() =>
      [document.documentElement, ...document.querySelectorAll<HTMLElement>('body *:not(pre)')]
        .filter(
          (one) => /auto|scroll/.test(getComputedStyle(one).overflowX) || one === document.documentElement,
        )
        .filter((one) => one.clientWidth > 0 && one.scrollWidth > one.clientWidth + 1)
        .map((one) => `${one.tagName}.${one.className}`.slice(0, 80)),
    );
    expect({ name, across }).toEqual({ name, across: [] });
  }
});
