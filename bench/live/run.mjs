import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { readdirSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { createRequire } from 'node:module';
import { measuredOn, put } from '../page.mjs';

const autocannon = createRequire(new URL('../node/package.json', import.meta.url))('autocannon');
const port = 5478;
const base = `http://127.0.0.1:${port}`;
const connections = 50;
const seconds = 10;

const server = spawn('./pantomet', ['demo', '--port', String(port)], { stdio: ['ignore', 'pipe', 'inherit'] });
const until = async (what, done, tries = 600) => {
  for (let i = 0; i < tries; i++) {
    if (await done()) return;
    await new Promise((later) => setTimeout(later, 1000));
  }
  throw new Error(`${what} did not come`);
};
const json = async (path, init) => {
  const answer = await fetch(base + path, init && { ...init, headers: { 'Content-Type': 'application/json' } });
  if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
  return answer.status === 204 ? null : answer.json();
};
const send = (method, path, body) => json(path, { method, body: JSON.stringify(body) });
const median = (list) => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)];

try {
  await until('the server', () => fetch(`${base}/healthz`).then((one) => one.ok, () => false));
  await until('an idle queue', async () =>
    (await json('/api/jobs')).every((job) => job.progress.files === job.progress.done + job.progress.failed),
  );
  const site = (await json('/api/jobs')).find((job) => job.name === 'Web site, November').id;
  await until('the publication', async () => (await json(`/api/jobs/${site}/publication`)).key !== null);
  await until('the site', () => fetch(`${base}/example/_pictures/.known.json`).then((one) => one.status !== 404 || readdirSync(`data/demo-${port}/example/_pictures`).includes('.known.json'), () => false));

  const place = (await json(`/api/jobs/${site}/publication`)).places.find((one) => one.path.endsWith('/skerry-pages/story'));
  const live = `${base}${place.fixed}&w=600`;
  const accept = { accept: 'image/avif,image/webp,*/*;q=0.8' };
  const bytes = Buffer.from(await (await fetch(live, { headers: accept })).arrayBuffer());
  writeFileSync(`data/demo-${port}/example/same.webp`, bytes);
  const plain = `${base}/example/same.webp`;
  const load = (url) => autocannon({ url, connections, duration: seconds, headers: accept });
  await load(live);
  await load(plain);
  // In turn, so that a machine that grows slower or faster does so for both.
  const runs = [];
  for (let i = 0; i < 3; i++) runs.push({ live: await load(live), plain: await load(plain) });
  const newest = await load(`${base}${place.address}?w=600`);
  const tag = (await fetch(live, { headers: accept })).headers.get('etag');
  const same = await autocannon({ url: live, connections, duration: seconds, headers: { ...accept, 'if-none-match': tag } });
  // What the load program itself can take of such bytes, from a server that does nothing but send them.
  const bare = createServer((_, response) => response.end(bytes)).listen(port + 1);
  const limit = await load(`http://127.0.0.1:${port + 1}/`);
  bare.close();
  for (const { live: one, plain: other } of runs)
    if (one.non2xx + other.non2xx + one.errors + other.errors > 0) throw new Error('some requests failed');

  await send('POST', '/api/destinations', { name: 'Bench' });
  const rule = { key: 'wide', size: { ratio: '3:2', width: 1500 } };
  await send('PUT', '/api/destinations/bench/slots/wide', { rule, pattern: '' });
  const library = await json('/api/pictures');
  const firsts = [];
  let once = null;
  for (const [n, name] of ['P1050233.JPG', 'DSC_0452.JPG', 'DSC_0412.JPG', 'DSC_0440.JPG', 'IMG_2087.jpg', 'DSC_0415.JPG'].entries()) {
    const picture = library.find((one) => one.name === name).id;
    const { id } = await send('POST', '/api/jobs', { name: `Bench ${n}`, pictures: null, slots: null });
    await send('PUT', `/api/jobs/${id}/run`, { run: 'stopped' });
    await send('POST', `/api/jobs/${id}/pictures`, [picture]);
    await send('PUT', `/api/jobs/${id}/slots`, [{ destination: 'bench', slot: 'wide', choice: null }]);
    await send('POST', `/api/jobs/${id}/publication`, { path: null });
    const { address } = (await json(`/api/jobs/${id}/publication`)).places[0];
    if (n < 5) {
      const began = performance.now();
      const answer = await fetch(base + address);
      await answer.arrayBuffer();
      if (!answer.ok) throw new Error(`${address}: ${answer.status}`);
      firsts.push(performance.now() - began);
    } else {
      const kept = () => readdirSync(`data/demo-${port}/variants`, { recursive: true }).length;
      const before = kept();
      const answers = await Promise.all(
        Array.from({ length: 500 }, () => fetch(base + address).then(async (one) => ({ status: one.status, hash: createHash('sha256').update(Buffer.from(await one.arrayBuffer())).digest('hex') }))),
      );
      const hashes = new Set(answers.map((one) => one.hash));
      once = { made: kept() - before, same: hashes.size === 1, ok: answers.every((one) => one.status === 200) };
    }
  }

  const rate = (side) => median(runs.map((run) => run[side].requests.average));
  const p99 = (side) => median(runs.map((run) => run[side].latency.p99));
  const figure = (value) => Math.round(value).toString();
  const text = `${measuredOn()} The load program ran on the same machine: ${connections} connections, ${seconds} s each, three times in turn, medians.
The file is ${figure(bytes.length / 1000)} kB of WebP.

| | requests a second | p99 |
|---|---|---|
| live, one version | ${figure(rate('live'))} | ${p99('live')} ms |
| live, the newest | ${figure(newest.requests.average)} | ${newest.latency.p99} ms |
| live, still the same (304) | ${figure(same.requests.average)} | ${same.latency.p99} ms |
| the same file, plain, from the same server | ${figure(rate('plain'))} | ${p99('plain')} ms |
| the same bytes from a server that does nothing else, in the load program's own process | ${figure(limit.requests.average)} | ${limit.latency.p99} ms |

Live is at ${(rate('live') / rate('plain')).toFixed(2)} of plain (0.8 wanted). A p99 under 10 ms was wanted. What limits the rate of
whole files here is the load program: it took ${figure(limit.throughput.average / 1e6)} MB/s of such bytes from a server that does nothing else, and all connections wait for it in turn; answers without
a body show the server itself.

First request of a file of 1 500 px that is not there: ${firsts.map((ms) => `${figure(ms)} ms`).join(', ')} (400 ms wanted), median ${figure(median(firsts))} ms.

500 requests at once for one file that is not there: all answered ${once.ok ? 'with it' : 'NOT with it'}, ${once.same ? 'the same bytes' : 'DIFFERENT bytes'}; new entries in the
folder of files, its own folder included: ${once.made}.
`;
  put('live', text);
} finally {
  server.kill('SIGTERM');
}
