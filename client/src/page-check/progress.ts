import type { PageCheck } from '../api/client';
import { t } from '../texts/texts';

/** Where a page check stands, as a sentence. */
export function progressWords({ state, trouble, progress }: PageCheck): string {
  switch (state) {
    case 'receiving':
      return t('pageCheck.receivingTheFiles');
    case 'waiting':
      if (!progress) return t('pageCheck.waiting');
      return progress.making
        ? t('pageCheck.makingLighterFilesDoneOfOf', { done: progress.done, of: progress.of })
        : t('pageCheck.measuringDoneOfOfScreens', { done: progress.done, of: progress.of });
    case 'stopped':
      return t('pageCheck.stopped');
    case 'failed':
      return trouble ?? t('pageCheck.thePageCouldNotBeMeasured');
    default:
      return t('pageCheck.measured');
  }
}
