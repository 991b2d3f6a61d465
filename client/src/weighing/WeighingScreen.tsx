import { useQuery } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { useLocation } from 'wouter';
import { api, type Choice, type FileType, type JobPicture, type JobSlot, take } from '../api/client';
import { useShortcuts } from '../design/useShortcuts';
import { sentence } from '../design/figures';
import { Notice } from '../design/Notice';
import { decisionFor, descriptorsOf } from '../domain/decisions';
import { JobBar } from '../jobs/JobBar';
import { cellKey } from '../domain/jobState';
import { useHead, useJob, useJobStore } from '../jobs/useJob';
import { Compare } from './Compare';
import { Curves } from './Curves';
import { useCurves } from './useCurves';
import { SmallCopy } from './SmallCopy';
import { WeighingPanel } from './WeighingPanel';
import { t } from '../texts/texts';

export interface Wish {
  descriptor: string;
  format: FileType | null;
  quality: number | null;
}

/** One variant on the beam: before and after, the weight against the likeness, and the choice. */
export function WeighingScreen({ pictureId, address }: { pictureId: string; address: string }) {
  const head = useHead();
  const picture = head.pictures.find((one) => one.picture.id === pictureId);
  const slot = head.slots.find((one) => one.address === address);
  return (
    <div className="grid h-full min-h-0 grid-rows-[auto_1fr]">
      <div>
        <JobBar stage="weighing" at={{ picture: pictureId, slot: address }} />
      </div>
      {!picture || !slot ? (
        <Notice>{picture ? t('weighing.thisSlotIsNotInThe') : t('weighing.thisPictureIsNotInThe')}</Notice>
      ) : (
        <Weighing key={`${pictureId}/${address}`} picture={picture} slot={slot} />
      )}
    </div>
  );
}

function Weighing({ picture, slot }: { picture: JobPicture; slot: JobSlot }) {
  const store = useJobStore();
  const head = useHead();
  const [, go] = useLocation();
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
  const wish: Wish = { descriptor, ...choice };
  const skipped = cell?.state === 'skipped';
  const path = { id: store.id, picture: id, destination: slot.destination, slot: slot.slot.key };
  // Another frame, turn or rule makes another file.
  const frame = `${picture.shown}/${cell?.frame.join()}/${cell?.width}x${cell?.height}`;
  const variant = useQuery({
    queryKey: ['trial', store.id, id, slot.address, frame, wish, slot.slot],
    queryFn: ({ signal }) =>
      take(
        api.POST('/api/jobs/{id}/cells/{picture}/{destination}/{slot}/trial', {
          params: { path },
          body: wish,
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

  const quality = choice.quality ?? file?.quality ?? null;
  const pick = useCallback(
    (format: FileType, picked: number | null) => setTrial({ format, quality: picked }),
    [],
  );
  const step = (by: number) => () => {
    if (quality === null) return;
    setTrial({ format: choice.format, quality: Math.min(100, Math.max(1, quality + by)) });
  };
  const automatic = () => setTrial({ format: null, quality: null });
  const keep = (where: 'cell' | 'slot' | 'all') => {
    const kept = choice.format === null && choice.quality === null ? null : choice;
    const sent = store.send([
      where === 'cell'
        ? { do: 'choose', picture: id, slot: slot.address, choice: kept }
        : { do: 'choose-for-slots', slots: where === 'slot' ? [slot.address] : null, choice: kept },
    ]);
    void sent.then((done) => done && setTrial(null));
  };
  const neighbour = (by: number) => {
    const index = head.pictures.findIndex((one) => one.picture.id === id);
    const next = head.pictures[(index + by + head.pictures.length) % head.pictures.length]!;
    go(`/job/${store.id}/weighing/${next.picture.id}/${slot.address}`);
  };
  useShortcuts({
    '+': step(1),
    '=': step(1),
    '-': step(-1),
    a: automatic,
    o: () => setOthers((shown) => !shown),
    w: () => setWorst((times) => times + 1),
    d: () => document.querySelector<HTMLAnchorElement>('a[data-download]')?.click(),
    '1': () => keep('cell'),
    '2': () => keep('slot'),
    '3': () => keep('all'),
    n: (event) => neighbour(event.shiftKey ? -1 : 1),
    f: () => go(`/job/${store.id}/framing/${id}?slot=${slot.address}`),
    b: () => go(`/job/${store.id}`),
    g: () => go(`/job/${store.id}/handing-over`),
    escape: () => (trial ? setTrial(null) : go(`/job/${store.id}`)),
  });
  return (
    <div className="grid min-h-0 grid-cols-[1fr_348px]">
      <div className="grid min-h-0 grid-rows-[1fr_196px]">
        {skipped ? (
          <Notice>{t('weighing.thisPictureIsSkippedInThis')}</Notice>
        ) : variant.isError ? (
          <Notice>{variant.error.message}</Notice>
        ) : variant.data && !file ? (
          <Notice>{variant.data.reasons.map((reason) => sentence(reason.message)).join(' ')}</Notice>
        ) : (
          <Compare
            file={file}
            meanwhile={
              cell && <SmallCopy picture={picture} slot={slot} cell={cell} descriptor={descriptor} />
            }
            working={variant.isFetching}
            worst={worst}
          />
        )}
        <Curves
          curves={curves}
          slot={slot.slot}
          file={file}
          original={picture.picture.bytes}
          others={others}
          onOthers={() => setOthers(!others)}
          onPick={pick}
        />
      </div>
      <WeighingPanel
        picture={picture}
        slot={slot}
        cell={cell}
        variant={variant.data ?? null}
        working={variant.isFetching}
        wish={wish}
        tried={trial !== null}
        onDescriptor={setDescriptor}
        onTry={setTrial}
        onKeep={keep}
        onAutomatic={automatic}
        onWorst={() => setWorst((times) => times + 1)}
      />
    </div>
  );
}
