import type { LikenessWord } from '../api/client';

/** A likeness as people read it. */
export const likenessWords: Record<LikenessWord, string> = {
  noDifference: 'No difference at 100 %',
  hardToSee: 'Hard to see',
  slight: 'Slight difference',
  visible: 'Visible difference',
  rough: 'Rough',
};
