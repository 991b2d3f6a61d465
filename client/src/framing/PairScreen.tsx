import { useEffect } from 'react';
import { addresses, type Cell, type JobPicture, type JobSlot } from '../api/client';
import { Button, Key } from '../design/Button';
import { Crop } from '../design/Crop';
import { Notice } from '../design/Notice';
import { useElementSize } from '../design/useElementSize';
import { useShortcuts } from '../design/useShortcuts';
import { benchActions, type Chosen } from '../jobs/actions';
import { cellKey } from '../domain/jobState';
import { useHead, useJob, useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';
import { Panel, Parts } from './PairParts';
import { useGoing } from './useGoing';

/** Pictures side by side: what they come to in each place that takes them, and the way to each of them. */
export function PairScreen({ picture, slot: asked }: { picture: JobPicture; slot: JobSlot }) {
  const head = useHead();
  const slots = head.slots.filter((one) => one.slot.pair === picture.parts!.length);
  const slot = slots.find((one) => one.address === asked.address) ?? slots[0];
  return slot ? (
    <Pair picture={picture} slot={slot} slots={slots} />
  ) : (
    <Notice>{t('framing.noSlotOfThisJobCombines', { n: picture.parts!.length })}</Notice>
  );
}

function Pair({ picture, slot, slots }: { picture: JobPicture; slot: JobSlot; slots: readonly JobSlot[] }) {
  const store = useJobStore();
  const id = picture.picture.id;
  const going = useGoing(picture, slot, slots);
  const cell = useJob((job) => job.cells.get(cellKey(id, slot.address)));
  useEffect(() => store.lookAt([id], [slot.address]), [store, id, slot.address]);
  const chosen: Chosen[] = cell ? [{ picture, slot, cell }] : [];
  const accept = () => void benchActions.accept(store, chosen);
  const skip = () => void benchActions.skip(store, chosen);
  useShortcuts({
    escape: going.bench,
    b: going.bench,
    a: accept,
    x: skip,
    e: going.nextToReview,
    n: (event) => going.neighbour(event.shiftKey ? -1 : 1),
    'shift+n': () => going.neighbour(-1),
    '.': () => going.nextSlot(1),
    ',': () => going.nextSlot(-1),
    o: going.over,
    g: going.weigh,
  });
  return (
    <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_clamp(348px,31vw,396px)]">
      <div className="grid min-h-0 grid-rows-[auto_1fr_auto]">
        <div className="flex items-center gap-1.5 border-b border-line bg-sheet px-5 py-2">
          <h1 className="min-w-0 flex-1 wrap-anywhere text-head">{picture.words ?? picture.picture.name}</h1>
          <Button className="h-7!" onClick={going.over} title={t('framing.titleFadeAndColoursShownOn')}>
            {t('framing.textAndOverlay')} <Key>O</Key>
          </Button>
          <Button className="h-7!" onClick={() => going.neighbour(1)} title={t('framing.theNextPicture')}>
            {t('framing.nextPicture')} <Key>N</Key>
          </Button>
        </div>
        <Together picture={picture} slot={slot} cell={cell} />
        <Parts picture={picture} onFrame={going.frame} onGo={going.here} />
      </div>
      <Panel
        picture={picture}
        slot={slot}
        slots={slots}
        cell={cell}
        onActive={going.activate}
        onAccept={accept}
        onSkip={skip}
        onNextToReview={going.nextToReview}
        onWeigh={going.weigh}
      />
    </div>
  );
}

/** The file as it is handed over; until it is made, the pictures whole beside each other. */
function Together({ picture, slot, cell }: { picture: JobPicture; slot: JobSlot; cell: Cell | undefined }) {
  const [room, size] = useElementSize<HTMLDivElement>();
  const file = cell?.files.findLast((one) => one.made);
  const shape = file ?? cell ?? slot.slot;
  const scale = size ? Math.min((size.width - 48) / shape.width, (size.height - 48) / shape.height) : 0;
  const [width, height] = [shape.width * scale, shape.height * scale];
  return (
    <div ref={room} className="relative grid min-h-0 place-items-center overflow-hidden" data-testid="stage">
      {size && cell && (
        <div className="relative outline-1 outline-line" style={{ width, height }}>
          {file && cell.state === 'done' ? (
            <img
              src={addresses.file(file.id)}
              alt={t('framing.nameAsDelivered', { name: picture.picture.name })}
              className="block h-full w-full"
            />
          ) : (
            <Crop
              picture={picture}
              slot={slot.slot}
              frame={cell.frame}
              width={width}
              height={height}
              side={1800}
            />
          )}
        </div>
      )}
    </div>
  );
}
