// Acts faults out against a real server and says what became of what it had acknowledged: node bench/faults/run.mjs [SEED] [PART[:TIMES] ...]
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { measuredOn } from '../page.mjs';
import { cutOff, fullDisk, readOnly, slowDisk } from './disks.mjs';
import { damagedInputs, hugeBody, missedEvents, slowSenders } from './inputs.mjs';
import { killedImaging, killedServer } from './kills.mjs';
import { movedClock, twoServers } from './others.mjs';

const parts = {
  server: { act: killedServer, times: 50 },
  imaging: { act: killedImaging, times: 50 },
  full: { act: fullDisk, times: 8, needs: 'mount, which needs the root user' },
  readonly: { act: readOnly, times: 1, needs: 'mount, which needs the root user' },
  clock: { act: movedClock, times: 1, needs: 'faketime of Debian’s package of that name' },
  slowdisk: { act: slowDisk, times: 8, needs: 'gcc' },
  cutoff: { act: cutOff, times: 200 },
  damaged: { act: damagedInputs, times: 12_000 },
  senders: { act: slowSenders, times: 300 },
  huge: { act: hugeBody, times: 1 },
  events: { act: missedEvents, times: 1000 },
  two: { act: twoServers, times: 1 },
};

const [seedText, ...wanted] = process.argv.slice(2);
const seed = Number(seedText ?? 1);
const names = wanted.length > 0 ? wanted : Object.keys(parts);
const rows = [];
let failed = 0;
for (const [at, words] of names.entries()) {
  const [name, few] = words.split(':');
  const { act, needs, times: many } = parts[name] ?? {};
  const times = few ? Number(few) : many;
  if (!act) throw new Error(`bench/faults takes no part "${name}": ${Object.keys(parts).join(', ')}`);
  const folder = mkdtempSync(join(tmpdir(), `pantomet-faults-${name}-`));
  const began = performance.now();
  try {
    const outcome = await act({ folder, port: 5700 + at * 2, seed: seed * 1000 + at, times });
    const seconds = Math.round((performance.now() - began) / 1000);
    if (outcome === null) rows.push(`| ${name} | not acted out: it needs ${needs} | - | ${seconds} s |`);
    else {
      rows.push(`| ${outcome.did} | ${outcome.came} | ${outcome.ok ? 'held' : '**did not hold**'} | ${seconds} s |`);
      if (!outcome.ok) failed++;
      if (!outcome.ok && outcome.why) console.error(`${name}: ${outcome.why}`);
    }
  } catch (fault) {
    failed++;
    rows.push(`| ${name} | ${fault.message.replaceAll('\n', ' ').slice(0, 300)} | **did not hold** | - |`);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  console.log(rows.at(-1));
}

if (wanted.length === 0) {
  const head = readFileSync('bench/faults/head.md', 'utf8');
  writeFileSync(
    'docs/reliability.md',
    `${head}\n${measuredOn()} Seed ${seed}.\n\n| fault | what came of it | | took |\n|---|---|---|---|\n${rows.join('\n')}\n`,
  );
}
process.exit(failed === 0 ? 0 : 1);
