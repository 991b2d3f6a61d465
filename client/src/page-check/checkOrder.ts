import type { PageCheck } from '../api/client';

/** The orders in which page checks are listed. */
export type CheckOrder = 'newest' | 'gain';

/** What a screen would load less in the mean, in bytes; 0 while that is not known. */
export const gainOf = ({ mean, possible }: Pick<PageCheck, 'mean' | 'possible'>) =>
  mean != null && possible != null ? Math.max(0, mean - possible) : 0;

/** The checks in order; the server lists the newest first. */
export const inOrder = (checks: readonly PageCheck[], order: CheckOrder): readonly PageCheck[] =>
  order === 'newest' ? checks : checks.toSorted((a, b) => gainOf(b) - gainOf(a));
