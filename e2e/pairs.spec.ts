import { expect, type Page } from '@playwright/test';
import { makeJob, test } from './support';

/** The columns of a file whose pixel in the tenth row has a colour. */
function columnsOf(page: Page, file: string, colour: readonly number[]) {
  return page.evaluate(
    async ([id, wanted]) => {
      const image = await createImageBitmap(await (await fetch(`/api/variants/${id}/file`)).blob());
      const context = new OffscreenCanvas(image.width, image.height).getContext('2d')!;
      context.drawImage(image, 0, 0);
      const row = context.getImageData(0, 10, image.width, 1).data;
      return Array.from({ length: image.width }, (_, x) => x).filter((x) =>
        wanted.every((value, channel) => row[4 * x + channel] === value),
      );
    },
    [file, colour] as const,
  );
}

test('pictures are put side by side on the bench, follow their marks and their order', async ({ page }) => {
  await page.request.post('/api/destinations', { data: { name: 'Doubles' } });
  await page.request.put('/api/destinations/doubles/slots/two', {
    data: {
      rule: { key: 'two', name: 'Two', size: { width: 401, height: 150 }, types: ['png'] },
      pattern: '',
    },
  });
  await page.goto('/destinations/doubles/two');
  const rule = page.getByRole('complementary', { name: 'Rule of the slot' });
  await rule.getByLabel('Combine pictures side by side').check();
  await rule.getByRole('textbox', { name: 'Number of pictures' }).fill('5');
  await expect(
    rule.getByText(/^The number of combined pictures must be a whole number from 2 to 4/),
  ).toBeVisible();
  await rule.getByRole('textbox', { name: 'Number of pictures' }).fill('2');
  await rule.getByRole('textbox', { name: /^Gap/ }).fill('7');
  await rule.getByRole('textbox', { name: 'Colour of the gap' }).fill('#ff00ff');
  await rule.getByRole('button', { name: 'Save rule' }).click();
  await expect(rule.getByRole('button', { name: 'Save rule' })).toBeDisabled();

  const { id } = await makeJob(
    page,
    'Doubles',
    ['barometer-from-chat.jpg', 'IMG_2102.jpg'],
    ['doubles/two', 'skerry-shop/grid-square'],
  );
  await page.goto(`/job/${id}`);
  await page.getByRole('rowheader').first().getByRole('button').click();
  await expect(page.getByRole('button', { name: 'Side by side' })).toHaveCount(0);
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByRole('button', { name: 'Side by side' })).toBeEnabled();
  await page.keyboard.press('d');
  await expect(page.getByRole('rowheader')).toHaveCount(3);
  await expect(page.getByRole('gridcell', { name: /\+ .* in Two: meets/ })).toBeVisible({ timeout: 60_000 });
  await expect(
    page.getByRole('gridcell', { name: /barometer-from-chat\.jpg in Two: skipped/ }),
  ).toBeVisible();

  // The chosen cell is the new one: Enter opens what they come to.
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press('Enter');
  const whole = page.getByTestId('stage').getByRole('img');
  const file = async () => /variants\/([^/]+)\//.exec((await whole.getAttribute('src')) ?? '')![1]!;
  await expect(whole).toBeVisible();
  const first = await file();
  expect(await columnsOf(page, first, [255, 0, 255])).toEqual([197, 198, 199, 200, 201, 202, 203]);

  // A keep box of a part: the pair is made again.
  const parts = page.getByRole('list', { name: 'The combined pictures' });
  await parts.getByRole('button', { name: 'Frame' }).first().click();
  const stage = page.getByTestId('stage');
  await expect(stage.getByRole('img')).toBeVisible();
  await page.keyboard.press('k');
  const image = (await stage.getByRole('img').boundingBox())!;
  await page.mouse.move(image.x + 20, image.y + 20);
  await page.mouse.down();
  await page.mouse.move(image.x + image.width * 0.3, image.y + image.height * 0.3, { steps: 4 });
  await page.mouse.up();
  await page
    .getByRole('list', { name: 'All slots of this picture' })
    .getByRole('button', { name: /Two/ })
    .click();
  await expect.poll(file, { timeout: 60_000 }).not.toBe(first);
  expect(await columnsOf(page, await file(), [255, 0, 255])).toHaveLength(7);

  // In another order, as one step.
  const names = () => parts.getByRole('listitem').allInnerTexts();
  const before = await names();
  await parts.getByRole('button', { name: /^Move .* to the left/ }).click();
  await expect.poll(async () => (await names())[0]).toContain('IMG_2102');
  await page.goto(`/job/${id}`);
  await expect(page.getByRole('rowheader')).toHaveCount(3);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Redo' })).toBeEnabled();
  await page.getByRole('rowheader').nth(2).getByRole('button').click();
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press('Enter');
  await expect.poll(names).toEqual(before);

  // A part that is taken out is named.
  await page.goto(`/job/${id}`);
  await page.getByRole('rowheader').nth(1).getByRole('button').click();
  await page.keyboard.press('Delete');
  await expect(page.getByRole('rowheader')).toHaveCount(2);
  await page.getByRole('gridcell', { name: /\+ .* in Two: breaks, to review: Part missing/ }).click();
  await expect(page.getByText('"IMG_2102.jpg" is no longer in this job', { exact: false })).toBeVisible();
});
