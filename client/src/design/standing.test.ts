import { expect, it } from 'vitest';
import { standingOf } from './standing';

it('claims a verdict only once the files are there', () => {
  expect(standingOf({ state: 'waiting', verdict: 'meets' })).toBe('waiting');
  expect(standingOf({ state: 'making', verdict: 'concedes' })).toBe('making');
  expect(standingOf({ state: 'done', verdict: 'concedes' })).toBe('concedes');
  expect(standingOf(undefined)).toBe('waiting');
});

it('knows from the plan that a limit is broken, and that a cell is skipped', () => {
  expect(standingOf({ state: 'waiting', verdict: 'breaks' })).toBe('breaks');
  expect(standingOf({ state: 'skipped', verdict: 'meets' })).toBe('skipped');
});
