// The page of figures, docs/benchmarks.md: each bench writes its own part of it, and leaves the words around it to people.
import { readFileSync, writeFileSync } from 'node:fs';
import { cpus, totalmem } from 'node:os';
import { execFileSync } from 'node:child_process';

const page = 'docs/benchmarks.md';

/** When, on which version and on which machine something was measured. */
export function measuredOn() {
  const version = execFileSync('git', ['rev-parse', '--short', 'HEAD'], { encoding: 'utf8' }).trim();
  return `Measured on ${new Date().toISOString().slice(0, 10)} at ${version}: ${cpus()[0].model.trim()}, ${cpus().length} cores, ${(totalmem() / 2 ** 30).toFixed(0)} GiB, Node ${process.version}.`;
}

/** Writes one part of the page, between its two marks. */
export function put(part, text) {
  const [begin, end] = [`<!-- ${part}: written by the bench -->`, `<!-- ${part}: end -->`];
  const whole = readFileSync(page, 'utf8');
  const [from, to] = [whole.indexOf(begin), whole.indexOf(end)];
  if (from < 0 || to < from) throw new Error(`${page} has no part ${part}.`);
  writeFileSync(page, `${whole.slice(0, from + begin.length)}\n${text.trim()}\n${whole.slice(to)}`);
  console.log(text.trim());
}

// node bench/page.mjs PART < TABLE writes what another program measured.
if (process.argv[1]?.endsWith('page.mjs') && process.argv[2]) put(process.argv[2], `${measuredOn()}\n\n${readFileSync(0, 'utf8')}`);
