// 60 photographs are lightened to a likeness, by `mend` and by the general-purpose library. Its loop halves the range of qualities until it stands at the
// quality that `mend` found to be enough; what tells it whether a file is alike enough costs it nothing. Each file is decoded, as anybody would have to.
import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync,  } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { createRequire } from 'node:module';
import { measuredOn, put } from '../page.mjs';

const sharp = createRequire(new URL('../node/package.json', import.meta.url))('sharp');
sharp.cache(false);
const wallpapers = '/usr/share/backgrounds';
const place = mkdtempSync(join(tmpdir(), 'mend-'));
const library = join(place, 'library');
mkdirSync(library);
const photographs = readdirSync(wallpapers).filter((name) => /_by_.*\.jpg$/.test(name)).sort();
const widths = [2400, 1800, 1200, 900];
for (const [i, name] of photographs.entries())
  for (const width of widths)
    if (readdirSync(library).length < 60)
      execFileSync('convert', [join(wallpapers, name), '-resize', `${width}x`, '-quality', '95', join(library, `${i}-${width}.jpg`)]);
const files = readdirSync(library).sort();
const before = files.reduce((sum, file) => sum + statSync(join(library, file)).size, 0);

const seconds = async (work) => {
  const start = process.hrtime.bigint();
  await work();
  return Number(process.hrtime.bigint() - start) / 1e9;
};

function mend() {
  const out = join(place, 'out');
  rmSync(out, { recursive: true, force: true });
  execFileSync('./pantomet', ['mend', library, '--out', out, '--at-least', '0', '--report', join(place, 'report.json')]);
  return JSON.parse(readFileSync(join(place, 'report.json'), 'utf8'));
}

// One picture: encodes and decodes on the way of halving from 1 to 95 to a known quality.
async function loop(file, quality, mozjpeg) {
  const { data, info } = await sharp(join(library, file)).raw().toBuffer({ resolveWithObject: true });
  const raw = { width: info.width, height: info.height, channels: info.channels };
  let [low, high, bytes] = [1, 95, 0];
  while (low <= high) {
    const middle = (low + high) >> 1;
    const made = await sharp(data, { raw }).jpeg({ quality: middle, mozjpeg }).toBuffer();
    await sharp(made).raw().toBuffer();
    if (middle === quality) bytes = made.length;
    if (middle >= quality) high = middle - 1;
    else low = middle + 1;
  }
  return bytes;
}

async function library60(qualities, mozjpeg) {
  const open = files.filter((file) => qualities.has(file));
  const bytes = [];
  // As many at once as there are cores, like mend.
  await Promise.all(
    cpus().map(async () => {
      for (let file = open.pop(); file; file = open.pop()) bytes.push(await loop(file, qualities.get(file), mozjpeg));
    }),
  );
  return bytes.reduce((sum, one) => sum + one, 0);
}

mend();
const runs = { ours: [], careful: [], plain: [] };
let report;
let theirs;
for (let run = 0; run < 3; run++) {
  runs.ours.push(await seconds(async () => (report = mend())));
  const made = report.variants.filter((variant) => variant.file);
  const qualities = new Map(made.map((variant) => [variant.source, variant.quality]));
  runs.careful.push(await seconds(async () => (theirs = await library60(qualities, true))));
  runs.plain.push(await seconds(() => library60(qualities, false)));
}
const middle = (values) => values.toSorted((a, b) => a - b)[values.length >> 1];
const made = report.variants.filter((variant) => variant.file);
const worst = Math.min(...made.map((variant) => variant.likeness));
const after = made.reduce((sum, variant) => sum + variant.bytes, 0);
const [ours, careful, plain] = [runs.ours, runs.careful, runs.plain].map(middle);
const row = (name, value) => `| ${name} | ${value} |`;
put(
  'folders',
  `${measuredOn()} sharp ${sharp.versions.sharp}. Fifteen photographs of Debian's lomiri-wallpapers-16.04 at four widths (2400 to 900 px), JPEG 95,
${(before / 1e6).toFixed(1)} MB; likeness 0.995; the median of 3, in turn. \`mend\` is a whole process, its start included. The library halves the
range of qualities from 1 to 95 to the quality that \`mend\` found, encoding and decoding at each step; what tells it whether a file is alike enough costs it nothing.

| what | measured |
|---|---|
${row('`mend`', `${ours.toFixed(1)} s (${runs.ours.map((one) => one.toFixed(1)).join(', ')})`)}
${row('the library with its careful JPEG encoder, as `mend` has', `${careful.toFixed(1)} s (${runs.careful.map((one) => one.toFixed(1)).join(', ')})`)}
${row('the library with its plain one, whose files are heavier', `${plain.toFixed(1)} s (${runs.plain.map((one) => one.toFixed(1)).join(', ')})`)}
${row('times as fast as the careful one (1.3 wanted)', (careful / ours).toFixed(2))}
${row('times as fast as the plain one', (plain / ours).toFixed(2))}
${row('files made, of', `${made.length} of ${files.length}`)}
${row('lowest likeness of a file', worst.toFixed(4))}
${row('weight of those files, ours and the library\'s careful ones', `${(after / 1e6).toFixed(2)} and ${(theirs / 1e6).toFixed(2)} MB`)}
`,
);
rmSync(place, { recursive: true });
