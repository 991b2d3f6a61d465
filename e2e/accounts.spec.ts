import { type ChildProcess, spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { type Browser, expect, type Page, test } from '@playwright/test';
import { smallPhotographs } from './support';

// A server to which people sign in: the first owner, an invitation, a guest, two browsers in one job.

const port = 5496;
const base = `http://127.0.0.1:${port}`;
const password = 'four plain words here';

/** A server on an empty folder, and the address that makes its owner. */
async function start(data: string): Promise<{ server: ChildProcess; welcome: string }> {
  const server = spawn('dotnet', [
    ...['../artifacts/program/pantomet.dll', 'serve', '--data', data, '--port', String(port), '--accounts'],
  ]);
  let said = '';
  server.stdout.on('data', (text: Buffer) => (said += text.toString()));
  await expect.poll(() => /http:\S+welcome#\S+/.exec(said)?.[0] ?? '', { timeout: 60_000 }).not.toBe('');
  return { server, welcome: /http:\S+welcome#\S+/.exec(said)![0] };
}

async function window(browser: Browser): Promise<Page> {
  return (await browser.newContext({ baseURL: base })).newPage();
}

async function account(page: Page, link: string, name: string, signInName: string, button: string) {
  await page.goto(link);
  await page.getByLabel('Your name').fill(name);
  await page.getByLabel('Sign-in name').fill(signInName);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: button }).click();
  await expect(page.getByRole('button', { name: 'Account' })).toContainText(name);
}

test('an owner invites an editor and a guest; all see each other in the job, and the log says who did what', async ({
  browser,
}, info) => {
  test.setTimeout(180_000);
  const { server, welcome } = await start(info.outputPath('data'));
  try {
    await aDay(browser, welcome);
  } finally {
    server.kill();
  }
});

async function aDay(browser: Browser, welcome: string) {
  const anna = await window(browser);
  await anna.goto(base);
  await expect(anna.getByRole('heading', { name: 'There is no owner yet.' })).toBeVisible();
  await account(anna, welcome, 'Anna Moor', 'anna', 'Become the owner');

  // A job with one picture.
  const file = smallPhotographs(0, 1)[0]!;
  const headers = { Origin: base };
  const added = await anna.request.post(`/api/pictures?name=harbour.jpg`, {
    data: readFileSync(file),
    headers,
  });
  const picture = ((await added.json()) as { picture: { id: string } }).picture.id;
  const made = await anna.request.post('/api/jobs', {
    headers,
    data: {
      name: 'Spring',
      pictures: [picture],
      slots: [{ destination: 'website', slot: 'thumbnail', choice: null }],
    },
  });
  const job = ((await made.json()) as { id: string }).id;

  // An editor by invitation.
  await anna.goto('/people');
  await anna.getByLabel('Name', { exact: true }).fill('Ben Tarn');
  await anna.getByRole('button', { name: 'Invite' }).click();
  const invitation = await anna.getByTestId('shown-once').locator('code').innerText();
  const ben = await window(browser);
  await account(ben, invitation, 'Ben Tarn', 'ben', 'Make account');
  await expect(ben.getByRole('link', { name: 'Page checks' })).toHaveCount(0);

  // Both in the job.
  await anna.goto(`/job/${job}`);
  await ben.goto(`/job/${job}/framing/${picture}?slot=website/thumbnail`);
  await expect(anna.getByTestId('others')).toContainText('BT');
  await expect(ben.getByTestId('tied')).toContainText('Framed automatically');
  await ben.keyboard.press('+');
  await expect(ben.getByTestId('tied')).toContainText('Framed by hand');
  await anna.getByTestId('others').click();
  await expect(anna.getByRole('list', { name: 'What others changed' })).toContainText('Ben Tarn set 1 frame');
  await anna.keyboard.press('Escape');

  // A guest sees the job alone, comments and accepts.
  await anna.goto(`/job/${job}/handing-over`);
  await anna.getByRole('button', { name: 'Invite a guest' }).click();
  await anna.getByLabel('For whom').fill('Ms Lorne');
  await anna.getByRole('button', { name: 'Make link' }).click();
  const link = await anna.getByTestId('shown-once').locator('code').innerText();
  const guest = await window(browser);
  await guest.goto(link);
  await guest.getByRole('button', { name: 'Look at the pictures' }).click();
  await expect(guest.getByRole('heading', { name: 'Spring' })).toBeVisible();
  await guest.getByRole('textbox', { name: 'Comment' }).fill('More sky, please.');
  await guest.getByRole('button', { name: 'Add comment' }).click();
  await guest.getByRole('button', { name: 'Accept' }).click();
  await expect(guest.getByRole('list', { name: 'Comments' })).toContainText('accepted it');

  // The editor reads it on the picture, and what was done with it.
  await ben.getByRole('button', { name: '2 comments' }).click();
  await expect(ben.getByRole('dialog')).toContainText('More sky, please.');
  await ben.getByLabel('Resolved').check();
  await ben.getByRole('button', { name: 'Close' }).click();
  await ben.getByRole('button', { name: 'History' }).click();
  await expect(ben.getByRole('list', { name: 'History' })).toContainText('Ben Tarn set the frame for');
  await ben.getByRole('button', { name: 'Close' }).click();

  // A link that is revoked is shut at once.
  await anna.getByRole('button', { name: 'Revoke' }).click();
  await expect(anna.getByRole('list', { name: 'Guests of this job' })).toHaveCount(0);
  await guest.reload();
  await expect(guest.getByRole('heading', { name: 'Sign in' })).toBeVisible();

  // The log.
  await anna.goto('/log');
  const log = anna.getByRole('list', { name: 'Log' });
  await expect(log).toContainText('Anna Moor revoked a guest');
  await expect(log).toContainText('Ms Lorne (guest) commented');
  await expect(log).toContainText('Ben Tarn signed in');

  // Made a viewer, the editor looks on: what would change something is off in the page that is open, and says so.
  const skip = ben.getByRole('button', { name: 'Skip' });
  await expect(skip).toBeEnabled();
  await anna.goto('/people');
  await anna.getByLabel('Role of Ben Tarn').selectOption('viewer');
  await expect(skip).toBeDisabled({ timeout: 45_000 });
  await expect(skip).toHaveAttribute('title', 'Only editors and owners may do this.');
  await expect(ben.getByRole('textbox', { name: 'Name of the job' })).not.toBeEditable();

  // Signed out everywhere, the other page of the same person asks for the password.
  await anna.goto('/account');
  await anna.getByRole('button', { name: 'Sign out everywhere' }).click();
  await expect(anna.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await anna.getByLabel('Sign-in name').fill('anna');
  await anna.getByLabel('Password').fill('not this one at all');
  await anna.getByRole('button', { name: 'Sign in' }).click();
  await expect(anna.getByRole('alert')).toContainText('The name or the password is wrong.');
  await anna.getByLabel('Password').fill(password);
  await anna.getByRole('button', { name: 'Sign in' }).click();
  await expect(anna.getByRole('button', { name: 'Account' })).toContainText('Anna Moor');
}
