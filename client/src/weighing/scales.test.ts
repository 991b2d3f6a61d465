import { expect, test } from 'vitest';
import { likenessBorderValues } from '../api/schema';
import { labelsFor, levels, nearestPoint, scalesFor } from './scales';
import type { Curve } from './useCurves';

const curve = (format: string, ...points: [number, number, number][]) =>
  ({
    format,
    points: points.map(([quality, bytes, likeness]) => ({ quality, bytes, likeness })),
  }) as unknown as Curve;

const jpeg = curve('jpeg', [40, 30_000, 0.97], [80, 90_000, 0.995]);
const webp = curve('webp', [40, 20_000, 0.972], [80, 70_000, 0.9951]);
const scales = scalesFor({ width: 900, height: 196 }, [20_000, 90_000]);

test('heavier lies further right, more alike lies higher', () => {
  expect(scales.x(20_000)).toBeLessThan(scales.x(90_000));
  expect(scales.y(0.999)).toBeLessThan(scales.y(0.97));
  expect(scales.x(20_000)).toBeGreaterThan(scales.left);
  expect(scales.x(90_000)).toBeLessThan(scales.right);
});

test('what is beyond the drawing is drawn at its edge', () => {
  expect(scales.y(1)).toBe(scales.top);
  expect(scales.y(0.5)).toBe(scales.bottom);
});

test('the axis has round weights', () => {
  expect(scales.ticks.length).toBeGreaterThan(1);
  for (const tick of scales.ticks) expect(tick.toExponential()).toMatch(/^[125]e/);
});

test('each word for likeness has the border below it, in order', () => {
  expect(levels.map((level) => level.at)).toEqual([...likenessBorderValues, 0.9]);
});

test('the nearest point is picked, of whichever curve', () => {
  const place = { x: scales.x(70_000) + 2, y: scales.y(0.9951) };
  expect(nearestPoint([jpeg, webp], scales, place)?.curve).toBe(webp);
  expect(nearestPoint([], scales, place)).toBeNull();
});

test('names at the ends of curves do not stand on each other', () => {
  const at = [...labelsFor([jpeg, webp, curve('avif')], scales).values()].toSorted((a, b) => a - b);
  expect(at).toHaveLength(2);
  expect(at[1]! - at[0]!).toBeGreaterThanOrEqual(13);
});
