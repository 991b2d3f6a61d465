import type { JobSummary } from '../api/client';

/** The orders in which jobs are listed. */
export type JobOrder = 'newest' | 'to-review' | 'name';

/** Names as people sort them: 2 before 10, whatever the case. */
export const byName = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** True when every word that was typed begins a word of a name, in any order. */
export function isCalled(name: string, words: string): boolean {
  const parts = name.toLowerCase().split(/[^\p{L}\p{N}]+/u);
  return words
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .every((word) => parts.some((part) => part.startsWith(word)));
}

/** The jobs that are called so, in order; the server lists the newest first. */
export function inOrder(jobs: readonly JobSummary[], order: JobOrder, words: string): JobSummary[] {
  const called = jobs.filter((job) => isCalled(job.name, words));
  if (order === 'newest') return called;
  return called.toSorted((a, b) =>
    order === 'name' ? byName.compare(a.name, b.name) : b.toReview - a.toReview,
  );
}
