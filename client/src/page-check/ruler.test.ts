import { expect, test } from 'vitest';
import type { PageElement } from '../api/client';
import { smallest } from './Ruler';

const element = (where: string, x: number, y: number, width: number, height: number): PageElement => ({
  where,
  place: { x, y, width, height },
  inner: width,
});
const page = [
  element('body', 0, 0, 1000, 2000),
  element('main', 100, 100, 600, 800),
  element('main > p', 120, 100, 560, 40),
  // What fills its element wholly stands behind it in the page and is the one that is meant.
  element('main > p > b', 120, 100, 560, 40),
];

test('the smallest element under the pointer is measured, and the inner one of two alike', () => {
  expect(smallest(page, 130, 110)?.where).toBe('main > p > b');
  expect(smallest(page, 130, 500)?.where).toBe('main');
  expect(smallest(page, 50, 50)?.where).toBe('body');
  expect(smallest(page, 1000, 50)).toBeNull();
});
