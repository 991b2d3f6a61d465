import type { JobSlot } from '../api/client';
import { needs } from '../design/needs';

/** A slot by its name, whose it is and what it takes. */
export function SlotHeading({ slot }: { slot: JobSlot }) {
  return (
    <>
      <h2 className="flex items-baseline gap-2">
        <span className="wrap-anywhere">{slot.slot.name}</span>
        <span className="wrap-anywhere font-normal text-ink-2">{slot.destinationName}</span>
      </h2>
      <p className="wrap-anywhere text-small text-ink-2" title={needs(slot.slot)}>
        {needs(slot.slot)}
      </p>
    </>
  );
}
