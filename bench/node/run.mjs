// Runs the workloads side by side, alternating, and writes the part "files" of docs/benchmarks.md.
import { execFileSync, spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { tmpdir,  } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { measuredOn, put } from '../page.mjs';

const wanted = new Set(process.argv[2].split(','));
const runs = 5;
const photographs = '/usr/share/backgrounds';
const photo = (start) => join(photographs, readdirSync(photographs).find((name) => name.startsWith(start)));
const demo = (name) => join('demo/pictures', name);
const folder = mkdtempSync(join(tmpdir(), 'pantomet-bench-'));
const bench = 'artifacts/bin/Pantomet.Bench/release/Pantomet.Bench.dll';
const median = (values) => [...values].sort((a, b) => a - b)[values.length >> 1];
const rows = [];
const details = [];

function partner(command, args) {
  const process = spawn(command, args, { stdio: ['pipe', 'pipe', 'inherit'] });
  const waiting = [];
  createInterface({ input: process.stdout }).on('line', (line) => waiting.shift()(JSON.parse(line)));
  return {
    ask: (what) => new Promise((answer) => (waiting.push(answer), process.stdin.write(JSON.stringify(what) + '\n'))),
    end: () => process.stdin.end(),
  };
}

// A whole process: wall time, and the peak of its memory as the kernel counts it.
function whole(command, args) {
  return new Promise((done) => {
    const start = process.hrtime.bigint();
    const child = spawn(command, args, { stdio: ['ignore', 'ignore', 'inherit'] });
    let peak = 0;
    const look = setInterval(() => {
      try {
        peak = Math.max(peak, Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))[1]) * 1024);
      } catch {
        // It has just ended.
      }
    }, 20);
    child.on('exit', (code) => {
      clearInterval(look);
      done({ ms: Number(process.hrtime.bigint() - start) / 1e6, peak, code });
    });
  });
}

const row = (work, ours, theirs, ratio, mark) => {
  rows.push(`| ${work} | ${ours} | ${theirs} | ${ratio} | ${mark} |`);
  console.log(rows.at(-1));
};
const ms = (value) => `${value.toFixed(0)} ms`;

async function warmed(ours, theirs, work, file, forms) {
  const [mine, others] = [[], Object.fromEntries(forms.map((form) => [form, []]))];
  let last;
  for (let run = 0; run <= runs; run++) {
    const answer = await ours.ask({ work, files: [file] });
    if (run > 0) mine.push(answer.ms);
    last = { mine: answer.result };
    for (const form of forms) {
      const other = await theirs.ask({ work, files: [file], form });
      if (run > 0) others[form].push(other.ms);
      last.other = other.result;
    }
  }
  return { mine: median(mine), others: Object.fromEntries(Object.entries(others).map(([form, times]) => [form, median(times)])), last };
}

async function inProcess() {
  const ours = partner('dotnet', [bench, 'serve']);
  const theirs = partner('node', ['bench/node/work.mjs']);
  const wide = [photo('seeding'), demo('DSC_0440.JPG')];
  for (const work of ['A', 'B'].filter((one) => wanted.has(one)))
    for (const file of wide) {
      const { mine, others } = await warmed(ours, theirs, work, file, ['turn', 'together', 'shared', 'byHand']);
      const { byHand, ...forms } = others;
      const best = Math.min(...Object.values(forms));
      row(`${work} ${file.split('/').pop()}`, ms(mine), ms(best), (mine / best).toFixed(2), work === 'A' ? '<= 0.5' : '<= 0.6');
      details.push(`${work}, ${file.split('/').pop()}: the library in turn ${ms(others.turn)}, together ${ms(others.together)}, one shared pipeline ${ms(others.shared)}; reduced by hand to the largest width first ${ms(byHand)} (ours / that: ${(mine / byHand).toFixed(2)}).`);
    }
  if (wanted.has('C'))
    for (const [work, files] of [
      ['C1', [photo('Dragonfly'), photo('life'), photo('picos'), photo('greentock')]],
      ['C2', [photo('Dragonfly'), photo('seeding')]],
    ])
      for (const file of files) {
        const { mine, others, last } = await warmed(ours, theirs, work, file, ['']);
        const limit = work === 'C1' ? 150_000 : 1_000_000;
        row(`${work} ${file.split('/').pop()}`, `${ms(mine)}, ${((100 * last.mine.bytes) / limit).toFixed(1)} % at ${last.mine.quality}${last.mine.reasons.includes('original-quality') ? ' (the original\'s)' : ''}`,
          `${ms(others[''])}, ${((100 * last.other.bytes) / limit).toFixed(1)} % at ${last.other.quality}, ${last.other.encodes} encodes`, (mine / others['']).toFixed(2), '<= 0.25');
      }
  if (wanted.has('G')) {
    let last;
    for (let run = 0; run < 12; run++) last = (await ours.ask({ work: 'G', files: [photo('Dragonfly')] })).result;
    row('G likeness of 1500 x 1000', `${last.likeness.toFixed(1)} ms`, `${last.encode.toFixed(1)} ms an encode`, (last.likeness / last.encode).toFixed(2), '<= 4');
  }
  ours.end();
  theirs.end();
}

async function batch() {
  const files = [];
  const all = [...readdirSync(photographs).filter((name) => name.includes('_by_')).map((name) => join(photographs, name)),
    ...readdirSync('demo/pictures').filter((name) => /jpg$/i.test(name)).map(demo)];
  while (files.length < 40) files.push(all[files.length % all.length]);
  const slots = [1500, 1200, 1000, 800, 700, 600, 500, 400, 360, 300, 250, 200].map((width) => ({ width, limit: Math.round(width * width * 0.045) }));
  const rules = join(folder, 'rules.json');
  writeFileSync(rules, JSON.stringify({ schema: 'pantomet-rules/1', destinations: [{ key: 'd', slots: slots.map(({ width, limit }) => ({ key: `w${width}`, size: { width }, limits: { maxBytes: limit }, sharpen: 'off' })) }] }));
  writeFileSync(join(folder, 'batch.json'), JSON.stringify({ files, slots }));
  const mine = await whole('./pantomet', ['render', '--rules', rules, '--out', join(folder, 'ours'), '--report', join(folder, 'report.json'), ...files]);
  const other = await whole('node', ['bench/node/batch.mjs', join(folder, 'batch.json'), join(folder, 'theirs')]);
  row('D 40 pictures x 12, wall', `${(mine.ms / 1000).toFixed(1)} s`, `${(other.ms / 1000).toFixed(1)} s`, (mine.ms / other.ms).toFixed(2), '<= 0.6');
  row('D peak memory', `${(mine.peak / 1e6).toFixed(0)} MB`, `${(other.peak / 1e6).toFixed(0)} MB`, (mine.peak / other.peak).toFixed(2), '<= 1.0');
}

async function equalLook() {
  const jpeg = [45, 60, 75, 88];
  const webp = [50, 65, 80, 90];
  const ours = partner('dotnet', [bench, 'serve']);
  const ratios = { jpeg: [], webp: [] };
  for (const start of ['Dragonfly', 'Wine', 'free', 'life', 'seeding', 'picos', 'sunset', 'friends']) {
    const reference = join(folder, 'reference.png');
    await sharp(photo(start)).resize(800, 800, { fit: 'inside' }).toColourspace('srgb').png({ compressionLevel: 1 }).toFile(reference);
    const out = join(folder, 'equal');
    mkdirSync(out, { recursive: true });
    await ours.ask({ work: 'E', files: [reference], out });
    for (const type of ['jpeg', 'webp']) {
      const points = { ours: [], theirs: [] };
      for (const quality of type === 'jpeg' ? jpeg : webp) {
        const mine = readFileSync(join(out, `${type}-${quality}`));
        const other = await (type === 'jpeg' ? sharp(reference).jpeg({ quality, mozjpeg: true }) : sharp(reference).webp({ quality })).toBuffer();
        for (const [side, file] of [['ours', mine], ['theirs', other]]) {
          const shown = join(folder, 'shown.png');
          await sharp(file).png({ compressionLevel: 1 }).toFile(shown);
          const norm = Number(execFileSync('butteraugli_main', [reference, shown], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] }).trim().split(':').at(-1));
          points[side].push([norm, Math.log(file.length)]);
        }
      }
      const at = (list, norm) => {
        for (let i = 0; i + 1 < list.length; i++)
          if (list[i][0] >= norm && norm >= list[i + 1][0]) return list[i][1] + ((list[i][0] - norm) / (list[i][0] - list[i + 1][0])) * (list[i + 1][1] - list[i][1]);
        return NaN;
      };
      const values = [0.8, 0.9, 1, 1.1, 1.2, 1.3].map((norm) => Math.exp(at(points.ours, norm) - at(points.theirs, norm))).filter(Number.isFinite);
      if (values.length) ratios[type].push(values.reduce((a, b) => a + b) / values.length);
    }
  }
  ours.end();
  for (const type of ['jpeg', 'webp']) {
    const mean = ratios[type].reduce((a, b) => a + b) / ratios[type].length;
    row(`E bytes at equal butteraugli, ${type}`, `${ratios[type].map((value) => value.toFixed(3)).join(' ')}`, '1', mean.toFixed(3), '<= 1.0');
  }
}

async function large() {
  const file = join(folder, 'hundred.jpg');
  await sharp(photo('seeding'), { limitInputPixels: false }).resize(13_330, 7500, { fit: 'fill' }).jpeg({ quality: 90 }).toFile(file);
  const rules = join(folder, 'large.json');
  writeFileSync(rules, '{"schema":"pantomet-rules/1","destinations":[{"key":"d","slots":[{"key":"a","size":{"width":2500}}]}]}');
  const peaks = [];
  const times = [];
  for (let run = 0; run < runs; run++) {
    const { peak, ms: time } = await whole('./pantomet', ['render', '--rules', rules, '--out', join(folder, 'large'), file]);
    peaks.push(peak);
    times.push(time);
  }
  const other = await whole('convert', [file, '-resize', '2500x', '-quality', '80', join(folder, 'large.jpg')]);
  row('F 100 MP JPEG to 2500 wide, peak memory', `${(median(peaks) / 1e6).toFixed(0)} MB, ${ms(median(times))}`, `ImageMagick ${(other.peak / 1e6).toFixed(0)} MB, ${ms(other.ms)}`, (median(peaks) / other.peak).toFixed(2), '<= 400 MB');
}

async function imageMagick() {
  const file = photo('seeding');
  const many = await whole('convert', [file, ...[2500, 2000, 1600, 1280, 1000, 800, 600, 400].flatMap((width) => ['(', '+clone', '-resize', `${width}x`, '-quality', '80', '-write', join(folder, `m${width}.jpg`), '+delete', ')']), 'null:']);
  const limited = await whole('convert', [photo('Dragonfly'), '-resize', '1500x', '-define', 'jpeg:extent=150kb', join(folder, 'limited.jpg')]);
  details.push(`ImageMagick as a whole process: A ${ms(many.ms)}; C at 1500 wide with its own size option ${ms(limited.ms)}, ${(readFileSync(join(folder, 'limited.jpg')).length / 1500).toFixed(1)} % of the limit.`);
}

await inProcess();
if (wanted.has('A') || wanted.has('C')) await imageMagick();
if (wanted.has('D')) await batch();
if (wanted.has('E')) await equalLook();
if (wanted.has('F')) await large();
rmSync(folder, { recursive: true });

const table = `${measuredOn()} sharp ${sharp.versions.sharp} on libvips ${sharp.versions.vips}. A, B, C and G run warmed in one process on each side,
alternating, the median of ${runs}; D, F and ImageMagick as whole processes (D once).

| workload | ours | the best of the others | ours / theirs | to reach |
|---|---|---|---|---|
${rows.join('\n')}

${details.join('\n\n')}`;
if (wanted.size === 7) put('files', table);
else console.log(table);
