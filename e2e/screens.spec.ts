import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { allMade, makeJob } from './support';

// Every main screen: nothing for axe to find, in both surrounds, and nothing outside of the page.

async function job(page: Page) {
  const slots = [
    'skerry-site/opening-large',
    'skerry-shop/grid-square',
    'skerry-shop/product-mat',
    'tidewrack/cover',
  ];
  const made = await makeJob(
    page,
    'Screens',
    ['DSC_0415.JPG', 'barometer-from-chat.jpg', 'weatherworks-mark.png'],
    slots,
  );
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
    ['ladder', `/job/${made.id}/ladder/${id}/${slots[0]}`],
    ['a ladder rule', '/destinations/skerry-pages/story'],
    ['page checks', '/page-checks'],
    ['folders', '/folders'],
  ] as const;
}

for (const surround of ['lighter', 'darker'])
  test(`axe finds nothing on any screen in the ${surround} surround`, async ({ page }) => {
    await page.addInitScript((value) => localStorage.setItem('pantomet-surround', value), surround);
    for (const [name, address] of await job(page)) {
      await page.goto(address);
      await page.waitForLoadState('networkidle').catch(() => undefined);
      await page.waitForTimeout(600);
      await expect(page.locator('html')).toHaveAttribute('data-surround', surround);
      const found = await new AxeBuilder({ page })
        .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
        .analyze();
      expect(
        found.violations.map(
          (one) => `${name}: ${one.id}: ${one.nodes.map((node) => node.html.slice(0, 120)).join(' | ')}`,
        ),
      ).toEqual([]);
      if (name === 'bench') {
        await page.keyboard.press('?');
        await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
        expect(
          (await new AxeBuilder({ page }).include('[role=dialog]').analyze()).violations.map((one) => one.id),
        ).toEqual([]);
        await page.keyboard.press('Escape');
      }
    }
  });

test('the screens fit from 1280 down to 1024 wide', async ({ page }) => {
  const all = await job(page);
  for (const width of [1280, 1024]) {
    await page.setViewportSize({ width, height: 800 });
    for (const [name, address] of all) {
      await page.goto(address);
      await page.waitForTimeout(500);
      const overflow = await page.evaluate(
        () =>
          document.documentElement.scrollWidth > innerWidth ||
          document.documentElement.scrollHeight > innerHeight,
      );
      expect(overflow, `${name} at ${width}`).toBe(false);
    }
  }
  await page.goto('/nowhere');
  await expect(page.getByText('There is nothing at this address.')).toBeVisible();
  await page.goto('/job/00000000-0000-0000-0000-000000000000');
  await expect(page.getByText('There is no such job.')).toBeVisible();
});
