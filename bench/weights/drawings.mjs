// Draws ten made-up flat graphics, the same at each call: charts, tables, circles with a word, lines on a gradient.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';

const folder = process.argv[2];
const colours = [
  ['#20323c', '#e8b04a', '#f4efe6', '#7a9e9f'],
  ['#3b1f2b', '#db5461', '#fff8f0', '#8aa29e'],
  ['#0b3954', '#bfd7ea', '#fefffe', '#ff6663'],
  ['#2d3a3a', '#c8553d', '#ffd5c2', '#f28f3b'],
  ['#1b2a41', '#ccc9dc', '#e0e0e0', '#e0a458'],
];
let state = 5;
// Lehmer's generator with the modulus 2^31 - 1 and the multiplier 48271 (Park, Miller and Stockmeyer 1993).
const upTo = (most) => (state = (state * 48271) % 2147483647) % most;
const text = (x, y, size, fill, words) => `<text x="${x}" y="${y}" font-size="${size}" fill="${fill}">${words}</text>`;

const chart = ([ink, bar, , other]) =>
  text(60, 60, 34, ink, 'Bells cast in a year') +
  Array.from({ length: 12 }, (_, i) => {
    const height = 40 + upTo(360);
    return `<rect x="${60 + i * 66}" y="${520 - height}" width="44" height="${height}" fill="${i % 2 ? bar : other}"/>${text(64 + i * 66, 550, 18, ink, `${i + 1}.${10 + upTo(90)}`)}`;
  }).join('');
const table = ([ink, , , line]) =>
  Array.from(
    { length: 14 },
    (_, row) =>
      Array.from({ length: 5 }, (_, column) => text(40 + column * 170, 60 + row * 38, 20, ink, `${100 + upTo(9900)} kg`)).join('') +
      `<line x1="30" x2="870" y1="${70 + row * 38}" y2="${70 + row * 38}" stroke="${line}"/>`,
  ).join('');
const circles = ([ink, one, ground, other]) =>
  Array.from(
    { length: 40 },
    () =>
      `<circle cx="${upTo(900)}" cy="${upTo(600)}" r="${10 + upTo(80)}" fill="${[ink, one, other][upTo(3)]}" fill-opacity="${upTo(2) ? 1 : 0.6}"/>`,
  ).join('') + text(80, 330, 90, ground, 'Storm vanes');
const lines = ([ink, light, ground]) =>
  `<defs><linearGradient id="g" x2="1" y2="1"><stop stop-color="${light}"/><stop offset="1" stop-color="${ink}"/></linearGradient></defs><rect width="900" height="600" fill="url(#g)"/><polyline points="${Array.from({ length: 150 }, (_, i) => `${i * 6},${Math.round(300 + 200 * Math.sin(i / 12))}`).join(' ')}" fill="none" stroke="${ground}" stroke-width="5"/>${text(80, 120, 60, ground, 'North wind')}`;

[chart, chart, chart, table, table, table, circles, circles, lines, lines].forEach((draw, i) => {
  const set = colours[i % colours.length];
  writeFileSync(
    join(folder, `drawn-${i}.svg`),
    `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="600" viewBox="0 0 900 600"><rect width="900" height="600" fill="${set[2]}"/>${draw(set)}</svg>`,
  );
});
