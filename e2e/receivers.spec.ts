import { expect } from '@playwright/test';
import { allMade, command, makeJob, test } from './support';

test('files are handed to a marketplace, which refuses one in its own words, at the cell too', async ({
  page,
}) => {
  const job = await makeJob(page, 'Listings', ['DSC_0412.JPG', 'IMG_2102.jpg'], ['harbour-market/listing']);
  await command(page, job.id, [
    { do: 'name-job', name: 'Market', numbered: true },
    {
      do: 'give-words',
      picture: job.pictures[1]!.id,
      keywords: 'brass cup anemometer with three arms on a pale ground',
      alternative: '',
    },
  ]);
  await page.goto(`/job/${job.id}/handing-over`);
  await allMade(page);
  await page.getByRole('link', { name: 'Receivers', exact: true }).click();
  await page.getByRole('link', { name: /Harbour Market, listings/ }).click();
  await page.getByRole('button', { name: /Hand over 2 files/ }).click();
  await expect(page.getByRole('region', { name: 'Refused' })).toContainText(
    /File names may have 44 characters/,
  );
  // One picture with one file of it.
  await expect(page.getByRole('region', { name: 'Accepted' }).locator('img')).toHaveCount(1);

  // It stands at the cell.
  await page.goto(`/job/${job.id}`);
  const cell = page.locator('[data-cell]', { hasText: 'not accepted' });
  await expect(cell).toHaveCount(1);
  await cell.click();
  await expect(page.getByText(/refused the file:.*File names may have 44 characters/)).toBeVisible();

  // A shorter name is another file: that alone is sent.
  await command(page, job.id, [
    {
      do: 'give-words',
      picture: job.pictures[1]!.id,
      keywords: 'cup anemometer',
      alternative: '',
    },
  ]);
  await page.goto(`/job/${job.id}/handing-over/receivers`);
  await page.getByRole('link', { name: /Harbour Market, listings/ }).click();
  await page.getByRole('button', { name: /Hand over 1 file,/ }).click();
  await expect(page.getByTestId('handed')).toHaveText('The receiver has all 2 files.');
});

test('what a network made of a picture is told, and what survives there is found by trying', async ({
  page,
}) => {
  const job = await makeJob(page, 'Posts', ['DSC_0412.JPG'], ['tidewrack/post']);
  await command(page, job.id, [{ do: 'name-job', name: 'Posts', numbered: true }]);
  await page.goto(`/job/${job.id}/handing-over/receivers`);
  await allMade(page);
  await page.getByRole('link', { name: /Tidewrack, posts/ }).click();
  await page.getByRole('button', { name: /Hand over 1 file/ }).click();
  await expect(page.getByText(/Shown as 1.440 × 960 px/)).toBeVisible();
  await page.getByRole('button', { name: 'What survives' }).click();
  await page.getByRole('button', { name: 'Run trials' }).click();
  await expect(page.getByTestId('survives')).toContainText(/At .* and quality \d+ the file is not changed/, {
    timeout: 60_000,
  });
  await expect(page.getByRole('button', { name: "Save this in the slot's rule" })).toBeVisible();
});

test('a receiver is added, what is wrong with it is said, and its password is never shown', async ({
  page,
}) => {
  const job = await makeJob(page, 'Own place', ['DSC_0412.JPG'], ['skerry-shop/grid-square']);
  await page.goto(`/job/${job.id}/handing-over/receivers`);
  await page.getByRole('button', { name: 'Add receiver' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Name').fill('Own place');
  await sheet.getByLabel('Address', { exact: true }).fill('files.example');
  await sheet.getByLabel('Password or token').fill('a secret of mine');
  await sheet.getByRole('button', { name: 'Add receiver' }).click();
  await expect(sheet.getByRole('alert')).toContainText('An address such as');
  await sheet.getByLabel('Address', { exact: true }).fill('http://127.0.0.1:9/files');
  await sheet.getByRole('button', { name: 'Add receiver' }).click();
  await page.getByRole('link', { name: /Own place/ }).click();
  await page.getByRole('button', { name: 'Edit' }).click();
  await expect(sheet.getByLabel('Password or token')).toHaveAttribute('placeholder', 'saved');
  await sheet.getByRole('button', { name: 'Test connection' }).click();
  await expect(sheet.getByText(/The receiver cannot be reached|The host cannot be reached/)).toBeVisible();
  await sheet.getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByRole('link', { name: /Own place/ })).toBeHidden();
});
