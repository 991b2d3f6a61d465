import { useEffect } from 'react';
import { addresses, type Cell, type JobPicture, type JobSlot } from '../api/client';
import { useCellDetail } from '../api/queries';
import { useShortcuts } from '../design/useShortcuts';
import { benchActions, type Chosen } from '../jobs/actions';
import { Button, Key, KeyButton } from '../design/Button';
import { Crop } from '../design/Crop';
import { Notice } from '../design/Notice';
import { VerdictMark } from '../design/VerdictMark';
import { decisionFor } from '../domain/decisions';
import { cellKey } from '../jobs/JobStore';
import { useCells, useHead, useJob, useJobStore } from '../jobs/useJob';
import { SlotResult } from './SlotResult';
import { SlotHeading } from './SlotHeading';
import { useElementSize } from '../design/useElementSize';
import { useGoing } from './useGoing';
import { t } from '../texts/texts';

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
    e: going.nextLook,
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
          <h1 className="min-w-0 flex-1 truncate text-head">{picture.words ?? picture.picture.name}</h1>
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
        onNextLook={going.nextLook}
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

/** Each of the pictures, in their order, with the way to its marks. */
function Parts({
  picture,
  onFrame,
  onGo,
}: {
  picture: JobPicture;
  onFrame: (id: string) => void;
  onGo: (id: string) => void;
}) {
  const store = useJobStore();
  const head = useHead();
  const parts = picture.parts!;
  const forward = (at: number) => {
    const next = [...parts];
    [next[at - 1], next[at]] = [next[at]!, next[at - 1]!];
    // In another order they are other pictures side by side.
    void store.pair(next, picture.picture.id).then((made) => made && onGo(made));
  };
  return (
    <ol
      className="flex gap-2 border-t border-line bg-sheet px-5 py-2.5"
      aria-label={t('framing.theCombinedPictures')}
    >
      {parts.map((id, at) => {
        const one = head.pictures.find((other) => other.picture.id === id);
        return (
          <li key={id} className="flex min-w-0 flex-1 items-center gap-2.5">
            {one ? (
              <>
                <img
                  src={addresses.preview(id, one.shown, 480)}
                  alt=""
                  className="h-14 w-16 shrink-0 object-contain"
                />
                <span className="min-w-0">
                  <span className="block truncate font-medium">{one.words ?? one.picture.name}</span>
                  <span className="mt-1 flex gap-1.5">
                    <Button
                      className="h-7!"
                      onClick={() => onFrame(id)}
                      title={t('framing.frameThisPictureTheCombinedPicture')}
                    >
                      {t('framing.frame')}
                    </Button>
                    {at > 0 && (
                      <Button
                        className="h-7! px-2!"
                        onClick={() => forward(at)}
                        aria-label={t('framing.moveNameToTheLeft', { name: one.picture.name })}
                        title={t('framing.moveToTheLeft')}
                      >
                        ←
                      </Button>
                    )}
                  </span>
                </span>
              </>
            ) : (
              <span className="text-breaks">{t('framing.noLongerInThisJob')}</span>
            )}
          </li>
        );
      })}
    </ol>
  );
}

function Panel({
  picture,
  slot,
  slots,
  cell,
  onActive,
  onAccept,
  onSkip,
  onNextLook,
  onWeigh,
}: {
  picture: JobPicture;
  slot: JobSlot;
  slots: readonly JobSlot[];
  cell: Cell | undefined;
  onActive: (address: string) => void;
  onAccept: () => void;
  onSkip: () => void;
  onNextLook: () => void;
  onWeigh: () => void;
}) {
  const store = useJobStore();
  const cells = useCells();
  const detail = useCellDetail(store.id, cell);
  const left = decisionFor(picture.decisions, slot.address).skip;
  return (
    <aside className="flex min-h-0 flex-col border-l border-line bg-sheet" aria-label={t('framing.slots')}>
      <ul
        className="min-h-0 flex-1 overflow-y-auto py-1.5"
        aria-label={t('framing.slotsThatCombineThesePictures')}
      >
        {slots.map((one) => {
          const its = cells.at(picture.picture.id, one.address);
          return (
            <li key={one.address}>
              <button
                type="button"
                aria-pressed={one.address === slot.address}
                onClick={() => onActive(one.address)}
                className={`flex w-full items-center gap-2 px-4 py-1.5 text-left ${one.address === slot.address ? 'bg-sheet-2 font-semibold' : 'hover:bg-sheet-2'}`}
              >
                <VerdictMark verdict={its?.verdict ?? 'meets'} />
                <span className="min-w-0 flex-1 truncate">{one.slot.name}</span>
                <span className="truncate font-normal text-ink-2">{one.destinationName}</span>
              </button>
            </li>
          );
        })}
      </ul>
      <section className="border-t border-line px-4 pt-2.5 pb-3" aria-label={t('framing.theActiveSlot')}>
        <SlotHeading slot={slot} />
        <SlotResult cell={cell} detail={detail.data} />
        <p className="mt-2 text-small text-ink-2">{t('framing.eachPictureIsFramedByIts')}</p>
        <div className="mt-2 grid grid-cols-2 gap-1.5">
          <KeyButton
            className="h-7!"
            name={left ? t('framing.include') : t('framing.skip')}
            k="X"
            act={onSkip}
          />
          <KeyButton
            className="h-7!"
            name={t('framing.accept')}
            k="A"
            act={onAccept}
            off={!cell || cell.looks.length === 0}
          />
          <KeyButton className="h-7!" name={t('framing.next')} k="E" act={onNextLook} />
          <KeyButton className="h-7!" name={t('framing.weigh')} k="G" act={onWeigh} off={left} main />
        </div>
      </section>
    </aside>
  );
}
