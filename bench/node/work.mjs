// The other side: the general-purpose library sharp, warmed, one line in and one line out. Each workload in several forms; the driver keeps the fastest.
import { createInterface } from 'node:readline';
import { readFileSync } from 'node:fs';
import sharp from 'sharp';

sharp.cache(false);
const widths = [400, 600, 800, 1000, 1280, 1600, 2000, 2500];
const plain = (image) => [image.jpeg({ quality: 80 })];
const dear = (image) => [image.clone().jpeg({ quality: 80, mozjpeg: true }), image.clone().webp({ quality: 80 })];
const sum = (files) => files.reduce((bytes, file) => bytes + file.length, 0);

const forms = {
  // One after the other, each from the file.
  turn: async (file, outputs) => {
    let bytes = 0;
    for (const width of widths)
      for (const output of outputs(sharp(file).resize(width))) bytes += (await output.toBuffer()).length;
    return bytes;
  },
  // All at once, each from the file.
  together: async (file, outputs) =>
    sum(await Promise.all(widths.flatMap((width) => outputs(sharp(file).resize(width)).map((output) => output.toBuffer())))),
  // One pipeline that is fed once and cloned.
  shared: async (file, outputs) => {
    const source = sharp();
    const work = Promise.all(widths.flatMap((width) => outputs(source.clone().resize(width)).map((output) => output.toBuffer())));
    source.end(readFileSync(file));
    return sum(await work);
  },
  // Reduced by hand to the largest width in memory, and all at once from there. Not a form of the library, but what a careful user could write.
  byHand: async (file, outputs) => {
    const { data, info } = await sharp(file).resize(2500).raw().toBuffer({ resolveWithObject: true });
    const raw = { width: info.width, height: info.height, channels: info.channels };
    return sum(await Promise.all(widths.flatMap((width) => outputs(sharp(data, { raw }).resize(width)).map((output) => output.toBuffer()))));
  },
};

async function limit(file, resize, most) {
  const { data, info } = await sharp(file).resize(resize).raw().toBuffer({ resolveWithObject: true });
  const raw = { width: info.width, height: info.height, channels: info.channels };
  let [low, high, best, quality, encodes] = [1, 95, null, 0, 0];
  while (low <= high) {
    const middle = (low + high) >> 1;
    const made = await sharp(data, { raw }).jpeg({ quality: middle, mozjpeg: true }).toBuffer();
    encodes++;
    if (made.length <= most) [best, quality, low] = [made, middle, middle + 1];
    else high = middle - 1;
  }
  return { bytes: best?.length ?? 0, quality, encodes };
}

async function work({ work, files: [file], form }) {
  if (work === 'A') return { bytes: await forms[form](file, plain) };
  if (work === 'B') return { bytes: await forms[form](file, dear) };
  if (work === 'C1') return limit(file, { width: 1500, withoutEnlargement: true }, 150_000);
  if (work === 'C2') return limit(file, { width: 2500, height: 2000, fit: 'cover', withoutEnlargement: true }, 1_000_000);
  throw new Error(work);
}

for await (const line of createInterface({ input: process.stdin })) {
  const start = process.hrtime.bigint();
  const result = await work(JSON.parse(line));
  console.log(JSON.stringify({ ms: Number(process.hrtime.bigint() - start) / 1e6, result }));
}
