import type { Slot } from '../api/client';
import { widestViewportValues } from '../api/schema';
import { count, sentence, weight } from './figures';

/** What a slot asks for, in one line. */
export function needs(slot: Slot): string {
  const parts = [sentence(slot.size)];
  const densities = slot.densities.filter((density) => density !== 1);
  if (slot.responsive) parts.push(`${slot.descriptors.length} widths`);
  else if (densities.length > 0) parts.push(densities.map((density) => `${density}x`).join(', '));
  if (slot.maxBytes != null) parts.push(`under ${weight(slot.maxBytes)}`);
  return parts.join(' · ');
}

/** The windows at which a slot of a group is shown: "960 px and wider". */
export function windows(slot: Slot): string {
  return slot.shownAt
    .map(({ from, to }) =>
      from === 0
        ? `up to ${count(to)} px`
        : to >= widestViewportValues[0]!
          ? `from ${count(from)} px`
          : `${count(from)} to ${count(to)} px`,
    )
    .join(', ');
}
