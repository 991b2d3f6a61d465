import type { LikenessWord } from '../api/client';
import { t } from '../texts/texts';

/** A likeness as people read it. */
export const likenessWords: Record<LikenessWord, string> = {
  noDifference: t('common.noDifferenceAt100'),
  hardToSee: t('common.hardToSee'),
  slight: t('common.slightDifference'),
  visible: t('common.visibleDifference'),
  rough: t('common.rough'),
};
