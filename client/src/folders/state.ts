import type { PictureFolder } from '../api/client';
import { duration, weight } from '../design/figures';
import { t } from '../texts/texts';

/** What is under way with a folder, or how it stands, as a sentence. */
export function stateWords({
  state,
  progress,
  secondsLeft,
  mended,
  trouble,
  outcome,
}: PictureFolder): string {
  const far = progress ? t('folders.doneOfOfPictures', { done: progress.done, of: progress.of }) : '';
  const left =
    secondsLeft === null ? '' : t('folders.secondsLeftLeft', { secondsLeft: duration(secondsLeft) });
  switch (state) {
    case 'receiving':
      return t('folders.receivingTheFiles');
    case 'scanning':
      return t('folders.scanningFar', { far });
    case 'previewing':
      return t('folders.makingThePreviewFar', { far });
    case 'optimising':
      return t('folders.optimisingFarLeft', { far, left });
    case 'restoring':
      return t('folders.restoringOriginalsFar', { far });
    case 'paused':
      return t('folders.pausedLookedPicturesAreDone', { looked: outcome.looked });
    default:
      return (
        trouble ??
        (mended
          ? t('folders.optimisedBeforeSaved', { before: weight(outcome.before - outcome.after) })
          : t('folders.scanned'))
      );
  }
}
