import { expect, it } from 'vitest';
import type { ReasonCode } from '../api/client';
import type { Chosen } from '../jobs/actions';
import { grouped } from './useWall';

const cell = (name: string, ...toReview: ReasonCode[]) =>
  ({ slot: { address: name }, cell: { toReview } }) as unknown as Chosen;
const names = (groups: ReturnType<typeof grouped>) =>
  groups.map(({ reason, items }) => [reason, ...items.map(({ item }) => item.slot.address)]);

it('puts each cell once under its gravest question, the gravest first, in reading order', () => {
  const cells = [
    cell('a', 'suggested'),
    cell('b', 'too-small', 'over-weight'),
    cell('c', 'too-small'),
    cell('d', 'suggested'),
  ];
  const groups = grouped(cells, 'any');
  expect(names(groups)).toEqual([
    ['over-weight', 'b'],
    ['too-small', 'c'],
    ['suggested', 'a', 'd'],
  ]);
  // The hand goes through them in the order in which they are drawn.
  expect(groups.flatMap(({ items }) => items.map(({ index }) => index))).toEqual([0, 1, 2, 3]);
});

it('puts all under the question that was picked', () => {
  const cells = [cell('a', 'suggested', 'too-small'), cell('b', 'too-small', 'over-weight')];
  expect(names(grouped(cells, 'too-small'))).toEqual([['too-small', 'a', 'b']]);
});
