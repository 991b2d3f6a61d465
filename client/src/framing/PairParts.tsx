import { addresses, type Cell, type JobPicture, type JobSlot } from '../api/client';
import { useCellDetail } from '../api/queries';
import { Button, KeyButton } from '../design/Button';
import { VerdictMark } from '../design/VerdictMark';
import { decisionFor } from '../domain/decisions';
import { useCells, useHead, useJobStore } from '../jobs/useJob';
import { standingOf } from '../design/standing';
import { t } from '../texts/texts';
import { SlotHeading } from './SlotHeading';
import { SlotResult } from './SlotResult';

/** Each of the pictures, in their order, with the way to its marks. */
export function Parts({
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
                  <span className="block wrap-anywhere font-medium">{one.words ?? one.picture.name}</span>
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

export function Panel({
  picture,
  slot,
  slots,
  cell,
  onActive,
  onAccept,
  onSkip,
  onNextToReview,
  onWeigh,
}: {
  picture: JobPicture;
  slot: JobSlot;
  slots: readonly JobSlot[];
  cell: Cell | undefined;
  onActive: (address: string) => void;
  onAccept: () => void;
  onSkip: () => void;
  onNextToReview: () => void;
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
                <VerdictMark verdict={standingOf(its)} />
                <span className="min-w-0 flex-1 wrap-anywhere">{one.slot.name}</span>
                <span className="wrap-anywhere font-normal text-ink-2">{one.destinationName}</span>
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
            needs="edit"
            className="h-7!"
            name={left ? t('framing.include') : t('framing.skip')}
            k="X"
            act={onSkip}
          />
          <KeyButton
            needs="edit"
            className="h-7!"
            name={t('framing.accept')}
            k="A"
            act={onAccept}
            off={!cell || cell.toReview.length === 0}
          />
          <KeyButton className="h-7!" name={t('framing.next')} k="E" act={onNextToReview} />
          <KeyButton className="h-7!" name={t('framing.weigh')} k="G" act={onWeigh} off={left} main />
        </div>
      </section>
    </aside>
  );
}
