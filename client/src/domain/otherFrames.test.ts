import { expect, test } from 'vitest';
import type { Decisions, JobSlot } from '../api/client';
import type { Box } from './box';
import { otherFrames } from './otherFrames';

const slot = (key: string, shapeKey: string) =>
  ({ address: `site/${key}`, slot: { name: key, ratioText: shapeKey, shapeKey } }) as unknown as JobSlot;
const slots = [slot('wide', '2:1'), slot('large', '2:1'), slot('square', '1:1'), slot('whole', 'any')];
const picture = { width: 400, height: 200 };
const part: Box = { x: 0, y: 0, width: 200, height: 100 };
const boxes = new Map<string, Box>([
  ['site/wide', part],
  ['site/large', part],
  ['site/square', { ...part, width: 100 }],
  ['site/whole', { x: 0, y: 0, ...picture }],
]);
const decided = (cells: Record<string, unknown>) =>
  ({ cells, framings: {}, keep: [] }) as unknown as Decisions;
const keys = (decisions: Decisions, active: JobSlot) =>
  otherFrames(slots, boxes, decisions, active, picture).map((one) => [one.key, one.slots.length]);

test('slots of one shape share a frame, the active one is not among the others, and a whole picture has no edge', () => {
  expect(keys(decided({}), slots[2]!)).toEqual([['2:1', 2]]);
  expect(keys(decided({}), slots[0]!)).toEqual([['1:1', 1]]);
});

test('an unlinked slot has a frame of its own, and a skipped one has none', () => {
  expect(keys(decided({ 'site/large': { unlinked: true } }), slots[0]!)).toEqual([
    ['site/large', 1],
    ['1:1', 1],
  ]);
  expect(keys(decided({ 'site/square': { skip: true } }), slots[0]!)).toEqual([]);
});
