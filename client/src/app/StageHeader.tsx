import { Link } from 'wouter';
import type { Destination, Picture, Slot } from '../api/client';
import type { Place } from '../api/queries';

const stages = [
  { key: 'framing', name: 'Framing' },
  { key: 'weighing', name: 'Weighing' },
] as const;

/** Where one is: which picture, for which slot, at which stage. */
export function StageHeader({
  place,
  picture,
  destination,
  slot,
  stage,
}: {
  place: Place;
  picture: Picture;
  destination: Destination;
  slot: Slot;
  stage: 'framing' | 'weighing';
}) {
  return (
    <div className="flex h-11 items-center gap-3 border-b border-line bg-sheet px-5">
      <Link href={`/?picture=${picture.id}`} className="text-accent hover:underline">
        Pictures
      </Link>
      <span className="text-ink-2" aria-hidden>
        ╱
      </span>
      <h1 className="flex min-w-0 items-baseline gap-2">
        <span className="max-w-64 truncate" title={picture.name}>
          {picture.name}
        </span>
        <span className="font-normal text-ink-2">for</span>
        <span>{slot.name}</span>
        <span className="font-normal text-ink-2">{destination.name}</span>
      </h1>
      <span className="flex-1" />
      <nav aria-label="Stages" className="flex h-full items-stretch">
        {stages.map(({ key, name }) => (
          <Link
            key={key}
            href={`/picture/${place.id}/${place.destination}/${place.slot}/${key}`}
            aria-current={key === stage ? 'step' : undefined}
            className={`flex items-center border-b-2 px-4 ${key === stage ? 'border-accent font-semibold' : 'border-transparent text-ink-2 hover:text-ink'}`}
          >
            {name}
          </Link>
        ))}
      </nav>
    </div>
  );
}
