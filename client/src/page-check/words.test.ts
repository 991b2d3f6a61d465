import { expect, test } from 'vitest';
import type { PageCheck } from '../api/client';
import { pageFaultCodeValues } from '../api/schema';
import { faultWords } from './faults';
import { progressWords } from './progress';
import { isOn } from './screens';

const check = (change: Partial<PageCheck>) =>
  ({ state: 'waiting', trouble: null, progress: null, ...change }) as unknown as PageCheck;

test('every fault has a word of its own', () => {
  const words = pageFaultCodeValues.map((code) => faultWords[code]);
  expect(new Set(words).size).toBe(pageFaultCodeValues.length);
});

test('where a page check stands is said in a sentence', () => {
  const measuring = check({ progress: { making: false, done: 2, of: 8, screens: [] } });
  expect(progressWords(measuring)).toMatch(/2 of 8/);
  expect(progressWords(check({ progress: { making: true, done: 5, of: 9, screens: [] } }))).toMatch(/5 of 9/);
  expect(progressWords(check({ state: 'failed', trouble: 'The page does not answer.' }))).toBe(
    'The page does not answer.',
  );
  const states = ['receiving', 'waiting', 'stopped', 'failed', 'done'] as const;
  expect(new Set(states.map((state) => progressWords(check({ state })))).size).toBe(states.length);
});

test('what belongs to a screen has its width and its density', () => {
  const on = isOn({ viewport: 360, density: 2 });
  expect(on({ viewport: 360, density: 2 })).toBe(true);
  expect(on({ viewport: 360, density: 1 })).toBe(false);
  expect(on({ viewport: 768, density: 2 })).toBe(false);
});
