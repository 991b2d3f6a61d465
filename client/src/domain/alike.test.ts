import { expect, test } from 'vitest';
import { alikeTo, alikeTogether } from './alike';

const itself = (one: string) => one;

test('pictures that are alike stand side by side, where the first of them stands', () => {
  const groups = [
    ['b', 'e'],
    ['a', 'd'],
  ];
  expect(alikeTogether(['a', 'b', 'c', 'd', 'e'], groups, itself)).toEqual(['a', 'd', 'b', 'e', 'c']);
});

test('none is lost and none stands twice, also where the list is only a part', () => {
  const groups = [['b', 'x', 'e']];
  expect(alikeTogether(['e', 'c', 'b'], groups, itself)).toEqual(['b', 'e', 'c']);
  expect(alikeTogether([], groups, itself)).toEqual([]);
});

test('without groups the order stays as it is', () => {
  const all = ['c', 'a', 'b'];
  expect(alikeTogether(all, [], itself)).toBe(all);
  expect(alikeTo([], 'a')).toEqual([]);
  // A row of the bench is drawn again when it gets another list.
  expect(alikeTo([], 'a')).toBe(alikeTo([], 'b'));
});
