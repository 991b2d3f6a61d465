import { useMemo } from 'react';
import type { JobPicture, JobSlot } from '../api/client';
import { listOr } from '../texts/numbers';
import { t } from '../texts/texts';

/** Whether the chosen pictures can stand side by side; null where no slot of the job takes such, or one picture is chosen. */
export function pairing(pictures: readonly JobPicture[], slots: readonly JobSlot[]) {
  const counts = [...new Set(slots.flatMap(({ slot }) => slot.pair ?? []))].sort();
  if (counts.length === 0 || pictures.length < 2 || pictures.length > 4) return null;
  if (pictures.some((one) => one.parts))
    return { may: false, title: t('bench.thesePicturesAreAlreadyCombinedChoose') };
  return counts.includes(pictures.length)
    ? { may: true, title: t('bench.combineTheChosenPicturesSideBy') }
    : { may: false, title: t('bench.theSlotsOfThisJobCombine', { counts: listOr(counts.map(String)) }) };
}

/** The same object while the sizes are the same: a new one would measure the whole bench again. */
export function useStableLayout<T>(layout: T): T {
  const text = JSON.stringify(layout);
  return useMemo(() => JSON.parse(text) as T, [text]);
}
