import { expect, test } from 'vitest';
import { thin } from '../texts/numbers';
import { duration, megapixels, printed, sentence, size, trim, typedNumber, weight } from './figures';

test.each([
  [0, '0 B'],
  [999, '999 B'],
  [1000, '1 kB'],
  [9994, '9.99 kB'],
  [9995, '10 kB'],
  [99_949, '99.9 kB'],
  [99_950, '100 kB'],
  [999_499, '999 kB'],
  [999_500, '1 MB'],
  [12_345_678, '12.3 MB'],
  [1_234_567_890, `1${thin}235 MB`],
])('%i bytes are written as %s', (bytes, text) => expect(weight(bytes)).toBe(text));

test('a weight never reads as one of the next unit', () => {
  for (let bytes = 1; bytes < 2e8; bytes = Math.ceil(bytes * 1.003)) {
    const [figure = ''] = weight(bytes).split(' ');
    const value = Number(figure.replaceAll(thin, ''));
    expect(value).toBeGreaterThan(0);
    if (!weight(bytes).endsWith('MB')) expect(value).toBeLessThan(1000);
  }
});

test.each([
  ['12', 12],
  ['1,5', 1.5],
  ['1.5', 1.5],
  ['2 400', 2400],
  ['', NaN],
  ['  ', NaN],
  ['abc', NaN],
])('"%s" is typed as %d', (text, value) => expect(typedNumber(text)).toBe(value));

test('sizes, areas and prints have their units', () => {
  expect(size(12_000, 800)).toBe(`12${thin}000 × 800 px`);
  expect(megapixels(6000, 4000)).toContain('24');
  expect(printed(3000, 300)).toBe('25.4');
  expect(trim(2, 2)).toBe('2');
  expect(trim(0.12345, 3)).toBe('0.123');
});

test('a duration is no finer than anybody can tell', () => {
  expect(duration(3)).not.toMatch(/3/);
  expect(duration(47)).toContain('45');
  expect(duration(600)).toContain('10');
  expect(duration(5400)).toContain('1.5');
});

test('thin spaces of the server break no line', () => {
  expect(sentence('1\u202f500 px')).toBe('1\u2060\u2009\u2060500 px');
});
