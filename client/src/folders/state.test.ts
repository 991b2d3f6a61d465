import { expect, test } from 'vitest';
import type { PictureFolder } from '../api/client';
import { stateWords } from './state';

const folder = (change: Partial<PictureFolder>) =>
  ({
    state: 'ready',
    progress: null,
    secondsLeft: null,
    mended: false,
    trouble: null,
    outcome: { looked: 0, before: 0, after: 0 },
    ...change,
  }) as unknown as PictureFolder;

const progress = { done: 12, of: 40, bytes: 0, ofBytes: 0, saved: 0, seconds: 1, left: null };

test('how far the work in a folder is stands in its sentence', () => {
  for (const state of ['scanning', 'previewing', 'optimising', 'restoring'] as const)
    expect(stateWords(folder({ state, progress }))).toMatch(/12 of 40/);
  expect(stateWords(folder({ state: 'optimising', progress, secondsLeft: 600 }))).toMatch(/10/);
});

test('each state has a sentence of its own', () => {
  const states = [
    'receiving',
    'scanning',
    'previewing',
    'optimising',
    'paused',
    'restoring',
    'ready',
  ] as const;
  expect(new Set(states.map((state) => stateWords(folder({ state })))).size).toBe(states.length);
});

test('what went wrong is said before what was saved', () => {
  const outcome = { looked: 9, before: 5_000_000, after: 3_000_000 } as PictureFolder['outcome'];
  expect(stateWords(folder({ mended: true, outcome }))).toMatch(/2 MB/);
  expect(stateWords(folder({ mended: true, outcome, trouble: 'The disk is full.' }))).toBe(
    'The disk is full.',
  );
});
