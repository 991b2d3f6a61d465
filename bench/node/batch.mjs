// The batch as a user of sharp would write it: two pictures at a time, each slot reduced once, the quality found by a binary search.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';

const { files, slots } = JSON.parse(readFileSync(process.argv[2], 'utf8'));
mkdirSync(process.argv[3], { recursive: true });
sharp.cache(false);

async function one(file, number) {
  // Decoded once to the largest width, the rest from that: the fastest form.
  const { data, info } = await sharp(file).resize({ width: slots[0].width, withoutEnlargement: true }).raw().toBuffer({ resolveWithObject: true });
  const raw = { width: info.width, height: info.height, channels: info.channels };
  for (const { width, limit } of slots) {
    const small = await sharp(data, { raw }).resize({ width, withoutEnlargement: true }).raw().toBuffer({ resolveWithObject: true });
    const pixels = { width: small.info.width, height: small.info.height, channels: small.info.channels };
    let [low, high, best] = [10, 80, null];
    while (low <= high) {
      const middle = (low + high) >> 1;
      const made = await sharp(small.data, { raw: pixels }).jpeg({ quality: middle, mozjpeg: true }).toBuffer();
      if (made.length <= limit) [best, low] = [made, middle + 1];
      else high = middle - 1;
    }
    if (best) writeFileSync(join(process.argv[3], `${number}-${width}.jpg`), best);
  }
}

let next = 0;
const worker = async () => {
  while (next < files.length) {
    const number = next++;
    await one(files[number], number);
  }
};
await Promise.all([worker(), worker()]);
