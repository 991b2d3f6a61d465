// Two servers on one folder, and a clock that is moved.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { check, finished, jobOf, Ledger, samples, Server } from './server.mjs';

export async function twoServers({ folder, port }) {
  const server = await new Server(join(folder, 'two'), port).start();
  const ledger = new Ledger();
  for (const [at, path] of samples(folder, 3, 500).entries()) await ledger.addPicture(server, path, `sample ${at}.jpg`);
  const job = await jobOf(server, [...ledger.pictures.keys()], 4);
  const said = [];
  for (let i = 0; i < 5; i++) {
    const other = new Server(server.data, port + 1);
    said.push(await other.start({ patience: 20_000 }).then(() => 'started', (fault) => fault.message));
    if (said.at(-1) === 'started') await other.kill();
    await ledger.giveWords(server, job, [...ledger.pictures.keys()][0], `words ${i}`);
  }
  await finished(server, job);
  const lost = await ledger.lost(server, job);
  await server.stop();
  const refused = said.filter((one) => /open in another|already open/i.test(one)).length;
  return {
    did: 'a second server on the same folder, five times',
    came: `refused with a sentence ${refused} times ("${said[0].split('\n').at(-2)?.trim() ?? said[0]}"); ${lost.length} lost in the first`,
    ok: refused === 5 && lost.length === 0,
    why: said.join('; '),
  };
}

const library = '/usr/lib/x86_64-linux-gnu/faketime/libfaketime.so.1';

/** A server whose clock stands elsewhere, by faketime of Debian's package; null where that is not installed. */
export async function movedClock({ folder, port }) {
  if (!existsSync(library)) return null;
  const data = join(folder, 'clock');
  const pictures = samples(folder, 9, 600);
  const ledger = new Ledger();
  let job = null;
  const lines = [];
  // Now, a day ahead, a day back, now: as a machine whose clock was wrong and was set right.
  for (const [turn, shift] of ['+0', '+1d', '-1d', '+0'].entries()) {
    const server = new Server(data, port, { environment: { LD_PRELOAD: library, FAKETIME: shift, FAKETIME_DONT_FAKE_MONOTONIC: '1' } });
    await server.start();
    for (const [at, path] of pictures.slice(turn * 2, turn * 2 + 2).entries()) await ledger.addPicture(server, path, `sample ${turn} ${at}.jpg`);
    job ??= await jobOf(server, [...ledger.pictures.keys()], 5);
    await server.ask('POST', `/api/jobs/${job}/pictures`, [...ledger.pictures.keys()]);
    for (const picture of ledger.pictures.keys()) await ledger.giveWords(server, job, picture, `words of turn ${turn}`);
    const progress = await finished(server, job);
    lines.push(`${shift}: ${progress.done} of ${progress.files}`);
    if (turn === 3) {
      const lost = await ledger.lost(server, job);
      await server.stop();
      const checked = check(data);
      return {
        did: 'a clock that stands a day ahead, then a day back, then right again',
        came: `files made ${lines.join(', ')}; ${lost.length} lost; check: ${checked.status === 0 ? 'nothing wrong' : checked.words}`,
        ok: lost.length === 0 && progress.failed === 0 && checked.status === 0,
        why: lost.join('; '),
      };
    }
    await server.stop();
  }
  return null;
}

export const versions = () => spawnSync('uname', ['-sr'], { encoding: 'utf8' }).stdout.trim();
