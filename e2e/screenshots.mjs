// Takes the pictures in docs/screenshots/ from a demo that runs on the given address (default http://127.0.0.1:5460) and has made its files.
import { chromium } from '@playwright/test';

const base = process.argv[2] ?? 'http://127.0.0.1:5460';
const shots = new URL('../docs/screenshots/', import.meta.url).pathname;
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium-headless-shell',
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const shoot = async (name, address) => {
  if (address) await page.goto(base + address);
  await page.waitForTimeout(3000);
  await page.screenshot({ path: `${shots}${name}.png` });
};
const jobs = await (await fetch(`${base}/api/jobs`)).json();
const { id } = jobs.find((one) => one.name === 'Autumn catalogue');
const job = await (await fetch(`${base}/api/jobs/${id}`)).json();
const named = (name) => job.head.pictures.find((one) => one.picture.name === name).picture.id;

await shoot('jobs', '/');
await shoot('bench', `/job/${id}`);
await shoot('wall', `/job/${id}?reason=suggested`);
await shoot('framing', `/job/${id}/framing/${named('DSC_0415.JPG')}?slot=tidewrack/cover`);
await page.goto(`${base}/job/${id}/framing/${named('P1050233.JPG')}?slot=skerry-site/opening-large&over`);
await page.getByTestId('over-words').fill('Weather made legible');
await page.getByRole('button', { name: /Playfair/ }).click();
await shoot('over-the-picture');
const news = jobs.find((one) => one.name === 'Glass Falling, November').id;
const send = (path, body) =>
  fetch(`${base}/api/jobs/${news}/${path}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  }).then((answer) => answer.json());
await send('commands', { commands: [{ do: 'add-slots', slots: ['glass-falling/beside'] }] });
const { picture: pair } = await send('pairs', {
  pictures: [named('P1050233.JPG'), named('DSC_0423.JPG')],
  instead: null,
});
await page.waitForTimeout(5000);
await shoot('side-by-side', `/job/${news}/framing/${pair}?slot=glass-falling/beside`);
await send('undo');
await send('undo');
await shoot('weighing', `/job/${id}/weighing/${named('P1050233.JPG')}/skerry-site/opening-large`);
await page.waitForTimeout(5000);
await shoot('weighing');
await shoot('handing-over', `/job/${id}/handing-over`);
const handed = async (job, name) => {
  const sendings = await (await fetch(`${base}/api/jobs/${job}/deliveries`)).json();
  const { id: receiver } = sendings.find((one) => one.receiver.rule.name === name).receiver;
  await fetch(`${base}/api/jobs/${job}/deliveries/${receiver}`, { method: 'POST' });
  for (;;) {
    const now = await (await fetch(`${base}/api/jobs/${job}/deliveries`)).json();
    if (now.find((one) => one.receiver.id === receiver).state !== 'waiting') return receiver;
    await page.waitForTimeout(1000);
  }
};
await handed(id, 'Tidewrack, posts');
const market = await handed(id, 'Harbour Market, listings');
await shoot('receivers', `/job/${id}/handing-over/receivers/${market}`);
const site = jobs.find((one) => one.name === 'Web site, November').id;
const shore = named('P1050233.JPG');
await shoot('responsive', `/job/${site}/responsive/${shore}/skerry-pages/front-wide`);
await shoot('pages', `/job/${site}/handing-over/pages`);
await shoot('live', `/job/${site}/handing-over/live`);
const [check] = await (await fetch(`${base}/api/page-checks`)).json();
await page.goto(`${base}/page-checks/${check.id}`);
await page.getByTestId('page').getByRole('button').nth(2).click();
await shoot('page-check');
const call = (path, body) =>
  fetch(`${base}/api/${path}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: body && JSON.stringify(body),
  });
const until = async (path, isIt) => {
  for (;;) {
    const now = await (await fetch(`${base}/api/${path}`)).json();
    if (isIt(now)) return now;
    await page.waitForTimeout(1000);
  }
};
const { allowed } = await (await fetch(`${base}/api/folders`)).json();
const folder = (await (await call('folders', { folder: allowed[0] })).json()).id;
const ready = () => until(`folders/${folder}`, ({ state }) => state === 'ready');
await ready();
await call(`folders/${folder}/preview`, { maxSide: 2400, likeness: 0.99, atLeast: 0.1 });
await ready();
await call(`folders/${folder}/optimise`, { maxSide: 2400, likeness: 0.99, atLeast: 0.1 });
await ready();
await shoot('folder', `/folders/${folder}`);
await shoot('destinations', '/destinations/harbour-market/listing');
await page.goto(`${base}/pictures`);
await page.getByTitle('P1050233.JPG').first().click();
await shoot('pictures');
await browser.close();
