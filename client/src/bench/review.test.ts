import { expect, test } from 'vitest';
import type { JobPicture, JobSlot, ReasonCode } from '../api/client';
import { countToReview } from './ReviewFilter';
import { pairing } from './pairing';

const cell = (picture: string, slot: string, ...toReview: ReasonCode[]) => ({ picture, slot, toReview });
const picture = (id: string, parts: string[] | null = null) =>
  ({ picture: { id }, parts }) as unknown as JobPicture;
const slot = (address: string, pair: number | null = null) =>
  ({ address, slot: { pair } }) as unknown as JobSlot;

test('cells to review are counted by reason, those that the job no longer has are not', () => {
  const head = { pictures: [picture('one'), picture('two')], slots: [slot('a'), slot('b')] };
  const counts = countToReview(
    [
      cell('one', 'a', 'suggested', 'too-small'),
      cell('one', 'b'),
      cell('two', 'a', 'suggested'),
      cell('two', 'gone', 'suggested'),
      cell('gone', 'a', 'over-weight'),
    ],
    head,
  );
  expect(counts.all).toBe(3);
  expect(counts.cells).toBe(2);
  expect([...counts.byReason]).toEqual([
    ['suggested', 2],
    ['too-small', 1],
  ]);
});

test('pictures are combined where a slot takes so many of them', () => {
  const slots = [slot('a'), slot('b', 2), slot('c', 3)];
  expect(pairing([picture('one'), picture('two')], slots)).toMatchObject({ may: true });
  expect(pairing([picture('one'), picture('two')], [slot('c', 3)])).toMatchObject({ may: false });
  expect(pairing([picture('one'), picture('two')], [slot('a')])).toBeNull();
  expect(pairing([picture('one')], slots)).toBeNull();
});

test('pictures that are combined already are not combined once more, and the reason is said', () => {
  const pair = pairing([picture('one'), picture('both', ['one', 'two'])], [slot('b', 2)]);
  expect(pair?.may).toBe(false);
  expect(pair?.title).toMatch(/combined/);
});
