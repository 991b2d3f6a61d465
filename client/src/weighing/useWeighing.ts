import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, type Choice, type FileType, type JobPicture, type JobSlot, take } from '../api/client';
import { decisionFor, descriptorsOf } from '../domain/decisions';
import { cellKey } from '../domain/jobState';
import { useJob, useJobStore } from '../jobs/useJob';
import { useCurves } from './useCurves';

/** Which file is looked at: its density or width, and the type and quality where somebody chose them. */
export interface TriedFile {
  descriptor: string;
  format: FileType | null;
  quality: number | null;
}

/** A file of a picture in a slot as it was decided or as it is tried, and its curves. */
export type WeighingState = ReturnType<typeof useWeighing>;

export function useWeighing(picture: JobPicture, slot: JobSlot) {
  const store = useJobStore();
  const id = picture.picture.id;
  const cell = useJob((job) => job.cells.get(cellKey(id, slot.address)));
  const mine = decisionFor(picture.decisions, slot.address).choice;
  const decided: Choice = mine ?? slot.choice ?? { format: null, quality: null };
  const [chosen, setDescriptor] = useState<string | null>(null);
  const descriptors = descriptorsOf(cell, slot);
  const descriptor = chosen && descriptors.includes(chosen) ? chosen : descriptors.at(-1)!;
  // What is being looked at; null is what was decided.
  const [trial, setTrial] = useState<Choice | null>(null);
  const [worst, setWorst] = useState(0);
  const [others, setOthers] = useState(false);
  const choice = trial ?? decided;
  const tried: TriedFile = { descriptor, ...choice };
  const skipped = cell?.state === 'skipped';
  const path = { id: store.id, picture: id, destination: slot.destination, slot: slot.slot.key };
  // Another frame, turn or rule makes another file.
  const frame = `${picture.shown}/${cell?.frame.join()}/${cell?.width}x${cell?.height}`;
  const variant = useQuery({
    queryKey: ['trial', store.id, id, slot.address, frame, tried, slot.slot],
    queryFn: ({ signal }) =>
      take(
        api.POST('/api/jobs/{id}/cells/{picture}/{destination}/{slot}/trial', {
          params: { path },
          body: tried,
          signal,
        }),
      ),
    enabled: cell !== undefined && !skipped,
    placeholderData: (previous) => previous,
    staleTime: Infinity,
  });
  const file = variant.data?.file ?? null;
  const curves = useCurves(
    store.id,
    picture.picture,
    slot,
    descriptor,
    frame,
    cell !== undefined && !skipped,
    others,
    file,
  );

  const keep = (where: 'cell' | 'slot' | 'all') => {
    const kept = choice.format === null && choice.quality === null ? null : choice;
    const sent = store.send([
      where === 'cell'
        ? { do: 'choose', picture: id, slot: slot.address, choice: kept }
        : { do: 'choose-for-slots', slots: where === 'slot' ? [slot.address] : null, choice: kept },
    ]);
    void sent.then((done) => done && setTrial(null));
  };
  return {
    ...{ cell, skipped, descriptor, setDescriptor, trial, setTrial, choice, tried },
    ...{ variant, file, curves, worst, setWorst, others, setOthers, keep },
  };
}
