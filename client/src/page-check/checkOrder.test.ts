import { expect, test } from 'vitest';
import type { PageCheck } from '../api/client';
import { gainOf, inOrder } from './checkOrder';

const check = (id: string, mean: number | null, possible: number | null) =>
  ({ id, mean, possible }) as unknown as PageCheck;

test('what there is to gain is never less than nothing, and nothing while it is not known', () => {
  expect(gainOf(check('a', 5_000, 2_000))).toBe(3_000);
  expect(gainOf(check('a', 2_000, 5_000))).toBe(0);
  expect(gainOf(check('a', null, null))).toBe(0);
});

test('pages with the most to gain come first; those with as much stay in their order', () => {
  const all = [check('a', 500, 400), check('b', null, null), check('c', 9_000, 100), check('d', 500, 400)];
  expect(inOrder(all, 'newest')).toBe(all);
  expect(inOrder(all, 'gain').map((one) => one.id)).toEqual(['c', 'a', 'd', 'b']);
});
