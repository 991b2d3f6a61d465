import { useState } from 'react';
import { Link } from 'wouter';
import type { Destination } from '../api/client';
import { useDestinations } from '../api/queries';
import { Button, Key } from '../design/Button';
import { needs } from '../design/needs';
import { SlotShape } from '../design/SlotShape';
import { useHead, useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';

/** The slots that must be filled: a destination is ticked whole, or slot by slot. */
export function SlotsSheet({ onClose }: { onClose?: () => void }) {
  const store = useJobStore();
  const head = useHead();
  const destinations = useDestinations();
  // A tick shows at once; the server's answer takes its place.
  const [ticking, setTicking] = useState<Set<string> | null>(null);
  const chosen = ticking ?? new Set(head.slots.map((slot) => slot.address));
  const all =
    destinations.data?.map((destination) => ({
      ...destination,
      // What was retired is offered no longer, but stays where a job has it.
      slots: destination.slots.filter(
        (slot) => !slot.retired || chosen.has(`${destination.key}/${slot.key}`),
      ),
    })) ?? [];
  const set = (wanted: Set<string>) => {
    const [on, off] = [
      [...wanted].filter((one) => !chosen.has(one)),
      [...chosen].filter((one) => !wanted.has(one)),
    ];
    setTicking(wanted);
    void Promise.all([on.length > 0 && store.tick(on, true), off.length > 0 && store.tick(off, false)]).then(
      () => setTicking((now) => (now === wanted ? null : now)),
    );
  };
  return (
    <aside
      className="flex w-[348px] shrink-0 flex-col border-l border-line bg-sheet max-md:w-full"
      aria-label={t('bench.slots')}
    >
      <header className="flex items-center gap-2 border-b border-line px-5 py-3">
        <h2 className="text-head">{t('bench.slots')}</h2>
        <span className="text-ink-2">{t('bench.sizeChosen', { size: chosen.size })}</span>
        <span className="flex-1" />
        {onClose && (
          <Button onClick={onClose}>
            {t('bench.close')} <Key>S</Key>
          </Button>
        )}
      </header>
      <div className="relative min-h-0 flex-1 overflow-y-auto px-5 pb-4">
        {destinations.isError && <p className="py-4 text-breaks">{destinations.error.message}</p>}
        {all
          .filter((destination) => destination.slots.length > 0)
          .map((destination) => (
            <DestinationSlots key={destination.key} destination={destination} chosen={chosen} onSet={set} />
          ))}
        <p className="mt-4 text-ink-2">
          {t('bench.needAnotherPlace')}{' '}
          <Link href="/destinations" className="text-accent underline underline-offset-2">
            {t('bench.addADestination')}
          </Link>
        </p>
      </div>
    </aside>
  );
}

function DestinationSlots({
  destination,
  chosen,
  onSet,
}: {
  destination: Destination;
  chosen: ReadonlySet<string>;
  onSet: (wanted: Set<string>) => void;
}) {
  const addresses = destination.slots.map((slot) => `${destination.key}/${slot.key}`);
  const ticked = addresses.filter((one) => chosen.has(one)).length;
  const tick = (some: readonly string[], on: boolean) => {
    const wanted = new Set(chosen);
    for (const one of some)
      if (on) wanted.add(one);
      else wanted.delete(one);
    onSet(wanted);
  };
  const box = 'h-4 w-4 accent-(--pm-accent)';
  return (
    <fieldset className="mt-3">
      <legend className="sr-only">{destination.name}</legend>
      <label className="flex items-center gap-2 border-b border-line py-1.5 font-semibold">
        <input
          type="checkbox"
          className={box}
          checked={ticked === addresses.length}
          ref={(input) => {
            if (input) input.indeterminate = ticked > 0 && ticked < addresses.length;
          }}
          onChange={(event) => tick(addresses, event.target.checked)}
        />
        {destination.name}
      </label>
      {destination.slots.map((slot, i) => (
        <label
          key={slot.key}
          className="grid grid-cols-[16px_52px_1fr] items-center gap-2 border-b border-line/60 py-1 pl-5 hover:bg-sheet-2"
        >
          <input
            type="checkbox"
            className={box}
            checked={chosen.has(addresses[i]!)}
            aria-label={`${slot.name}, ${destination.name}`}
            onChange={(event) => tick([addresses[i]!], event.target.checked)}
          />
          <SlotShape slot={slot} fallback={1.5} />
          <span>
            <span className="block leading-tight font-medium">{slot.name}</span>
            <span className="block text-note text-ink-2">{needs(slot)}</span>
          </span>
        </label>
      ))}
    </fieldset>
  );
}
