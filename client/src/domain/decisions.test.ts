import { expect, test } from 'vitest';
import type { Cell, Decisions, JobPicture, JobSlot } from '../api/client';
import { decisionFor, descriptorsOf, noDecision, wantsText, withCell } from './decisions';

const none = { cells: {}, alternative: '', decorative: false } as unknown as Decisions;

test('nothing is decided about a cell until something is', () => {
  expect(decisionFor(none, 'a')).toBe(noDecision);
  const skipped = withCell(none, 'a', { skip: true });
  expect(decisionFor(skipped, 'a')).toEqual({ ...noDecision, skip: true });
  expect(decisionFor(skipped, 'b')).toBe(noDecision);
});

test('a second decision leaves the first, and the last one that is taken back leaves nothing', () => {
  const both = withCell(withCell(none, 'a', { skip: true }), 'a', { accepted: ['suggested'] });
  expect(decisionFor(both, 'a')).toMatchObject({ skip: true, accepted: ['suggested'] });
  const one = withCell(both, 'a', { accepted: [] });
  expect(one.cells).toHaveProperty('a');
  expect(withCell(one, 'a', { skip: false }).cells).toEqual({});
});

test('decisions about one slot are not shared with the decisions before', () => {
  const before = withCell(none, 'a', { skip: true });
  const after = withCell(before, 'b', { unlinked: true });
  expect(Object.keys(before.cells)).toEqual(['a']);
  expect(Object.keys(after.cells)).toEqual(['a', 'b']);
});

test('files are told apart by what the cell has, or by what the slot asks for', () => {
  const slot = { slot: { descriptors: ['1x', '2x'] } } as unknown as JobSlot;
  const cell = {
    files: [{ descriptor: '1x' }, { descriptor: '1x' }, { descriptor: '1.4x' }],
  } as unknown as Cell;
  expect(descriptorsOf(cell, slot)).toEqual(['1x', '1.4x']);
  expect(descriptorsOf(undefined, slot)).toEqual(['1x', '2x']);
  expect(descriptorsOf({ files: [] } as unknown as Cell, slot)).toEqual(['1x', '2x']);
});

test('a picture needs a text unless it has one or is decorative', () => {
  const picture = (change: Partial<Decisions>) =>
    ({ decisions: { ...none, ...change } }) as unknown as JobPicture;
  expect(wantsText(picture({}))).toBe(true);
  expect(wantsText(picture({ alternative: 'A vane' }))).toBe(false);
  expect(wantsText(picture({ decorative: true }))).toBe(false);
});
