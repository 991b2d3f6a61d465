import type { PageFaultCode } from '../api/client';
import { t } from '../texts/texts';

/** Each fault in two or three words; what to do stands in its sentence. */
export const faultWords: Record<PageFaultCode, string> = {
  missing: t('pageCheck.missing'),
  'too-large': t('pageCheck.tooManyPixels'),
  heavy: t('pageCheck.tooHeavy'),
  'old-type': t('pageCheck.olderType'),
  'one-size': t('pageCheck.oneSizeForAll'),
  enlarged: t('pageCheck.enlarged'),
  squashed: t('pageCheck.squashed'),
  'no-size': t('pageCheck.noSpaceReserved'),
  'no-alt': t('pageCheck.noAlternativeText'),
  'lazy-first': t('pageCheck.loadedTooLate'),
  'eager-below': t('pageCheck.loadedTooEarly'),
};
