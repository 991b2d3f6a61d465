import { expect, test } from 'vitest';
import { en } from './en';
import { figure, list, thin } from './numbers';
import { t } from './texts';

const sources = Object.values(
  import.meta.glob<string>(['../**/*.{ts,tsx}', '!../texts/**', '!../**/*.test.ts'], {
    query: '?raw',
    import: 'default',
    eager: true,
  }),
).join('\n');

test('every text of the catalogue is used', () => {
  const unused = Object.entries(en).flatMap(([screen, texts]) =>
    Object.keys(texts)
      .map((key) => `${screen}.${key.replace(/_(one|other)$/, '')}`)
      .filter((key) => !sources.includes(`'${key}'`) && !sources.includes(`"${key}"`)),
  );
  expect(unused).toEqual([]);
});

test('a plural has a form for one and a form for others', () => {
  const halves = Object.values(en).flatMap((texts) =>
    Object.keys(texts).filter(
      (key) =>
        /_(one|other)$/.test(key) &&
        !(`${key.replace(/_(one|other)$/, '')}_${key.endsWith('_one') ? 'other' : 'one'}` in texts),
    ),
  );
  expect(halves).toEqual([]);
  expect(t('common.files', { count: 1 })).toBe('1 file');
  expect(t('common.files', { count: 12_345 })).toBe(`12${thin}345 files`);
});

test('figures and lists are written as the interface is', () => {
  expect(figure(1_234_567)).toBe(`1${thin}234${thin}567`);
  expect(figure(0.126, 2)).toBe('0.13');
  expect(figure(3, 2)).toBe('3');
  expect(list(['a', 'b', 'c'])).toBe('a, b, and c');
});
