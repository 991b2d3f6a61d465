import { describe, expect, it } from 'vitest';
import type { JobPicture, JobSlot } from '../api/client';
import type { Cells } from '../jobs/JobStore';
import { fittingTiles, inUse, isSparse, matrix, tileColumns, tiled } from './arrangement';

const pictures = (count: number) =>
  Array.from({ length: count }, (_, i) => ({ picture: { id: `p${i}` } }) as unknown as JobPicture);
const slots = (count: number) =>
  Array.from({ length: count }, (_, i) => ({ address: `s${i}` }) as unknown as JobSlot);
const cells = (isUsed: (picture: string, slot: string) => boolean) =>
  ({
    at: (picture: string, slot: string) => ({ state: isUsed(picture, slot) ? 'done' : 'skipped' }),
  }) as unknown as Cells;
const oneEach = cells((picture, slot) => picture.slice(1) === slot.slice(1));

describe('a job whose pictures go to one slot each', () => {
  it('is sparse, and a job of all pictures in all slots is not', () => {
    expect(isSparse(pictures(8), slots(8), oneEach)).toBe(true);
    expect(
      isSparse(
        pictures(8),
        slots(8),
        cells(() => true),
      ),
    ).toBe(false);
  });

  it('is not called sparse where two pictures in two slots are seen at one look', () => {
    expect(isSparse(pictures(2), slots(2), oneEach)).toBe(false);
  });

  it('counts cells that are not read yet as in use', () => {
    const unread = { at: () => undefined } as unknown as Cells;
    expect(isSparse(pictures(8), slots(8), unread)).toBe(false);
  });

  it('has one tile for each cell that is not skipped', () => {
    const places = inUse(pictures(8), slots(8), oneEach);
    expect(places.map((one) => `${one.picture.picture.id} ${one.slot.address}`)).toEqual(
      Array.from({ length: 8 }, (_, i) => `p${i} s${i}`),
    );
  });
});

describe('tiles', () => {
  const places = inUse(
    pictures(7),
    slots(1),
    cells(() => true),
  );

  it('lie in rows, and the last row may be short', () => {
    const { rows, columns, at } = tiled(places, 3);
    expect([rows, columns]).toEqual([3, 3]);
    expect(at({ row: 1, column: 2 })).toBe(places[5]);
    expect(at({ row: 2, column: 1 })).toBeUndefined();
    expect(at({ row: 0, column: 3 })).toBeUndefined();
  });

  it('are as large as all of them fit', () => {
    const room = { width: 1200, height: 640 };
    for (const count of [1, 3, 8, 14]) {
      const height = fittingTiles(count, room);
      const { across, width } = tileColumns(height, room.width);
      expect(across * width).toBeLessThanOrEqual(room.width);
      expect(Math.ceil(count / across) * (height + 72)).toBeLessThanOrEqual(room.height);
    }
  });

  it('are never too small to be judged', () => {
    expect(fittingTiles(400, { width: 1200, height: 640 })).toBeGreaterThanOrEqual(110);
  });
});

describe('the matrix', () => {
  it('has pictures down and slots across', () => {
    const [all, places] = [pictures(2), slots(3)];
    const { rows, columns, at } = matrix(all, places);
    expect([rows, columns]).toEqual([2, 3]);
    expect(at({ row: 1, column: 2 })).toEqual({ picture: all[1], slot: places[2] });
    expect(at({ row: 2, column: 0 })).toBeUndefined();
  });
});
