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

test('another slot in hand moves nothing', () => {
  const shapes = [square, wide, { width: 100, height: 800 }, square, wide];
  const first = arranged(shapes, 0, room);
  for (const inHand of [-1, 1, 2, 4]) {
    const { places, sizes } = arranged(shapes, inHand, room);
    expect(places).toEqual(first.places);
    // What is in hand fills its place.
    sizes.forEach(({ height }, i) => expect(height).toBeLessThanOrEqual(places[i]!));
    if (inHand >= 0) expect(sizes[inHand]!.height).toBe(places[inHand]);
  }
});

test('few slots are large, and many stay readable', () => {
  expect(arranged([wide, wide], 0, room).sizes[0]!.width).toBeGreaterThan(160);
  const many = arranged(
    Array.from({ length: 40 }, () => square),
    0,
    room,
  );
  expect(many.sizes[1]!.height).toBeGreaterThan(50);
});

test('shapes are kept, columns are not left, and nothing vanishes', () => {
  for (const inHand of [-1, 0, 3]) {
    const shapes = [square, wide, { width: 100, height: 800 }, square, wide, { width: 4000, height: 100 }];
    const { sizes } = arranged(shapes, inHand, room);
    sizes.forEach(({ width, height }, i) => {
      expect(width).toBeLessThanOrEqual(room.width);
      expect(width).toBeGreaterThanOrEqual(20);
      expect(height).toBeGreaterThanOrEqual(12);
      if (width > 20 && height > 12)
        expect(width / height).toBeCloseTo(shapes[i]!.width / shapes[i]!.height, 6);
    });
  }
});
