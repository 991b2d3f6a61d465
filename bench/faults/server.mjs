// A server of its own for a fault, what was acknowledged by it, and what is to hold afterwards.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

const program = process.env.PANTOMET ?? 'artifacts/program/pantomet.dll';
export const wait = (ms) => new Promise((done) => setTimeout(done, ms));
export const sha = (bytes) => createHash('sha256').update(bytes).digest('hex');

/** Numbers that a seed decides (mulberry32). */
export function numbers(seed) {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return { next, whole: (below) => Math.floor(next() * below), pick: (list) => list[Math.floor(next() * list.length)] };
}

/** Small pictures of the demo: faults do not depend on their size. */
export function samples(folder, count, side) {
  const names = readdirSync('demo/pictures').filter((name) => /\.(jpe?g)$/i.test(name)).toSorted();
  return Array.from({ length: count }, (_, i) => {
    const path = join(folder, `sample-${i}.jpg`);
    // Another crop each time, so that no two are the same picture.
    const made = spawnSync('convert', [`demo/pictures/${names[i % names.length]}`, '-resize', `${side}x${side}`, '-gravity', 'NorthWest', '-chop', `${i}x0`, '-quality', '90', path]);
    if (made.status !== 0) throw new Error(`convert: ${made.stderr}`);
    return path;
  });
}

export class Server {
  constructor(data, port, { environment = {}, options = [] } = {}) {
    Object.assign(this, { data, port, environment, options, base: `http://127.0.0.1:${port}`, log: '' });
  }

  async start({ patience = 60_000 } = {}) {
    this.process = spawn('dotnet', [program, 'serve', '--data', this.data, '--port', String(this.port), ...this.options], {
      env: { ...process.env, MALLOC_ARENA_MAX: '2', ...this.environment },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    this.process.stderr.on('data', (text) => (this.log += text));
    this.gone = new Promise((done) => this.process.once('exit', done));
    const until = Date.now() + patience;
    for (;;) {
      const ready = await fetch(`${this.base}/healthz`).catch(() => null);
      if (ready?.status === 200) return this;
      if (this.process.exitCode !== null) throw new Error(`the server ended: ${this.log.slice(-500)}`);
      if (Date.now() > until) throw new Error('the server did not start');
      await wait(25);
    }
  }

  async kill() {
    this.process.kill('SIGKILL');
    await this.gone;
  }

  async stop() {
    if (this.process.exitCode !== null) return;
    this.process.kill('SIGTERM');
    await this.gone;
  }

  /** Sends a request; what came of it, or null where nobody answered. */
  async ask(method, address, body, more = {}) {
    try {
      const answer = await fetch(this.base + address, {
        method,
        headers: body === undefined || body instanceof Buffer ? {} : { 'Content-Type': 'application/json' },
        body: body === undefined ? undefined : body instanceof Buffer ? body : JSON.stringify(body),
        ...more,
      });
      const text = await answer.text();
      return { status: answer.status, ok: answer.ok, json: text.startsWith('{') || text.startsWith('[') ? JSON.parse(text) : null };
    } catch {
      return null;
    }
  }

  add(path, name) {
    return this.ask('POST', `/api/pictures?name=${encodeURIComponent(name)}`, readFileSync(path));
  }

  /** The imaging processes of this server. */
  imaging() {
    const children = [];
    for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name))) {
      try {
        const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
        const parent = Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1]);
        if (parent === this.process.pid && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('\0work')) children.push(Number(pid));
      } catch {
        // It ended meanwhile.
      }
    }
    return children;
  }

  memory() {
    return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${this.process.pid}/status`, 'utf8'))[1]) / 1000;
  }
}

/** What was acknowledged: pictures by id, and the words of each; and what a folder must hold of it. */
export class Ledger {
  pictures = new Map();
  words = new Map();
  /** Words that were sent and not answered: they may be there or not. */
  doubtful = new Map();

  async addPicture(server, path, name) {
    const answer = await server.add(path, name);
    if (answer?.ok) this.pictures.set(answer.json.picture.id, sha(readFileSync(path)));
    return answer;
  }

  async giveWords(server, job, picture, words) {
    this.doubtful.set(picture, words);
    const answer = await server.ask('POST', `/api/jobs/${job}/commands`, { commands: [{ do: 'give-words', picture, keywords: words }] });
    if (answer?.ok) {
      this.words.set(picture, words);
      this.doubtful.delete(picture);
    }
    return answer;
  }

  /** What is lost: pictures whose original is not there as it was sent, and words that are not those acknowledged. */
  async lost(server, job) {
    const lost = [];
    for (const [id, hash] of this.pictures) {
      const original = await fetch(`${server.base}/api/pictures/${id}/original`);
      if (!original.ok || sha(Buffer.from(await original.arrayBuffer())) !== hash) lost.push(`picture ${id}`);
    }
    if (job && this.words.size > 0) {
      const { json } = await server.ask('GET', `/api/jobs/${job}`);
      for (const one of json.head.pictures) {
        const [said, meant] = [one.decisions.keywords, this.words.get(one.picture.id)];
        if (meant !== undefined && said !== meant && said !== this.doubtful.get(one.picture.id)) lost.push(`words of ${one.picture.id}: "${said}" for "${meant}"`);
      }
    }
    return lost;
  }
}

/** Makes a job of some pictures in all slots of the starter rules. */
export async function jobOf(server, pictures, slots = 8) {
  const { json: destinations } = await server.ask('GET', '/api/destinations');
  const all = destinations.flatMap((one) => one.slots.filter((slot) => !slot.pair).map((slot) => ({ destination: one.key, slot: slot.key, choice: null })));
  const made = await server.ask('POST', '/api/jobs', { name: 'Faults', pictures, slots: all.slice(0, slots) });
  if (!made?.ok) throw new Error(`the job was not made: ${JSON.stringify(made)}`);
  return made.json.id;
}

/** Waits until the queue has done all it can; the progress then. */
export async function finished(server, job, patience = 240_000) {
  const until = Date.now() + patience;
  for (;;) {
    const { json } = await server.ask('GET', `/api/jobs/${job}`);
    const { files, done, failed } = json.progress;
    if (done + failed === files) return json.progress;
    if (Date.now() > until) throw new Error(`the queue stands still: ${done} of ${files}`);
    await wait(300);
  }
}

/** How many of the job's files are served, and how many of those are not whole pictures. */
export async function served(server, job) {
  const { json } = await server.ask('GET', `/api/jobs/${job}`);
  const ids = new Set(json.cells.flatMap((cell) => cell.files.filter((file) => file.made).map((file) => file.id)));
  let broken = 0;
  for (const id of ids) {
    const answer = await fetch(`${server.base}/api/variants/${id}/file`);
    const bytes = Buffer.from(await answer.arrayBuffer());
    const tag = /"([0-9a-f]{64})"/.exec(answer.headers.get('etag') ?? '')?.[1];
    if (!answer.ok || (tag && tag !== sha(bytes)) || bytes.length === 0) broken++;
  }
  return { files: ids.size, broken };
}

/** What `check` says of a folder: its exit status and its words. */
export function check(data) {
  const run = spawnSync('dotnet', [program, 'check', '--data', data], { encoding: 'utf8' });
  return { status: run.status, words: `${run.stdout}${run.stderr}`.trim() };
}
