// Ten people in several jobs for some minutes: each signs in, listens to a job, says where they are and decides something each second; pages read
// live links meanwhile. What is measured: how long a command takes, how long a look takes, how memory grows.
import { spawn } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { measuredOn, put } from '../page.mjs';

const [data, minutesText] = process.argv.slice(2);
const minutes = Number(minutesText);
const people = 10;
const port = 5483;
const base = `http://127.0.0.1:${port}`;
const wait = (ms) => new Promise((done) => setTimeout(done, ms));
const server = spawn('dotnet', ['artifacts/program/pantomet.dll', 'serve', '--data', data, '--port', String(port), '--accounts', '--new-owner'], {
  stdio: ['ignore', 'pipe', 'inherit'],
  env: { ...process.env, MALLOC_ARENA_MAX: '2' },
});
let said = '';
server.stdout.on('data', (text) => (said += text));
while (!/welcome#\S+/.test(said)) await wait(50);
const secret = /welcome#(\S+)/.exec(said)[1];

/** Somebody with a cookie of their own. */
function person() {
  let cookie = '';
  return async (method, address, body) => {
    const began = performance.now();
    const answer = await fetch(base + address, {
      method,
      headers: { Origin: base, ...(cookie && { Cookie: cookie }), ...(body !== undefined && { 'Content-Type': 'application/json' }) },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
    const set = answer.headers.getSetCookie?.()[0];
    if (set) cookie = set.split(';')[0];
    const text = await answer.text();
    if (!answer.ok) throw new Error(`${method} ${address}: ${answer.status} ${text.slice(0, 200)}`);
    return { ms: performance.now() - began, json: text.startsWith('{') || text.startsWith('[') ? JSON.parse(text) : null, cookie: () => cookie };
  };
}

const password = 'four plain words here';
const owner = person();
const stamp = Date.now().toString(36);
await owner('POST', '/api/accounts', { secret, signInName: `owner-${stamp}`, name: 'The owner', password });
const all = [];
for (let i = 0; i < people; i++) {
  const { json } = await owner('POST', '/api/people/invitations', { name: `Person ${i}`, role: 'editor' });
  const ask = person();
  await ask('POST', '/api/accounts', { secret: json.address.split('#')[1], signInName: `p${i}-${stamp}`, name: `Person ${i}`, password });
  all.push(ask);
}

const { json: jobs } = await owner('GET', '/api/jobs');
const large = jobs.find((job) => job.name === 'The large one');
const middle = jobs.filter((job) => job.name !== 'The large one').slice(0, 4);
// Half of them in the large job, the others in four of 300 pictures.
const places = await Promise.all(
  all.map(async (ask, i) => {
    const job = i < people / 2 ? large : middle[i % middle.length];
    const { json } = await ask('GET', `/api/jobs/${job.id}`);
    return { ask, job: job.id, pictures: json.head.pictures.map((one) => one.picture.id), slots: json.head.slots.map((one) => one.address) };
  }),
);
// One job is published, if it has what can be: its links are read.
const links = [];
for (const job of middle) {
  await owner('POST', `/api/jobs/${job.id}/publication`, { path: null }).catch((fault) => console.error(fault.message));
  const { json } = await owner('GET', `/api/jobs/${job.id}/publication`).catch(() => ({ json: null }));
  for (const place of json?.places ?? []) if (place.address) links.push(new URL(place.address, base).pathname);
  if (links.length > 0) break;
}

const memory = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'))[1]) / 1000;
const handles = () => readdirSync(`/proc/${server.pid}/fd`).length;
const commands = [];
const looks = [];
const reads = [];
const faults = [];
const memories = [];
const until = performance.now() + minutes * 60_000;
const began = performance.now();

// Everybody listens to their job.
const listening = new AbortController();
let heard = 0;
for (const { ask, job } of places) {
  const { cookie } = await ask('GET', '/api/me');
  void fetch(`${base}/api/jobs/${job}/events`, { signal: listening.signal, headers: { Cookie: cookie() } })
    .then(async (stream) => {
      for await (const chunk of stream.body) heard += chunk.length;
    })
    .catch(() => undefined);
}

async function works({ ask, job, pictures, slots }, who) {
  for (let i = 0; performance.now() < until; i++) {
    const next = performance.now() + 1000;
    const picture = pictures[(i * 37 + who * 11) % pictures.length];
    const slot = slots[(i + who) % slots.length];
    const left = (i % 50) / 100;
    const command = [
      { do: 'set-frame', picture, slot, frame: { left, top: 0.1, right: left + 0.4, bottom: 0.6 } },
      { do: 'add-keep-box', picture, box: { left, top: 0.2, right: left + 0.3, bottom: 0.7 } },
      { do: 'give-words', picture, alternative: `Said by ${who} at ${i}` },
      { do: 'clear-marks', picture },
    ][i % 4];
    try {
      commands.push((await ask('POST', `/api/jobs/${job}/commands`, { commands: [command] })).ms);
      if (i % 3 === 0) await ask('PUT', `/api/jobs/${job}/presence`, { window: `w${who}`, picture, slot });
      if (i % 10 === 5) looks.push((await ask('GET', `/api/jobs/${job}/cells/${picture}/${slot}`)).ms);
      if (i % 60 === 30) await ask('GET', `/api/jobs/${job}`);
    } catch (fault) {
      faults.push(fault.message);
    }
    await wait(Math.max(0, next - performance.now()));
  }
}

async function reader() {
  for (let i = 0; performance.now() < until; i++) {
    if (links.length === 0) return;
    const at = performance.now();
    const answer = await fetch(base + links[i % links.length], { headers: { Accept: 'image/avif,image/webp,*/*' } }).catch(() => null);
    await answer?.arrayBuffer();
    if (answer && answer.status < 500) reads.push(performance.now() - at);
    await wait(20);
  }
}

async function watches() {
  for (; performance.now() < until; ) {
    memories.push({ at: (performance.now() - began) / 60_000, mb: memory(), handles: handles() });
    await wait(5000);
  }
}

await Promise.all([...places.map(works), reader(), watches()]);
listening.abort();
const sorted = (values) => values.toSorted((a, b) => a - b);
const at = (values, share) => (values.length === 0 ? NaN : sorted(values)[Math.min(values.length - 1, Math.floor(share * values.length))]);
const ms = (value) => (Number.isNaN(value) ? '-' : `${value < 10 ? value.toFixed(1) : Math.round(value)} ms`);
// The slope of a straight line through the second half: what is filled at first is full by then.
const late = memories.filter((one) => one.at > minutes / 2);
const mean = (values) => values.reduce((sum, one) => sum + one, 0) / values.length;
const [x, y] = [mean(late.map((one) => one.at)), mean(late.map((one) => one.mb))];
const slope = late.reduce((sum, one) => sum + (one.at - x) * (one.mb - y), 0) / late.reduce((sum, one) => sum + (one.at - x) ** 2, 0);
const rows = [
  `| ${people} people, a command each second, for ${minutes} minutes: ${commands.length} commands, p95 (median ${ms(at(commands, 0.5))}, 99th ${ms(at(commands, 0.99))}) | ${ms(at(commands, 0.95))} | 100 ms |`,
  `| a cell looked at meanwhile, p95 of ${looks.length} | ${ms(at(looks, 0.95))} | - |`,
  `| live links read meanwhile, p95 of ${reads.length} (median ${ms(at(reads, 0.5))}) | ${ms(at(reads, 0.95))} | - |`,
  `| answers that failed | ${faults.length} | 0 |`,
  `| memory of the server after one minute, in the middle, at the end | ${[memories.find((one) => one.at >= 1), memories[Math.floor(memories.length / 2)], memories.at(-1)].map((one) => `${Math.round(one?.mb ?? NaN)} MB`).join(', ')} | level |`,
  `| slope of memory in the second half | ${slope.toFixed(2)} MB a minute | 0 |`,
  `| open files at the beginning and at the end | ${memories[0].handles}, ${memories.at(-1).handles} | level |`,
];
server.kill('SIGTERM');
await new Promise((done) => server.once('exit', done));
if (faults.length > 0) console.error(faults.slice(0, 5).join('\n'));
put('people', `${measuredOn()}\n\n| | measured | to reach |\n|---|---|---|\n${rows.join('\n')}`);
console.log(`${Math.round(heard / 1e6)} MB of events heard`);
