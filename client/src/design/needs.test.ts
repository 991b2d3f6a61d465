import { describe, expect, it } from 'vitest';
import type { Slot } from '../api/client';
import { needs, windows } from './needs';
import { thin } from '../texts/numbers';

const slot = (more: Partial<Slot>) =>
  ({ size: '3:2, any width', densities: [1, 2], descriptors: ['1x', '2x'], shownAt: [], ...more }) as Slot;

describe('what a slot asks for', () => {
  it('names the densities beyond one', () => expect(needs(slot({}))).toBe('3:2, any width · 2x'));
  it('counts the widths of a ladder', () =>
    expect(
      needs(
        slot({
          responsive: { sizes: '100vw', from: 320, to: 1920, waste: 0.5, files: null },
          descriptors: ['400w', '800w', '1200w'],
          maxBytes: 300_000,
        }),
      ),
    ).toBe('3:2, any width · 3 widths · under 300 kB'));
});

describe('the windows of a slot of a group', () => {
  it('begins at nothing', () =>
    expect(windows(slot({ shownAt: [{ from: 0, to: 599 }] }))).toBe('up to 599 px'));
  it('lies between two', () =>
    expect(windows(slot({ shownAt: [{ from: 600, to: 959 }] }))).toBe('600 to 959 px'));
  it('has no end', () =>
    expect(windows(slot({ shownAt: [{ from: 1000, to: 100_000 }] }))).toBe(`from 1${thin}000 px`));
  it('may have a gap', () =>
    expect(
      windows(
        slot({
          shownAt: [
            { from: 0, to: 399 },
            { from: 800, to: 100_000 },
          ],
        }),
      ),
    ).toBe('up to 399 px, from 800 px'));
});
