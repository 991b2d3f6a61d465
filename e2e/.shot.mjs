import { chromium } from '@playwright/test';
const base = 'http://127.0.0.1:5601';
const script = (await import(process.argv[2])).default;
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium-headless-shell',
  args: ['--no-sandbox', '--disable-gpu'],
});
const page = await browser.newPage({
  viewport: { width: Number(process.env.W ?? 1280), height: Number(process.env.H ?? 800) },
  hasTouch: !!process.env.TOUCH,
});
const api = async (path, method = 'GET', body) => {
  const r = await fetch(base + path, {
    method,
    headers: { 'Content-Type': 'application/json' },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  if (!r.ok) throw new Error(method + ' ' + path + ' ' + r.status + ' ' + (await r.text()));
  const t = await r.text();
  return t ? JSON.parse(t) : null;
};
const jobs = await api('/api/jobs');
const upload = async (file) => {
  const fs = await import('node:fs');
  return (
    await (
      await fetch(`${base}/api/pictures?name=${encodeURIComponent(file.split('/').pop())}`, {
        method: 'POST',
        body: fs.readFileSync(file),
      })
    ).json()
  ).picture;
};
const settled = async (id, most = 120000) => {
  for (const end = Date.now() + most; Date.now() < end;) {
    const { progress } = await api('/api/jobs/' + id);
    if (progress.done === progress.files) return;
    await new Promise((d) => setTimeout(d, 500));
  }
};
const cut = () =>
  page.evaluate(() =>
    [...document.querySelectorAll('body *')]
      .filter(
        (e) =>
          e.childElementCount === 0 &&
          e.textContent.trim() &&
          (e.scrollWidth > e.clientWidth + 1 || e.scrollHeight > e.clientHeight + 2) &&
          getComputedStyle(e).overflow !== 'visible' &&
          e.clientWidth > 1,
      )
      .map((e) => e.textContent.slice(0, 60)),
  );
try {
  await script({ page, base, jobs, api, upload, settled, cut });
} finally {
  await browser.close();
}
