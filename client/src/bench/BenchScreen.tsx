import { useState } from 'react';
import { useSearchParams } from 'wouter';
import { useShortcuts } from '../design/useShortcuts';
import { useHead } from '../jobs/useJob';
import { EmptyBench } from './EmptyBench';
import { FullBench } from './FullBench';
import { type Reason } from './ReviewFilter';
import { SlotsSheet } from './SlotsSheet';
import { Wall } from './Wall';

/** Home of a job: every picture in every slot, what fails marked; only the exceptions are set by hand. */
export function BenchScreen({ onChoose }: { onChoose: () => void }) {
  const head = useHead();
  const empty = head.pictures.length === 0 || head.slots.length === 0;
  // Whoever begins with an empty job goes on ticking.
  const [places, setPlaces] = useState(empty);
  const [search, setSearch] = useSearchParams();
  const reason = search.get('reason') as Reason | null;
  const setReason = (next: Reason | null) => setSearch(next ? { reason: next } : {}, { replace: true });
  useShortcuts({ r: onChoose, s: () => setPlaces((open) => !open) });

  return (
    <div className={`flex h-full min-h-0 ${empty ? 'max-md:flex-col max-md:overflow-y-auto' : ''}`}>
      {empty ? (
        <EmptyBench onChoose={onChoose} />
      ) : reason ? (
        <Wall reason={reason} onReason={setReason} />
      ) : (
        <FullBench
          onChoose={onChoose}
          places={places}
          onPlaces={() => setPlaces(!places)}
          onReason={setReason}
        />
      )}
      {(places || empty) && <SlotsSheet onClose={empty ? undefined : () => setPlaces(false)} />}
    </div>
  );
}
