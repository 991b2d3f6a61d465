import type { Slot } from '../api/client';

/** A slot's outline in its own shape; dashed where the picture gives the shape. */
export function SlotShape({ slot, fallback }: { slot: Slot; fallback: number }) {
  const ratio = slot.shape ?? fallback;
  const width = Math.min(44, 30 * ratio);
  const height = Math.max(4, width / ratio);
  return (
    <span className="grid h-8 w-11 place-items-center" aria-hidden>
      <span
        className={`border border-ink-2 ${slot.shape == null ? 'border-dashed' : ''} ${slot.fit === 'mat' ? 'p-0.5' : ''}`}
        style={{ width, height }}
      >
        {slot.fit === 'mat' && <span className="block h-full w-full bg-ink-2/40" />}
      </span>
    </span>
  );
}
