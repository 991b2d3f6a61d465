import { expect, type Page, test } from '@playwright/test';

// What the screens say when something is not as wished.

async function pictureId(page: Page, name: string): Promise<string> {
  const list = (await (await page.request.get('/api/pictures')).json()) as { id: string; name: string }[];
  return list.find((one) => one.name === name)!.id;
}

test('a quality by hand over the limit is shown and not handed over', async ({ page }) => {
  await page.goto(`/picture/${await pictureId(page, 'DSC_0452.JPG')}/skerry-shop/grid-square/weighing`);
  await expect(page.locator('a[data-download]')).toBeVisible({ timeout: 60_000 });
  await page.getByRole('slider', { name: /^Quality/ }).fill('100');
  await expect(page.getByText('Breaks', { exact: true })).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText(/bytes over the limit of 55/)).toBeVisible();
  await expect(page.locator('a[data-download]')).toBeHidden();
  await expect(page.getByRole('img', { name: /over the limit/ })).toBeVisible();
  await page.keyboard.press('a');
  await expect(page.locator('a[data-download]')).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText('found automatically', { exact: true })).toBeVisible();
});

test('a slot that breaks on small pictures says so instead of weighing', async ({ page }) => {
  await page.goto(`/picture/${await pictureId(page, 'barometer-from-chat.jpg')}/lampglow/link-card/weighing`);
  await expect(page.getByText(/it offers 0\.75x of the 1x asked\. Not made\./).first()).toBeVisible({
    timeout: 30_000,
  });
  await expect(page.locator('a[data-download]')).toBeHidden();
});

test('a transparent mark goes out as PNG, with nothing to choose about quality', async ({ page }) => {
  await page.goto(
    `/picture/${await pictureId(page, 'weatherworks-mark.svg')}/skerry-shop/maker-mark/weighing`,
  );
  await expect(page.locator('a[data-download]')).toBeVisible({ timeout: 30_000 });
  await expect(page.getByTestId('file-name')).toHaveText('weatherworks-mark-maker-mark.png');
  await expect(page.getByText('PNG here has no quality to choose.')).toBeVisible();
});

test('a picture or a slot that does not exist is said in a sentence', async ({ page }) => {
  await page.goto('/picture/00000000-0000-0000-0000-000000000000/tidewrack/post/framing');
  await expect(page.getByText('There is no such picture.')).toBeVisible({ timeout: 20_000 });
  await page.goto(`/picture/${await pictureId(page, 'IMG_2102.jpg')}/tidewrack/nowhere/framing`);
  await expect(page.getByText('The rules have no slot "tidewrack/nowhere".')).toBeVisible({
    timeout: 20_000,
  });
});

test('the facts say what the file is, without misleading', async ({ page }) => {
  await page.goto('/');
  const facts = page.getByRole('region', { name: 'Facts' });
  const choose = (name: string) => page.getByTitle(name, { exact: true }).first().click();
  await choose('DSC_0431.JPG');
  await expect(facts.getByText('Stored on its side; shown upright.')).toBeVisible();
  await expect(facts.getByText(/300 ppi/)).toBeVisible();
  await expect(facts.getByText(/changes no pixel and no weight/)).toBeVisible();
  await choose('P1050233.JPG');
  await expect(facts.getByText(/tells where it was taken/)).toBeVisible();
  await choose('DSC_0452.JPG');
  await expect(facts.getByText(/Adobe RGB/)).toBeVisible();
  await choose('weatherworks-mark.png');
  await expect(facts.getByText('yes')).toBeVisible();
});

test('the surround stays as it was set', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Lighter surround' }).click();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Darker surround' })).toBeVisible();
  await expect(page.locator('html')).toHaveAttribute('data-surround', 'darker');
});

test('a pinch on a touch pad tightens once and is undone at once', async ({ page }) => {
  await page.goto(`/picture/${await pictureId(page, 'IMG_2087.jpg')}/harbour-market/listing/framing`);
  const width = page.getByRole('textbox', { name: 'Width' });
  await expect(width).toHaveValue('2812.5');
  const box = (await page.locator('[data-part=frame]').boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, -60);
  await page.keyboard.up('Control');
  await expect.poll(async () => Number(await width.inputValue())).toBeLessThan(2812);
  await expect(page.getByText('Framed by hand.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(width).toHaveValue('2812.5');
  await expect(page.getByText('Framed automatically.')).toBeVisible();
});
