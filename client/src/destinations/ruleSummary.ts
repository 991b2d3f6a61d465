import type { Destination, Slot, SlotType } from '../api/client';

/** Two slots that ask for nearly the same, so that one could do for both. */
export interface NearlyAlike {
  one: string;
  other: string;
  /** By how much the shapes differ, as a fraction; 0 for one shape. */
  shape: number;
  /** By how much the widths differ, as a fraction of the larger. */
  width: number;
}

/** What the rules ask for as a whole; retired slots are not counted. */
export interface RuleSummary {
  destinations: number;
  slots: number;
  /** Files that one picture becomes in all slots. */
  files: number;
  /** The most that these may weigh together, in bytes, as far as slots have a limit. */
  bytes: number;
  /** Slots without a limit. */
  unlimited: number;
  smallest: Slot | null;
  largest: Slot | null;
  /** How many slots take each type, the most common first. */
  types: [SlotType, number][];
  nearlyAlike: NearlyAlike[];
}

/** Slots of nearly one shape crop nearly alike: up to 3 per cent. */
const nearShape = 0.03;

/** Widths so near to each other differ by no more than a person sees: up to 12 per cent. */
const nearWidth = 0.12;

const filesOf = (slot: Slot) => Math.max(1, slot.descriptors.length);

export function summaryOf(destinations: readonly Destination[]): RuleSummary {
  const all = destinations.flatMap((one) =>
    one.slots.filter((slot) => !slot.retired).map((slot) => ({ slot, name: `${slot.name}, ${one.name}` })),
  );
  const bySize = all.map(({ slot }) => slot).toSorted((a, b) => a.width * a.height - b.width * b.height);
  const types = new Map<SlotType, number>();
  for (const { slot } of all) for (const type of slot.types) types.set(type, (types.get(type) ?? 0) + 1);
  return {
    destinations: destinations.filter((one) => one.slots.some((slot) => !slot.retired)).length,
    slots: all.length,
    files: all.reduce((sum, { slot }) => sum + filesOf(slot), 0),
    bytes: all.reduce((sum, { slot }) => sum + (slot.maxBytes ?? 0) * filesOf(slot), 0),
    unlimited: all.filter(({ slot }) => slot.maxBytes == null).length,
    smallest: bySize[0] ?? null,
    largest: bySize.at(-1) ?? null,
    types: [...types].toSorted((a, b) => b[1] - a[1]),
    nearlyAlike: nearlyAlike(all),
  };
}

function nearlyAlike(all: readonly { slot: Slot; name: string }[]): NearlyAlike[] {
  const found: NearlyAlike[] = [];
  all.forEach(({ slot: a, name: one }, i) => {
    for (const { slot: b, name: other } of all.slice(i + 1)) {
      if (a.shape == null || b.shape == null || a.fit !== b.fit) continue;
      const shape = Math.abs(a.shape - b.shape) / Math.max(a.shape, b.shape);
      const width = Math.abs(a.width - b.width) / Math.max(a.width, b.width);
      if (shape <= nearShape && width <= nearWidth) found.push({ one, other, shape, width });
    }
  });
  return found.toSorted((a, b) => a.shape + a.width - (b.shape + b.width));
}
