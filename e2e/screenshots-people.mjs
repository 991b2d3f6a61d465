// Takes the pictures of people, the log and a guest in docs/screenshots/, from a server with --accounts on a copy of the demo's data folder:
// node e2e/screenshots-people.mjs WELCOME, the address that the server prints for its first owner.
import { chromium } from '@playwright/test';

const welcome = process.argv[2];
const base = new URL(welcome).origin;
const shots = new URL('../docs/screenshots/', import.meta.url).pathname;
const password = 'four plain words here';
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium-headless-shell',
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
});
const page = async () =>
  (await browser.newContext({ baseURL: base, viewport: { width: 1280, height: 800 } })).newPage();
const shoot = async (where, name, address) => {
  if (address) await where.goto(address);
  await where.waitForTimeout(3000);
  await where.screenshot({ path: `${shots}${name}.png` });
};
const send = async (where, method, path, body) => {
  const answer = await where.request.fetch(path, { method, data: body, headers: { Origin: base } });
  if (!answer.ok()) throw new Error(`${method} ${path}: ${await answer.text()}`);
  return answer.status() === 204 ? null : answer.json().catch(() => null);
};
const join = async (link, name, signInName, button) => {
  const where = await page();
  await where.goto(link);
  await where.getByLabel('Your name').fill(name);
  await where.getByLabel('Sign-in name').fill(signInName);
  await where.getByLabel('Password').fill(password);
  await where.getByRole('button', { name: button }).click();
  await where.getByRole('button', { name: 'Account' }).waitFor();
  return where;
};

const owner = await join(welcome, 'Maren Holt', 'maren', 'Become the owner');
const invite = async (name, role) =>
  (await send(owner, 'POST', '/api/people/invitations', { name, role })).address;
const editor = await join(await invite('Jory Penn', 'editor'), 'Jory Penn', 'jory', 'Make account');
await join(await invite('Ida Sund', 'viewer'), 'Ida Sund', 'ida', 'Make account');
await invite('Tomas Reef', 'editor');

const jobs = await send(owner, 'GET', '/api/jobs');
const { id } = jobs.find((one) => one.name === 'Autumn catalogue');
const job = await send(owner, 'GET', `/api/jobs/${id}`);
const picture = job.head.pictures.find((one) => one.picture.name === 'DSC_0415.JPG').picture.id;
const slot = 'tidewrack/cover';
const { address } = await send(owner, 'POST', `/api/jobs/${id}/guests`, { name: 'Ms Lorne', days: 14 });
const guest = await page();
await guest.goto(address);
await guest.getByRole('button', { name: 'Look at the pictures' }).click();
await guest.getByRole('heading', { name: 'Autumn catalogue' }).waitFor();
await send(guest, 'POST', `/api/jobs/${id}/comments`, {
  picture,
  slot,
  text: 'A little more sky above the roof, please.',
});

// Two people in one job: one frames, the other reads what the guest said.
await editor.goto(`/job/${id}/framing/${picture}?slot=${slot}`);
await editor.waitForTimeout(2000);
await editor.keyboard.press('+');
await owner.goto(`/job/${id}`);
await shoot(guest, 'guest');
await shoot(owner, 'people', '/people');
await shoot(owner, 'log', '/log');
await browser.close();
