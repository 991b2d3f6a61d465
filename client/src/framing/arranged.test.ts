import { expect, test } from 'vitest';
import { arranged } from './arranged';

const room = { width: 372, height: 460 };
const square = { width: 300, height: 300 };
const wide = { width: 900, height: 300 };

test('the slot in hand is drawn larger than the others', () => {
  const { sizes } = arranged([square, square, square, square], 2, room);
  expect(sizes[2]!.height).toBeGreaterThan(sizes[0]!.height);
  expect(sizes[0]).toEqual(sizes[3]);
});

test('a wide slot in hand gets the wider column', () => {
  expect(arranged([wide, square], 0, room).columns).toMatch(/^0\.57fr 0\.43/);
  expect(arranged([square, wide], 1, room).columns).toMatch(/^0\.43\d*fr 0\.57fr$/);
  expect(arranged([square, square], 0, room).columns).toBe('0.5fr 0.5fr');
});

test('shapes are kept, columns are not left, and nothing vanishes', () => {
  for (const inHand of [-1, 0, 3]) {
    const shapes = [square, wide, { width: 100, height: 800 }, square, wide, { width: 4000, height: 100 }];
    const { sizes } = arranged(shapes, inHand, room);
    sizes.forEach(({ width, height }, i) => {
      expect(width).toBeLessThanOrEqual(room.width);
      expect(Math.min(width, height)).toBeGreaterThanOrEqual(Math.min(12, width));
      if (width > 20 && height > 12)
        expect(width / height).toBeCloseTo(shapes[i]!.width / shapes[i]!.height, 6);
    });
  }
});
