import type { Picture, Slot } from '../api/client';
import { useDestinations } from '../api/queries';
import { sentence, weight } from '../design/figures';

/** The places a picture can go to: every slot in its own shape, by destination. Choosing one is the next step. */
export function Places({
  picture,
  onGo,
}: {
  picture: Picture;
  onGo: (destination: string, slot: string) => void;
}) {
  const destinations = useDestinations();
  if (destinations.isError) return <p className="px-5 py-4 text-breaks">{destinations.error.message}</p>;
  return (
    <section className="px-5 pt-4 pb-6" aria-label="Places">
      <h2 className="text-base">Frame it for a place</h2>
      {destinations.data?.map((destination) => (
        <div key={destination.key} className="mt-3">
          <h3 className="mb-1 text-ink-2">{destination.name}</h3>
          <ul className="border-t border-line">
            {destination.slots.map((slot) => (
              <li key={slot.key} className="border-b border-line">
                <button
                  type="button"
                  onClick={() => onGo(destination.key, slot.key)}
                  className="grid w-full grid-cols-[52px_1fr] items-center gap-2 py-1.5 text-left hover:bg-sheet-2"
                >
                  <SlotShape slot={slot} fallback={picture.width / picture.height} />
                  <span>
                    <span className="block font-medium">{slot.name}</span>
                    <span className="block text-[12px] text-ink-2">{needs(slot)}</span>
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </div>
      ))}
    </section>
  );
}

/** What a slot asks for, in one line. */
export function needs(slot: Slot): string {
  const parts = [sentence(slot.size)];
  const densities = slot.densities.filter((density) => density !== 1);
  if (densities.length > 0) parts.push(densities.map((density) => `${density}x`).join(', '));
  if (slot.maxBytes != null) parts.push(`under ${weight(slot.maxBytes)}`);
  return parts.join(' · ');
}

/** A slot's outline in its own shape; dashed where the picture gives the shape. */
function SlotShape({ slot, fallback }: { slot: Slot; fallback: number }) {
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
