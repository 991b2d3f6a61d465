// Prints the mean structural similarity of two grey pictures, given as files of raw bytes: node ssim.mjs WIDTH HEIGHT A B
// The package's original form: Wang et al. 2004 with the published Gaussian window, without its downsampling.
import { readFileSync } from 'node:fs';
import { ssim } from 'ssim.js';

const [width, height, a, b] = process.argv.slice(2);
const picture = (file) => {
  const grey = readFileSync(file);
  const data = new Uint8ClampedArray(grey.length * 4);
  grey.forEach((value, i) => data.set([value, value, value, 255], i * 4));
  return { data, width: Number(width), height: Number(height) };
};
const { mssim } = ssim(picture(a), picture(b), { ssim: 'original', downsample: false });
console.log(mssim);
