// Processes that are killed: the server in the middle of all it does, and imaging processes in the middle of a batch.
import { join } from 'node:path';
import { check, finished, jobOf, Ledger, numbers, samples, served, Server, wait } from './server.mjs';

export async function killedServer({ folder, port, seed, times }) {
  const random = numbers(seed);
  const pictures = samples(folder, 30, 900);
  const server = new Server(join(folder, 'killed'), port);
  const ledger = new Ledger();
  let job = null;
  let answered = 0;
  for (let kill = 0; kill < times; kill++) {
    await server.start();
    const life = 200 + random.whole(2300);
    const death = wait(life).then(() => server.kill());
    let dead = false;
    void death.then(() => (dead = true));
    while (!dead) {
      const known = [...ledger.pictures.keys()];
      if (known.length < pictures.length && random.next() < 0.3) {
        const at = random.whole(pictures.length);
        if ((await ledger.addPicture(server, pictures[at], `sample ${at}.jpg`))?.ok) answered++;
      } else if (job === null && known.length > 3) {
        job = await jobOf(server, known.slice(0, 3)).catch(() => null);
      } else if (job !== null) {
        const picture = random.pick(known);
        await server.ask('POST', `/api/jobs/${job}/pictures`, [picture]);
        const said = await ledger.giveWords(server, job, picture, `words ${kill} ${random.whole(1e6)}`);
        if (said?.ok) answered++;
        // What is undone is no longer acknowledged, and may be undone or not where nobody answered.
        if (said?.ok && random.next() < 0.2) {
          ledger.words.delete(picture);
          await server.ask('POST', `/api/jobs/${job}/undo`);
        }
      } else await wait(20);
    }
    await death;
  }
  await server.start();
  const progress = await finished(server, job);
  const lost = await ledger.lost(server, job);
  const files = await served(server, job);
  await server.stop();
  const checked = check(server.data);
  return {
    did: `${times} kills of the server while pictures arrived, decisions were made and files were made; ${answered} answers acknowledged`,
    came: `${lost.length} of them lost, ${progress.done} of ${progress.files} files made by themselves, ${progress.failed} failed, ${files.broken} of ${files.files} served not whole; check: ${checked.status === 0 ? 'nothing wrong' : checked.words}`,
    ok: lost.length === 0 && progress.failed === 0 && files.broken === 0 && checked.status === 0,
    why: [...lost, checked.words].join('; '),
  };
}

export async function killedImaging({ folder, port, seed, times }) {
  const random = numbers(seed);
  const pictures = samples(folder, 24, 1400);
  const server = await new Server(join(folder, 'imaging'), port).start();
  const ids = [];
  for (const [at, path] of pictures.entries()) ids.push((await server.add(path, `sample ${at}.jpg`)).json.picture.id);
  const job = await jobOf(server, ids);
  let kills = 0;
  const until = Date.now() + 240_000;
  while (kills < times && Date.now() < until) {
    const alive = server.imaging();
    if (alive.length > 0) {
      try {
        process.kill(random.pick(alive), 'SIGKILL');
        kills++;
      } catch {
        // It ended by itself.
      }
    }
    await wait(120 + random.whole(260));
    const { json } = await server.ask('GET', `/api/jobs/${job}`);
    if (json.progress.done === json.progress.files)
      await server.ask('POST', `/api/jobs/${job}/remake`, json.cells.slice(0, 60).map((cell) => ({ picture: cell.picture, slot: cell.slot })));
  }
  // A file that met several kills rests before it is tried again.
  const progress = await finished(server, job, 600_000);
  const files = await served(server, job);
  const lines = server.log.split('\n').filter((line) => /ended|killed/i.test(line)).length;
  await server.stop();
  return {
    did: `${kills} kills of imaging processes in the middle of a batch`,
    came: `${progress.done} of ${progress.files} files made by themselves, ${progress.failed} failed, ${files.broken} of ${files.files} served not whole; ${lines} lines about it in the log`,
    ok: kills === times && progress.failed === 0 && files.broken === 0,
    why: '',
  };
}
