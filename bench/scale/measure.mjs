// Measures one server on a large data folder through HTTP. Figures are medians or 95th percentiles of what is said beside them.
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { measuredOn, put } from '../page.mjs';

const data = process.argv[2];
const port = 5481;
const base = `http://127.0.0.1:${port}`;
const program = process.env.PANTOMET ?? 'artifacts/program/pantomet.dll';
const wait = (ms) => new Promise((done) => setTimeout(done, ms));

async function start(folder) {
  const began = performance.now();
  const server = spawn('dotnet', [program, 'serve', '--data', folder, '--port', String(port)], { stdio: 'ignore' });
  for (;;) {
    const ready = await fetch(`${base}/healthz`).catch(() => null);
    if (ready?.status === 200) return { server, ms: performance.now() - began };
    await wait(15);
  }
}

async function stop(server) {
  const gone = new Promise((done) => server.once('exit', done));
  server.kill('SIGTERM');
  await gone;
}

async function call(method, address, body) {
  const began = performance.now();
  const answer = await fetch(base + address, {
    method,
    headers: body === undefined ? {} : { 'Content-Type': 'application/json' },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  const text = await answer.text();
  if (!answer.ok) throw new Error(`${method} ${address}: ${answer.status} ${text.slice(0, 300)}`);
  return { ms: performance.now() - began, bytes: text.length, json: text ? JSON.parse(text) : null };
}

const sorted = (values) => values.toSorted((a, b) => a - b);
const at = (values, share) => sorted(values)[Math.min(values.length - 1, Math.floor(share * values.length))];
const ms = (value) => `${value < 10 ? value.toFixed(1) : Math.round(value)} ms`;
const rows = [];
const row = (what, value, aim) => rows.push(`| ${what} | ${value} | ${aim} |`);
const processor = (pid) => {
  const [, , , , , , , , , , , user, system] = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ');
  return (Number(user) + Number(system)) * 10;
};
const memory = (pid) => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))[1]) / 1000;

const empty = mkdtempSync(join(tmpdir(), 'pantomet-empty-'));
const nothing = await start(empty);
await stop(nothing.server);
rmSync(empty, { recursive: true, force: true });
const { server, ms: ready } = await start(data);
try {
  row('ready after start, whole, and of an empty folder', `${ms(ready)}, ${ms(nothing.ms)}`, '-');
  row('ready after start, beyond an empty folder', ms(ready - nothing.ms), '2 s');
  const first = await call('GET', '/api/jobs');
  const list = [];
  for (let i = 0; i < 20; i++) list.push((await call('GET', '/api/jobs')).ms);
  row(`list of ${first.json.length} jobs, p95 of 20 (the first ${ms(first.ms)})`, ms(at(list, 0.95)), '50 ms');
  const jobs = first.json;
  const large = jobs.find((job) => job.name === 'The large one');
  const middle = jobs.filter((job) => job.name !== 'The large one');

  const cold = [];
  const warm = [];
  let size = 0;
  for (const job of middle.slice(0, 12)) {
    const opened = await call('GET', `/api/jobs/${job.id}`);
    cold.push(opened.ms);
    size = opened.bytes;
    warm.push((await call('GET', `/api/jobs/${job.id}`)).ms);
  }
  row(`opening a job of 300 x 8, median of 12 (again ${ms(at(warm, 0.5))}; ${(size / 1e6).toFixed(1)} MB)`, ms(at(cold, 0.5)), '150 ms');
  const screen = await call('GET', `/api/jobs/${large.id}`);
  row(`the large one's first screen (${(screen.bytes / 1e6).toFixed(1)} MB, ${screen.json.cells.length} cells)`, ms(screen.ms), '400 ms');
  let rest = 0;
  for (let from = screen.json.more; from !== null && from !== undefined; ) {
    const part = await call('GET', `/api/jobs/${large.id}/cells?from=${from}`);
    rest += part.ms;
    from = part.json.more;
  }
  row('the rest of its 40 000 cells, in parts', ms(rest), '-');
  row('memory of the server then', `${Math.round(memory(server.pid))} MB`, '300 MB, one job open');

  const pictures = screen.json.head.pictures.map((one) => one.picture.id);
  const events = [];
  const listening = new AbortController();
  const stream = await fetch(`${base}/api/jobs/${large.id}/events`, { signal: listening.signal });
  const heard = (async () => {
    let text = '';
    for await (const chunk of stream.body.pipeThrough(new TextDecoderStream())) {
      text += chunk;
      for (let end = text.indexOf('\n\n'); end >= 0; end = text.indexOf('\n\n')) {
        events.push({ at: performance.now(), bytes: end });
        text = text.slice(end + 2);
      }
    }
  })().catch(() => undefined);
  await wait(300);
  const commands = async (count) => {
    const times = [];
    for (let i = 0; i < count; i++) {
      const picture = pictures[(i * 37) % pictures.length];
      const left = (i % 50) / 100;
      const command =
        i % 3 === 0
          ? { do: 'set-frame', picture, slot: `place/slot-${String(i % 40).padStart(2, '0')}`, frame: { left, top: 0.1, right: left + 0.4, bottom: 0.6 } }
          : i % 3 === 1
            ? { do: 'accept', picture, slot: `place/slot-${String(i % 40).padStart(2, '0')}`, reasons: ['suggested'] }
            : { do: 'add-keep-box', picture, box: { left, top: 0.2, right: left + 0.3, bottom: 0.7 } };
      times.push((await call('POST', `/api/jobs/${large.id}/commands`, { commands: [command] })).ms);
    }
    return times;
  };
  await commands(20);
  const seen = events.length;
  const alone = await commands(200);
  row(`one command in the large job, stored, p95 of 200 (median ${ms(at(alone, 0.5))})`, ms(at(alone, 0.95)), '40 ms');
  await wait(300);
  const sizes = events.slice(seen).map((event) => event.bytes);
  row(`an event to a page, median of ${sizes.length} (a frame or mark touches up to 40 cells)`, `${(at(sizes, 0.5) / 1000).toFixed(1)} kB`, '2 kB for a cell');

  await call('PUT', `/api/jobs/${large.id}/run`, { run: 'running' });
  await wait(3000);
  const busy = await commands(150);
  row(`the same while the queue runs, p95 of 150 (median ${ms(at(busy, 0.5))})`, ms(at(busy, 0.95)), '80 ms');
  await call('PUT', `/api/jobs/${large.id}/run`, { run: 'paused' });
  await wait(3000);
  listening.abort();
  await heard;

  // The imaging processes are others: what this one spends is the queue's, the tables' and the telling.
  const made = middle[20];
  const board = await call('GET', `/api/jobs/${made.id}`);
  await call('PUT', `/api/jobs/${made.id}/run`, { run: 'running' });
  const again = board.json.cells.slice(0, 400).map(({ picture, slot }) => ({ picture, slot }));
  const before = processor(server.pid);
  const began = performance.now();
  await call('POST', `/api/jobs/${made.id}/remake`, again);
  let progress;
  do {
    await wait(250);
    progress = (await call('GET', '/api/jobs')).json.find((job) => job.id === made.id).progress;
  } while (progress.done + progress.failed < progress.files);
  const [took, spent] = [performance.now() - began, processor(server.pid) - before];
  row(`making ${again.length} small files again: ${ms(took / again.length)} a file, of it in the server's own process`, ms(spent / again.length), '3 ms');

  const library = [];
  const search = [];
  for (let i = 0; i < 10; i++)
    library.push((await call('GET', '/api/pictures')).ms);
  const firstSearch = (await call('GET', '/api/pictures/page?search=lantern&from=200')).ms;
  for (let i = 0; i < 20; i++)
    search.push((await call('GET', '/api/pictures/page?search=lantern&from=200')).ms);
  row('the library of 10 000 as one list, p95 of 10', ms(at(library, 0.95)), '-');
  row(`a page of the library, searched, p95 of 20 (the first ${ms(firstSearch)})`, ms(at(search, 0.95)), '50 ms');
  row('memory of the server at the end', `${Math.round(memory(server.pid))} MB`, '300 MB');
} catch (fault) {
  console.error(String(fault));
} finally {
  await stop(server);
}
put('scale', `${measuredOn()}\n\n| | measured | to reach |\n|---|---|---|\n${rows.join('\n')}`);
