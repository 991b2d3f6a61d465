import type { JobSlot } from '../api/client';

/** Columns that stand together under one head: a group of a destination, or its slots of one shape. */
export interface ColumnSpan {
  /** The first column and how many there are. */
  first: number;
  count: number;
  /** What they have in common: the group's name, or the shape as it is written; empty for a slot that stands alone. */
  common: string;
  /** The destination's name where its first column is in the span, else empty. */
  destination: string;
}

/** Slots of one group belong together, else those of one shape: they share a frame. A slot whose shape the picture gives stands alone. */
function familyOf({ address, destination, slot }: JobSlot): string {
  if (slot.group) return `${destination} group ${slot.group}`;
  if (slot.pair == null && slot.ratio != null) return `${destination} shape ${slot.ratio.toFixed(4)}`;
  return address;
}

/** The slots in the order of their destinations, those of one family side by side where the first of them stands. */
export function standingTogether(slots: readonly JobSlot[]): JobSlot[] {
  const destinations = new Map<string, Map<string, JobSlot[]>>();
  for (const slot of slots) {
    const families = destinations.get(slot.destination) ?? new Map<string, JobSlot[]>();
    families.set(familyOf(slot), [...(families.get(familyOf(slot)) ?? []), slot]);
    destinations.set(slot.destination, families);
  }
  return [...destinations.values()].flatMap((families) => [...families.values()].flat());
}

/** The heads over slots that stand together. */
export function spansOver(slots: readonly JobSlot[]): ColumnSpan[] {
  const spans: ColumnSpan[] = [];
  slots.forEach((slot, i) => {
    const before = slots[i - 1];
    const last = spans.at(-1);
    if (last && before && familyOf(before) === familyOf(slot)) {
      last.count++;
      last.common = slot.slot.group ?? slot.slot.ratioText ?? '';
    } else
      spans.push({
        first: i,
        count: 1,
        common: slot.slot.group ?? '',
        destination: before?.destination === slot.destination ? '' : slot.destinationName,
      });
  });
  return spans;
}

/** What a head over columns says. */
export const spanWords = ({ destination, common }: ColumnSpan) =>
  [destination, common].filter((one) => one !== '').join(' · ');
