import type { Slot } from '../api/client';
import { widestViewportValues } from '../api/schema';
import { count, sentence, weight } from './figures';
import { t } from '../texts/texts';

/** What a slot asks for, in one line. */
export function needs(slot: Slot): string {
  const parts = [sentence(slot.size)];
  const densities = slot.densities.filter((density) => density !== 1);
  if (slot.responsive) parts.push(t('common.descriptorsWidths', { descriptors: slot.descriptors.length }));
  else if (densities.length > 0) parts.push(densities.map((density) => `${density}x`).join(', '));
  if (slot.maxBytes != null) parts.push(t('common.underMaxBytes', { maxBytes: weight(slot.maxBytes) }));
  return parts.join(' · ');
}

/** The windows at which a slot of a group is shown: "960 px and wider". */
export function windows(slot: Slot): string {
  return slot.shownAt
    .map(({ from, to }) =>
      from === 0
        ? t('common.upToPx', { to: count(to) })
        : to >= widestViewportValues[0]!
          ? t('common.fromPx', { from: count(from) })
          : t('common.fromToPx', { from: count(from), to: count(to) }),
    )
    .join(', ');
}
