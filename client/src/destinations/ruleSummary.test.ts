import { describe, expect, it } from 'vitest';
import type { Destination, Slot } from '../api/client';
import { summaryOf } from './ruleSummary';

const slot = (name: string, width: number, height: number, more: Partial<Slot> = {}) =>
  ({
    ...{ key: name, name, width, height, shape: width / height, fit: 'crop', retired: false },
    ...{ descriptors: ['1x'], types: ['jpeg'], maxBytes: null },
    ...more,
  }) as unknown as Slot;
const destination = (name: string, ...slots: Slot[]) => ({ key: name, name, slots }) as Destination;

describe('what the rules ask for as a whole', () => {
  it('counts files and weights over all slots that are in use', () => {
    const summary = summaryOf([
      destination('Site', slot('Opening', 1500, 750, { descriptors: ['1x', '2x'], maxBytes: 300_000 })),
      destination('Shop', slot('Square', 300, 300), slot('Old', 9000, 9000, { retired: true })),
      destination('Closed', slot('Gone', 10, 10, { retired: true })),
    ]);
    expect(summary).toMatchObject({ destinations: 2, slots: 2, files: 3, bytes: 600_000, unlimited: 1 });
    expect([summary.smallest?.name, summary.largest?.name]).toEqual(['Square', 'Opening']);
    expect(summary.types).toEqual([['jpeg', 2]]);
  });

  it('finds slots that differ by little, and not those of another shape, size or fit', () => {
    const summary = summaryOf([
      destination('Site', slot('A', 1200, 630), slot('B', 1200, 628), slot('C', 600, 315)),
      destination('Shop', slot('D', 1200, 630, { fit: 'mat' }), slot('E', 630, 1200)),
    ]);
    expect(summary.nearlyAlike.map(({ one, other }) => [one, other])).toEqual([['A, Site', 'B, Site']]);
  });

  it('is nothing for no rules', () => {
    expect(summaryOf([])).toMatchObject({ slots: 0, files: 0, smallest: null, nearlyAlike: [] });
  });
});
