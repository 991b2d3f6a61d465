import { describe, expect, it } from 'vitest';
import type { JobSlot } from '../api/client';
import type { Cells } from '../jobs/JobStore';

import { caption, drawn, fittingScale, fittingView, heights, layOut, pad, standsBeside } from './layout';

const slot = (address: string, width: number, height: number) =>
  ({
    address,
    destination: 'site',
    destinationName: 'Site',
    slot: { name: address, ratioText: null, width, height, shape: width / height, size: 'any size' },
  }) as unknown as JobSlot;

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
    const narrow = fittingView(slots, 12, { width: 220, height: 900 });
    const wide = fittingView(slots, 12, { width: 3000, height: 900 });
    expect(narrow.height).toBeLessThan(wide.height);
    expect(wide.height).toBeLessThanOrEqual(heights.most);
    expect(fittingView(slots, 12, { width: 10, height: 100 }).height).toBe(64);
  });

  it('lets a strip have the room that is left, and never more than there is', () => {
    const strip = slot('strip', 1000, 200);
    const view = fittingView([...slots, strip], 12, { width: 1100, height: 715 });
    const { width, height } = drawn({ width: 1000, height: 200 }, view);
    expect(width).toBeGreaterThan(2.2 * view.height);
    expect(width / height).toBeCloseTo(5, 6);
    const room = { width: 440, height: 715 };
    const full = fittingView([...slots, strip], 12, room);
    expect(drawn({ width: 1000, height: 200 }, full).width).toBeLessThan(room.width / 2);
  });

  it('draws few pictures larger, as all of them stay in view', () => {
    const room = { width: 1100, height: 715 };
    expect(fittingView(slots, 3, room).height).toBeGreaterThanOrEqual(170);
    expect(fittingView(slots, 1, room).height).toBeGreaterThan(fittingView(slots, 3, room).height);
    expect(fittingView(slots, 5, room)).toEqual(fittingView(slots, 500, room));
  });

  it('makes wide crops lower in a narrow window before it makes all of them smaller', () => {
    const many = Array.from({ length: 8 }, (_, i) => slot(`${i}`, i % 2 ? 400 : 900, 400));
    const view = fittingView(many, 12, { width: 1120, height: 715 });
    expect(view.height).toBe(fittingView(slots, 12, { width: 5000, height: 715 }).height);
    expect(view.width! / view.height).toBeLessThan(2);
    const all = many.reduce((sum, { slot: one }) => sum + drawn(one, view).width + 2 * pad, 0);
    expect(all).toBeLessThanOrEqual(1120);
  });

  it('gives a column the room that the words of its head need, within reason', () => {
    const view = { kind: 'scale', scale: 0.05 } as const;
    const long = { ...slot('c', 100, 100), destinationName: 'A market with a long name' } as JobSlot;
    const [short, wide] = [slots[0]!, long].map((one) => layOut([one], [], cells({}), view).columns[0]!);
    expect(wide).toBeGreaterThan(short!);
    expect(wide).toBeLessThanOrEqual(150);
  });

  it('finds a scale at which all slots stand side by side, within what can be seen', () => {
    expect(fittingScale(slots, { width: 5000 })).toBeCloseTo(0.16);
    expect(fittingScale(slots, { width: 10 })).toBeGreaterThanOrEqual(0.045);
    const many = Array.from({ length: 8 }, (_, i) => slot(`${i}`, 2000, 1000));
    const scale = fittingScale(many, { width: 1400 });
    expect(scale).toBeLessThan(0.16);
  });
});
