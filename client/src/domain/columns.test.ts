import { describe, expect, it } from 'vitest';
import type { JobSlot } from '../api/client';
import { spansOver, spanWords, standingTogether } from './columns';

const slot = (
  address: string,
  is: { ratio?: number | null; ratioText?: string | null; group?: string; pair?: number } = {},
) =>
  ({
    address,
    destination: address.split('/')[0],
    destinationName: address.split('/')[0]!.toUpperCase(),
    slot: { name: address, ratio: null, ratioText: null, group: null, pair: null, ...is },
  }) as unknown as JobSlot;

const square = { ratio: 1, ratioText: '1:1' };
const wide = { ratio: 1.5, ratioText: '3:2' };
const addresses = (slots: readonly JobSlot[]) => slots.map((one) => one.address);

describe('columns', () => {
  it('of one shape stand side by side, where the first of them stood', () => {
    const slots = [
      slot('a/one', square),
      slot('a/two', wide),
      slot('a/three', square),
      slot('b/one', square),
    ];
    expect(addresses(standingTogether(slots))).toEqual(['a/one', 'a/three', 'a/two', 'b/one']);
  });

  it('of one group stay together although their shapes differ', () => {
    const slots = [
      slot('a/large', { ...wide, group: 'opening' }),
      slot('a/card', square),
      slot('a/small', { ...square, group: 'opening' }),
    ];
    expect(addresses(standingTogether(slots))).toEqual(['a/large', 'a/small', 'a/card']);
  });

  it('stand alone where the picture gives the shape, or pictures stand side by side', () => {
    const slots = [
      slot('a/free'),
      slot('a/square', square),
      slot('a/pair', { ...square, pair: 2 }),
      slot('a/long'),
    ];
    expect(spansOver(standingTogether(slots)).map((span) => span.count)).toEqual([1, 1, 1, 1]);
  });

  it('are neither lost nor doubled by standing together', () => {
    const slots = Array.from({ length: 40 }, (_, i) =>
      slot(`${'ab'[i % 2]}/${i}`, [square, wide, {}, { ...wide, group: 'g' }][i % 4]),
    );
    expect(addresses(standingTogether(slots)).toSorted()).toEqual(addresses(slots).toSorted());
    const spans = spansOver(standingTogether(slots));
    expect(spans.reduce((sum, span) => sum + span.count, 0)).toBe(40);
  });

  it('have heads that say the destination where it begins and what several have in common', () => {
    const slots = [slot('a/one', square), slot('a/two', square), slot('a/three', wide), slot('b/one', wide)];
    expect(spansOver(slots).map(spanWords)).toEqual(['A · 1:1', '', 'B']);
  });
});
