import { useCallback } from 'react';
import { useLocation } from 'wouter';
import type { FileType, JobPicture, JobSlot } from '../api/client';
import { useShortcuts } from '../design/useShortcuts';
import { sentence } from '../design/figures';
import { Notice } from '../design/Notice';
import { JobBar } from '../jobs/JobBar';
import { useHead, useJobStore } from '../jobs/useJob';
import { Compare } from './Compare';
import { Curves } from './Curves';
import { SmallCopy } from './SmallCopy';
import { useWeighing, type WeighingState } from './useWeighing';
import { WeighingPanel } from './WeighingPanel';
import { t } from '../texts/texts';

/** One variant on the beam: before and after, the weight against the likeness, and the choice. */
export function WeighingScreen({ pictureId, address }: { pictureId: string; address: string }) {
  const head = useHead();
  const picture = head.pictures.find((one) => one.picture.id === pictureId);
  const slot = head.slots.find((one) => one.address === address);
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)]">
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
  const weighing = useWeighing(picture, slot);
  useWeighingKeys(picture, slot, weighing);
  const { cell, trial, setTrial, setDescriptor, tried, variant, file, curves, others, setOthers } = weighing;
  const pick = useCallback(
    (format: FileType, picked: number | null) => setTrial({ format, quality: picked }),
    [setTrial],
  );
  return (
    <div className="grid min-h-0 grid-cols-[1fr_348px]">
      <div className="grid min-h-0 grid-rows-[1fr_196px]">
        <Stage weighing={weighing} picture={picture} slot={slot} />
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
        tried={tried}
        isTrial={trial !== null}
        onDescriptor={setDescriptor}
        onTry={setTrial}
        onKeep={weighing.keep}
        onAutomatic={() => setTrial({ format: null, quality: null })}
        onWorst={() => weighing.setWorst((times) => times + 1)}
      />
    </div>
  );
}

/** The file beside what it was made of; or why there is none. */
function Stage({
  weighing: { skipped, variant, file, cell, descriptor, worst },
  picture,
  slot,
}: {
  weighing: WeighingState;
  picture: JobPicture;
  slot: JobSlot;
}) {
  return skipped ? (
    <Notice>{t('weighing.thisPictureIsSkippedInThis')}</Notice>
  ) : variant.isError ? (
    <Notice>{variant.error.message}</Notice>
  ) : variant.data && !file ? (
    <Notice>{variant.data.reasons.map((reason) => sentence(reason.message)).join(' ')}</Notice>
  ) : (
    <Compare
      file={file}
      meanwhile={cell && <SmallCopy picture={picture} slot={slot} cell={cell} descriptor={descriptor} />}
      working={variant.isFetching}
      worst={worst}
    />
  );
}

function useWeighingKeys(picture: JobPicture, slot: JobSlot, weighing: WeighingState): void {
  const store = useJobStore();
  const head = useHead();
  const [, go] = useLocation();
  const { choice, file, trial, setTrial, setOthers, setWorst, keep } = weighing;
  const id = picture.picture.id;
  const quality = choice.quality ?? file?.quality ?? null;
  const step = (by: number) => () => {
    if (quality === null) return;
    setTrial({ format: choice.format, quality: Math.min(100, Math.max(1, quality + by)) });
  };
  const automatic = () => setTrial({ format: null, quality: null });
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
}
