import { describe, expect, it } from 'vitest';
import type { JobSummary } from '../api/client';
import { inOrder, isCalled } from './jobOrder';

const job = (name: string, toReview = 0) => ({ name, toReview }) as JobSummary;
const names = (jobs: readonly JobSummary[]) => jobs.map((one) => one.name);

describe('a name', () => {
  it('is found by the beginnings of its words, in any order and case', () => {
    expect(isCalled('Autumn catalogue 2026', 'cat aut')).toBe(true);
    expect(isCalled('DSC_0412.JPG', '0412')).toBe(true);
    expect(isCalled('Autumn catalogue', 'logue')).toBe(false);
    expect(isCalled('Autumn catalogue', 'autumn winter')).toBe(false);
  });

  it('is found by nothing and by blanks', () => {
    expect(isCalled('anything', '')).toBe(true);
    expect(isCalled('anything', '  ')).toBe(true);
  });
});

describe('jobs', () => {
  const all = [job('Job 10', 1), job('job 2', 7), job('Shop', 7)];

  it('stay as the server lists them, or are put in order of names as people count, or of what waits', () => {
    expect(names(inOrder(all, 'newest', ''))).toEqual(['Job 10', 'job 2', 'Shop']);
    expect(names(inOrder(all, 'name', ''))).toEqual(['job 2', 'Job 10', 'Shop']);
    expect(names(inOrder(all, 'to-review', ''))).toEqual(['job 2', 'Shop', 'Job 10']);
  });

  it('are searched by name', () => {
    expect(names(inOrder(all, 'newest', 'sho'))).toEqual(['Shop']);
  });
});
