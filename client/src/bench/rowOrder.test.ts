import { expect, it } from 'vitest';
import type { JobPicture } from '../api/client';
import type { Cells } from '../jobs/JobStore';
import { countByPicture, nameOf, rowsIn } from './rowOrder';

const picture = (id: string, words: string | null) =>
  ({ picture: { id, name: `DSC_${id}.JPG` }, words }) as unknown as JobPicture;
const pictures = [picture('0412', 'storm lantern'), picture('0500', null), picture('0007', 'Barometer')];
const slots = [{ address: 'a' }, { address: 'b' }];
const asking = new Set(['0500 a', '0500 b', '0007 b']);
const cells = {
  at: (id: string, address: string) => ({ toReview: asking.has(`${id} ${address}`) ? ['suggested'] : [] }),
} as unknown as Cells;
const rows = (...how: ['added' | 'to-review' | 'name', string]) =>
  rowsIn(pictures, ...how, countByPicture(pictures, slots, cells)).map(nameOf);

it('keeps the order in which pictures were added until another is chosen', () => {
  expect(rows('added', '')).toEqual(['storm lantern', 'DSC_0500.JPG', 'Barometer']);
  expect(rows('to-review', '')).toEqual(['DSC_0500.JPG', 'Barometer', 'storm lantern']);
  expect(rows('name', '')).toEqual(['Barometer', 'DSC_0500.JPG', 'storm lantern']);
});

it('finds pictures by their keywords and by the name of their file', () => {
  expect(rows('added', 'lant')).toEqual(['storm lantern']);
  expect(rows('added', '0007')).toEqual(['Barometer']);
  expect(rows('added', 'rain')).toEqual([]);
});
