import { expect, test } from 'vitest';
import { nearestInLine } from './nearestInLine';

const box = (left: number, top: number, width = 100) => ({ left, top, width });
const lines = [box(0, 0), box(110, 0), box(220, 0, 60), box(0, 120, 200), box(210, 120), box(0, 240)];

test('a line down takes the box whose middle is nearest', () => {
  expect(nearestInLine(lines, 0, 1)).toBe(3);
  expect(nearestInLine(lines, 1, 1)).toBe(3);
  expect(nearestInLine(lines, 2, 1)).toBe(4);
  expect(nearestInLine(lines, 4, 1)).toBe(5);
});

test('a line up goes to the next line, not to one beyond', () => {
  expect(nearestInLine(lines, 5, -1)).toBe(3);
  expect(nearestInLine(lines, 4, -1)).toBe(2);
});

test('where there is no other line, or nothing at all, the place stays', () => {
  expect(nearestInLine(lines, 0, -1)).toBe(0);
  expect(nearestInLine(lines, 5, 1)).toBe(5);
  expect(nearestInLine([], 0, 1)).toBe(0);
});
