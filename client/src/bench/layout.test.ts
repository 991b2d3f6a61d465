import { describe, expect, it } from 'vitest';
import type { JobSlot } from '../api/client';
import type { Cells } from '../jobs/JobStore';

import { caption, drawn, fittingHeight, fittingScale, heights, layOut, pad, standsBeside } from './layout';

const slot = (address: string, width: number, height: number) =>
  ({ address, slot: { width, height } }) as unknown as JobSlot;

const cells = (sides: Record<string, { width: number; height: number }>) =>
  ({ at: (picture: string, address: string) => sides[`${picture} ${address}`] }) as unknown as Cells;

describe('crops alike in height', () => {
  const view = { kind: 'alike', height: 100 } as const;

  it('have that height and their own shape', () => {
    expect(drawn({ width: 300, height: 200 }, view)).toEqual({ width: 150, height: 100 });
  });

  it('are no wider than a strip may be, and then lower', () => {
    const { width, height } = drawn({ width: 1600, height: 200 }, view);
    expect(width).toBeCloseTo(220);
    expect(height).toBeCloseTo(27.5);
  });

  it('take the height of the caption where they would be too narrow to be judged', () => {
    const upright = { width: 200, height: 400 };
    expect(standsBeside(upright, view)).toBe(true);
    expect(drawn(upright, view)).toEqual({ width: 60, height: 100 + caption });
    expect(standsBeside({ width: 400, height: 400 }, view)).toBe(false);
  });
});

describe('crops to one scale', () => {
  it('stand to each other as they do on a page', () => {
    const view = { kind: 'scale', scale: 0.1 } as const;
    expect(drawn({ width: 1200, height: 800 }, view)).toEqual({ width: 120, height: 80 });
    expect(drawn({ width: 300, height: 200 }, view)).toEqual({ width: 30, height: 20 });
  });

  it('are never too small to be seen, and never larger than any bench', () => {
    const view = { kind: 'scale', scale: 0.05 } as const;
    expect(drawn({ width: 16, height: 16 }, view)).toEqual({ width: 6, height: 6 });
    expect(drawn({ width: 32_000, height: 3200 }, view)).toEqual({ width: 160, height: 16 });
  });
});

describe('the bench', () => {
  const slots = [slot('a', 300, 200), slot('b', 400, 400)];

  it('gives each column its widest crop and each row its highest', () => {
    const view = { kind: 'alike', height: 100 } as const;
    const all = cells({
      'one a': { width: 300, height: 200 },
      'two a': { width: 100, height: 200 },
      'one b': { width: 400, height: 400 },
    });
    const { columns, rows } = layOut(slots, ['one', 'two', 'three'], all, view);
    expect(columns).toEqual([150 + 2 * pad, 100 + 2 * pad]);
    expect(rows[0]).toBe(100 + caption + 2 * pad);
    // A row without a crop is as high as its head needs.
    expect(rows[2]).toBe(60);
  });

  it('draws crops as large as all slots fit side by side', () => {
    const narrow = fittingHeight(slots, { width: 300, height: 900 });
    const wide = fittingHeight(slots, { width: 3000, height: 900 });
    expect(narrow).toBeLessThan(wide);
    expect(wide).toBeLessThanOrEqual(heights.most);
    expect(fittingHeight(slots, { width: 10, height: 100 })).toBe(64);
  });

  it('finds a scale at which all slots stand side by side, within what can be seen', () => {
    expect(fittingScale(slots, { width: 5000 })).toBeCloseTo(0.16);
    expect(fittingScale(slots, { width: 10 })).toBeGreaterThanOrEqual(0.045);
    const many = Array.from({ length: 8 }, (_, i) => slot(`${i}`, 2000, 1000));
    const scale = fittingScale(many, { width: 1400 });
    expect(scale).toBeLessThan(0.16);
  });
});
