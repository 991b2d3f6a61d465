// Ten photographs at six widths: ours, the library's default, and the exact reduction - full decode, Lanczos in 16 bits by ImageMagick,
// rounded once - compared by butteraugli's 3-norm; and the exact one in linear light beside that.
import { execFileSync } from 'node:child_process';
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { basename, join } from 'node:path';

const sharp = createRequire(new URL('../node/', import.meta.url))('sharp');
const folder = '/usr/share/backgrounds';
const photographs = readdirSync(folder)
  .filter((name) => /_by_.*\.jpg$/.test(name))
  .sort()
  .slice(0, 10)
  .map((name) => join(folder, name));
const widths = [200, 400, 640, 900, 1200, 1600];
const place = 'artifacts/reduction';
rmSync(place, { recursive: true, force: true });
mkdirSync(place, { recursive: true });
const at = (name) => join(place, name);

writeFileSync(
  at('rules.json'),
  JSON.stringify({
    schema: 'pantomet-rules/1',
    destinations: [
      {
        key: 'd',
        name: 'D',
        slots: widths.map((width) => ({ key: `w${width}`, size: { width }, types: ['png'], sharpen: 'off' })),
      },
    ],
  }),
);
execFileSync('./pantomet', ['render', '--rules', at('rules.json'), '--out', at('ours'), '--report', at('report.json'), ...photographs], {
  stdio: 'ignore',
});

const threeNorm = (one, other) =>
  Number(/3-norm: ([0-9.eE+-]+)/.exec(execFileSync('butteraugli_main', [one, other], { encoding: 'utf8' }))[1]);

async function exact(path, { width, height }, to, linear) {
  const [into, back] = linear ? [['-colorspace', 'RGB'], ['-colorspace', 'sRGB']] : [[], []];
  const deep = execFileSync(
    'convert',
    [path, '-auto-orient', '-strip', ...into, '-filter', 'Lanczos', '-resize', `${width}x${height}!`, ...back, '-depth', '16', '-endian', 'LSB', 'rgb:-'],
    { maxBuffer: 1 << 30 },
  );
  const pixels = Buffer.alloc(width * height * 3);
  for (let i = 0; i < pixels.length; i++) pixels[i] = Math.round(deep.readUInt16LE(2 * i) / 257);
  await sharp(pixels, { raw: { width, height, channels: 3 } }).png().toFile(to);
}

const rows = [];
const report = JSON.parse(readFileSync(at('report.json'), 'utf8'));
const inLight = new Set(report.sources.filter((one) => one.inLight).map((one) => one.file));
for (const made of report.variants) {
  const path = photographs.find((one) => one.endsWith(basename(made.source)));
  const asked = widths.find((width) => made.slot === `w${width}`);
  // One that has fewer pixels than are asked for is not reduced.
  if (!made.file || made.width !== asked) continue;
  await exact(path, made, at('exact.png'), false);
  await exact(path, made, at('linear.png'), true);
  await sharp(path).rotate().resize(made.width, made.height, { fit: 'fill' }).png().toFile(at('library.png'));
  rows.push({
    width: asked,
    // The exact one in the light in which ours is reduced.
    ours: threeNorm(at(inLight.has(made.source) ? 'linear.png' : 'exact.png'), join(at('ours'), made.file)),
    stored: threeNorm(at('exact.png'), join(at('ours'), made.file)),
    library: threeNorm(at('exact.png'), at('library.png')),
    linear: threeNorm(at('exact.png'), at('linear.png')),
  });
}

const mean = (values) => values.reduce((sum, value) => sum + value, 0) / values.length;
const line = (name, some) =>
  `| ${name} | ${some.length} | ${mean(some.map((one) => one.ours)).toFixed(3)}, ${Math.max(...some.map((one) => one.ours)).toFixed(3)} | ${mean(some.map((one) => one.library)).toFixed(3)}, ${Math.max(...some.map((one) => one.library)).toFixed(3)} | ${some.filter((one) => one.ours > one.library).length} | ${mean(some.map((one) => one.linear)).toFixed(2)}, ${Math.max(...some.map((one) => one.linear)).toFixed(2)} |`;
writeFileSync(
  'docs/reduction.md',
  `${readFileSync(new URL('head.md', import.meta.url), 'utf8')}
| width | files | ours: mean, worst | the library: mean, worst | ours farther off in | linear light: mean, worst |
|---|---|---|---|---|---|
${widths
  .map((width) =>
    line(
      width,
      rows.filter((one) => one.width === width),
    ),
  )
  .join('\n')}
${line('**all**', rows)}

Reduced in light: ${inLight.size} of ${photographs.length} (${[...inLight].map((one) => basename(one)).join(', ')}). Held against the exact reduction of
stored values, these included, ours is at ${mean(rows.map((one) => one.stored)).toFixed(3)} in the mean, and farther off than the library in ${rows.filter((one) => one.stored > one.library).length} of ${rows.length}.
`,
);
console.log(readFileSync('docs/reduction.md', 'utf8'));
