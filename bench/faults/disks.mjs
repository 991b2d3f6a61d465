// Disks that are full, read-only or slow, and copies of a folder that was cut off at any moment. Needs mount, and so the root user.
import { spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { check, finished, jobOf, Ledger, numbers, samples, served, Server, wait } from './server.mjs';

const run = (command, ...words) => spawnSync(command, words, { encoding: 'utf8' });

/** A small file system of its own for as long as something is done on it; null where it cannot be mounted. */
async function mounted(folder, megabytes, act) {
  const place = join(folder, `disk-${megabytes}`);
  mkdirSync(place, { recursive: true });
  if (run('mount', '-t', 'tmpfs', '-o', `size=${megabytes}m`, 'tmpfs', place).status !== 0) return null;
  try {
    return await act(place);
  } finally {
    run('umount', '-l', place);
  }
}

const fill = (place) => run('sh', '-c', `cat /dev/zero > '${place}/filler' 2>/dev/null; true`);
const empty = (place) => rmSync(join(place, 'filler'), { force: true });

export async function fullDisk({ folder, port, seed, times }) {
  const random = numbers(seed);
  const pictures = samples(folder, 20, 900);
  return mounted(folder, 90, async (place) => {
    const server = await new Server(join(place, 'data'), port).start();
    const ledger = new Ledger();
    for (const [at, path] of pictures.slice(0, 6).entries()) await ledger.addPicture(server, path, `sample ${at}.jpg`);
    const job = await jobOf(server, [...ledger.pictures.keys()]);
    const told = new Map();
    const tell = (answer) => told.set(answer === null ? 'no answer' : `${answer.status} ${answer.json?.code ?? ''}`.trim(), 1 + (told.get(answer === null ? 'no answer' : `${answer.status} ${answer.json?.code ?? ''}`.trim()) ?? 0));
    for (let round = 0; round < times; round++) {
      // While files are made, while pictures arrive, and while the database writes.
      await server.ask('POST', `/api/jobs/${job}/remake`, (await server.ask('GET', `/api/jobs/${job}`)).json.cells.slice(0, 12).map((cell) => ({ picture: cell.picture, slot: cell.slot })));
      await wait(random.whole(400));
      fill(place);
      for (let i = 0; i < 6; i++) {
        tell(await ledger.addPicture(server, pictures[6 + random.whole(14)], `full ${round} ${i}.jpg`));
        for (let j = 0; j < 8; j++) tell(await ledger.giveWords(server, job, random.pick([...ledger.pictures.keys()].slice(0, 6)), `${'words '.repeat(20)}${round} ${i} ${j}`));
        // The log of the database takes what is left of its last page: it is filled up again.
        fill(place);
      }
      empty(place);
      await wait(300);
    }
    const after = await ledger.giveWords(server, job, [...ledger.pictures.keys()][0], 'room again');
    const progress = await finished(server, job, 600_000);
    const lost = await ledger.lost(server, job);
    const files = await served(server, job);
    const lines = server.log.split('\n').filter((line) => /full|No space|could not be answered/i.test(line)).length;
    await server.stop();
    const checked = check(server.data);
    return {
      did: `${times} times no byte left while files were made, pictures arrived and decisions were stored, and room again`,
      came: `${lost.length} acknowledged lost, answers ${[...told].map(([what, count]) => `${what}: ${count}`).join(', ')}; then ${progress.done} of ${progress.files} files made by themselves, ${progress.failed} failed, ${files.broken} not whole, ${lines} lines in the log; check: ${checked.status === 0 ? 'nothing wrong' : checked.words}`,
      ok: lost.length === 0 && after?.ok === true && progress.failed === 0 && files.broken === 0 && checked.status === 0 && ![...told.keys()].some((what) => /^500|no answer/.test(what)),
      why: lost.join('; '),
    };
  });
}

/** A file system in a file, which gives itself up as one does after an error of its disk: from then on it is read-only. */
export async function readOnly({ folder, port }) {
  const [image, place] = [join(folder, 'image'), join(folder, 'place')];
  mkdirSync(place);
  const mount = () => run('mount', '-o', 'loop', image, place).status === 0;
  if (run('truncate', '-s', '150M', image).status !== 0 || run('mkfs.ext4', '-q', image).status !== 0 || !mount()) return null;
  const server = new Server(join(place, 'data'), port);
  try {
    await server.start();
    const pictures = samples(folder, 4, 700);
    const ledger = new Ledger();
    for (const [at, path] of pictures.slice(0, 3).entries()) await ledger.addPicture(server, path, `sample ${at}.jpg`);
    const [first] = ledger.pictures.keys();
    const job = await jobOf(server, [...ledger.pictures.keys()]);
    await finished(server, job);
    await ledger.giveWords(server, job, first, 'before');
    run('mount', '-o', 'remount,abort', place);
    const [added, said, seen] = [await server.add(pictures[3], 'read only.jpg'), await ledger.giveWords(server, job, first, 'read only'), await server.ask('GET', `/api/jobs/${job}`)];
    const lines = server.log.split('\n').filter((line) => /could not be answered|read-only|Read-only/.test(line)).length;
    await server.stop();
    run('umount', place);
    mount();
    await server.start();
    const after = await ledger.giveWords(server, job, first, 'written again');
    const lost = await ledger.lost(server, job);
    await server.stop();
    const told = [added, said].map((one) => (one === null ? 'no answer' : `${one.status} ${one.json?.code ?? ''}`.trim()));
    return {
      did: 'a file system that gives itself up and is read-only from then on, and is mounted again',
      came: `adding: ${told[0]}, deciding: ${told[1]}, looking: ${seen?.status}, ${lines} lines in the log; started again on it: ${after?.status}, ${lost.length} lost`,
      ok: [added, said].every((one) => one !== null && !one.ok && one.status !== 500) && seen?.ok === true && after?.ok === true && lost.length === 0,
      why: lost.join('; '),
    };
  } finally {
    await server.stop().catch(() => undefined);
    run('umount', '-l', place);
  }
}

export async function cutOff({ folder, port, seed, times }) {
  const random = numbers(seed);
  const pictures = samples(folder, 30, 500);
  const server = await new Server(join(folder, 'cut'), port).start();
  const ledger = new Ledger();
  for (const [at, path] of pictures.slice(0, 4).entries()) await ledger.addPicture(server, path, `sample ${at}.jpg`);
  const job = await jobOf(server, [...ledger.pictures.keys()], 4);
  const first = [...ledger.pictures.keys()];
  const group = () => [server.process.pid, ...server.imaging()];
  const freeze = (signal) => group().forEach((pid) => { try { process.kill(pid, signal); } catch { /* it ended */ } });
  let stop = false;
  const work = (async () => {
    for (let i = 0; !stop; i++) {
      if (i % 7 === 0) await ledger.addPicture(server, pictures[4 + ((i / 7) % 26)], `cut ${i}.jpg`);
      await ledger.giveWords(server, job, first[i % first.length], `words ${i}`);
      // It is written to all the time, and leaves the processor to what checks the copies.
      await wait(20);
      if (i % 5 === 0) await server.ask('POST', `/api/jobs/${job}/remake`, [{ picture: first[i % first.length], slot: (await server.ask('GET', `/api/jobs/${job}`)).json.cells[0].slot }]);
    }
  })();
  let [opened, wrong] = [0, []];
  for (let i = 0; i < times; i++) {
    await wait(30 + random.whole(220));
    freeze('SIGSTOP');
    const [pictures_, words] = [new Map(ledger.pictures), new Map(ledger.words)];
    const doubtful = new Map(ledger.doubtful);
    const copy = join(folder, 'copy');
    rmSync(copy, { recursive: true, force: true });
    cpSync(server.data, copy, { recursive: true });
    freeze('SIGCONT');
    rmSync(join(copy, 'pantomet.lock'), { force: true });
    const checked = check(copy);
    if (checked.status !== 0) wrong.push(`copy ${i}: ${checked.words}`);
    // Every tenth is opened by a server, which finds all that was acknowledged until then.
    if (i % 10 === 0) {
      const other = await new Server(copy, port + 1).start();
      const then = Object.assign(new Ledger(), { pictures: pictures_, words, doubtful });
      wrong.push(...(await then.lost(other, job)));
      await other.stop();
      opened++;
    }
  }
  stop = true;
  await work;
  await server.stop();
  return {
    did: `${times} copies of the folder, each taken at one moment while it was written to, ${opened} of them opened by a server`,
    came: `${wrong.length} with something wrong or lost`,
    ok: wrong.length === 0,
    why: wrong.slice(0, 3).join('; '),
  };
}

/** A library that delays what is written and flushed; null where there is no compiler. */
function delaying(folder) {
  const source = join(folder, 'slow.c');
  writeFileSync(
    source,
    `#define _GNU_SOURCE
#include <dlfcn.h>
#include <unistd.h>
#include <sys/types.h>
static void rest(void) { usleep(20000); }
ssize_t pwrite64(int f, const void *b, size_t n, off64_t o) { static ssize_t (*r)(int, const void *, size_t, off64_t); if (!r) r = dlsym(RTLD_NEXT, "pwrite64"); if (n > 64) rest(); return r(f, b, n, o); }
ssize_t pwrite(int f, const void *b, size_t n, off_t o) { static ssize_t (*r)(int, const void *, size_t, off_t); if (!r) r = dlsym(RTLD_NEXT, "pwrite"); if (n > 64) rest(); return r(f, b, n, o); }
int fsync(int f) { static int (*r)(int); if (!r) r = dlsym(RTLD_NEXT, "fsync"); rest(); rest(); return r(f); }
int fdatasync(int f) { static int (*r)(int); if (!r) r = dlsym(RTLD_NEXT, "fdatasync"); rest(); rest(); return r(f); }
`,
  );
  const library = join(folder, 'slow.so');
  return run('gcc', '-shared', '-fPIC', '-O1', '-o', library, source, '-ldl').status === 0 && existsSync(library) ? library : null;
}

export async function slowDisk({ folder, port, times }) {
  const library = delaying(folder);
  if (library === null) return null;
  const pictures = samples(folder, times, 700);
  const server = await new Server(join(folder, 'slow'), port, { environment: { LD_PRELOAD: library } }).start({ patience: 180_000 });
  const ledger = new Ledger();
  for (const [at, path] of pictures.entries()) await ledger.addPicture(server, path, `sample ${at}.jpg`);
  const job = await jobOf(server, [...ledger.pictures.keys()], 6);
  const looks = [];
  const [first] = ledger.pictures.keys();
  for (let i = 0; i < times * 5; i++) {
    const began = performance.now();
    await server.ask('GET', `/api/jobs/${job}`);
    looks.push(performance.now() - began);
    await ledger.giveWords(server, job, first, `words ${i}`);
  }
  const progress = await finished(server, job, 600_000);
  const lost = await ledger.lost(server, job);
  await server.stop();
  const p95 = looks.toSorted((a, b) => a - b)[Math.floor(looks.length * 0.95)];
  return {
    did: 'a disk that takes 20 ms for each write and 40 ms for each flush',
    came: `${progress.done} of ${progress.files} files made, ${lost.length} lost; looking at the job meanwhile ${Math.round(p95)} ms at the 95th`,
    ok: progress.failed === 0 && lost.length === 0,
    why: lost.join('; '),
  };
}
