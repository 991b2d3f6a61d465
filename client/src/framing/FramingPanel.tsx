import { useEffect, useMemo } from 'react';
import type { Cell, Decisions, JobPicture, JobSlot } from '../api/client';
import { useCellDetail } from '../api/queries';
import { Breakpoints } from '../design/Breakpoints';
import { KeyButton } from '../design/Button';
import { useElementSize } from '../design/useElementSize';
import { type Box, withFigure } from '../domain/box';
import { decisionFor } from '../domain/decisions';
import { useCells, useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';
import { arranged } from './arranged';
import { dressedFile } from './dressedFile';
import { FigureField } from './FigureField';
import { SlotHeading } from './SlotHeading';
import { SlotResult } from './SlotResult';
import { SlotWindow } from './SlotWindow';
import { useInHand } from './useInHand';

/** All slots of the picture at a glance, in two columns, and the active one in figures. */
export function FramingPanel({
  picture,
  slot,
  slots,
  boxes,
  decisions,
  cell,
  held,
  ahead,
  byHand,
  onPoint,
  onActive,
  onHold,
  onCommit,
  onAutomatic,
  onLoose,
  onTie,
  onAccept,
  onSkip,
  onNextLook,
  onWeigh,
}: {
  picture: JobPicture;
  slot: JobSlot;
  slots: readonly JobSlot[];
  boxes: ReadonlyMap<string, Box>;
  decisions: Decisions;
  cell: Cell | undefined;
  held: boolean;
  /** While a frame is held: the files it would come to. */
  ahead: Cell['files'] | null;
  byHand: boolean;
  /** The slot that is pointed at, so that its frame shows on the picture. */
  onPoint: (address: string | null) => void;
  onActive: (address: string) => void;
  onHold: (address: string, box: Box) => void;
  onCommit: (address: string, box: Box) => void;
  onAutomatic: () => void;
  onLoose: () => void;
  onTie: () => void;
  onAccept: () => void;
  onSkip: () => void;
  onNextLook: () => void;
  onWeigh: () => void;
}) {
  const store = useJobStore();
  const cells = useCells();
  const id = picture.picture.id;
  const [list, room] = useElementSize<HTMLUListElement>();
  const large = useInHand(slot.address);
  const { sizes, columns } = useMemo(() => {
    const shapes = slots.map((one) => cells.at(id, one.address) ?? one.slot);
    return arranged(
      shapes,
      slots.findIndex((one) => one.address === large),
      room ?? { width: 372, height: 460 },
    );
  }, [slots, cells, id, room, large]);
  const detail = useCellDetail(store.id, cell);
  const box = boxes.get(slot.address)!;
  const decision = decisionFor(decisions, slot.address);
  const kin = slots.filter(
    (one) => one.slot.shapeKey === slot.slot.shapeKey && !decisionFor(decisions, one.address).unlinked,
  );
  const group = slots.filter(
    (one) =>
      slot.slot.group != null && one.destination === slot.destination && one.slot.group === slot.slot.group,
  );
  useEffect(() => {
    list.current
      ?.querySelector(`[data-slot="${CSS.escape(slot.address)}"]`)
      ?.scrollIntoView({ block: 'nearest' });
  }, [slot.address, list]);
  const field = (name: string, key: keyof Box, most: number) => (
    <FigureField
      name={name}
      value={box[key]}
      most={most}
      onSet={(value) => onCommit(slot.address, withFigure(box, key, value, picture, slot.slot.ratio))}
    />
  );
  return (
    <aside className="flex min-h-0 flex-col border-l border-line bg-sheet" aria-label={t('framing.slots')}>
      <ul
        ref={list}
        className="grid min-h-0 flex-1 content-start overflow-y-auto p-1.5"
        style={{ gridTemplateColumns: columns }}
        aria-label={t('framing.allSlotsOfThisPicture')}
      >
        {slots.map((one, i) => {
          const its = cells.at(id, one.address);
          return (
            <SlotWindow
              key={one.address}
              picture={picture}
              slot={one}
              box={boxes.get(one.address)!}
              width={sizes[i]!.width}
              height={sizes[i]!.height}
              active={one.address === slot.address}
              unlinked={decisionFor(decisions, one.address).unlinked}
              skipped={decisionFor(decisions, one.address).skip || one.slot.pair != null}
              verdict={its?.verdict ?? 'meets'}
              wants={(its?.toReview.length ?? 0) > 0}
              made={held ? null : dressedFile(one, its, decisions)}
              onPoint={onPoint}
              onActive={onActive}
              onHold={onHold}
              onCommit={onCommit}
            />
          );
        })}
      </ul>
      <section className="border-t border-line px-4 pt-2.5 pb-3" aria-label={t('framing.theActiveSlot')}>
        <SlotHeading slot={slot} />
        {group.length > 1 && (
          <div className="mt-2" data-testid="breakpoints">
            <Breakpoints
              slots={group.map((one) => one.slot)}
              active={slot.slot}
              onPick={(picked) => onActive(group.find((one) => one.slot === picked)!.address)}
            />
          </div>
        )}
        <SlotResult cell={cell} detail={detail.data} ahead={held ? (ahead ?? []) : null} />
        <div className="mt-2 grid grid-cols-4 gap-2">
          {field(t('framing.left'), 'x', picture.width)}
          {field(t('framing.top'), 'y', picture.height)}
          {field(t('framing.width'), 'width', picture.width)}
          {field(t('framing.height'), 'height', picture.height)}
        </div>
        <p className="mt-1.5 text-small text-ink-2" data-testid="tied">
          {byHand ? t('framing.framedByHand') : t('framing.framedAutomatically')}{' '}
          {decision.unlinked
            ? t('framing.notLinked')
            : kin.length > 1
              ? t('framing.linkedWith', { count: kin.length - 1 })
              : ''}
        </p>
        <div className="mt-2 grid grid-cols-3 gap-1.5">
          {decision.unlinked ? (
            <KeyButton className="h-7!" name={t('framing.linkAgain')} k="T" act={onTie} />
          ) : (
            <KeyButton
              className="h-7!"
              name={t('framing.unlink')}
              title={t('framing.unlinkFromItsShape')}
              k="L"
              act={onLoose}
            />
          )}
          <KeyButton className="h-7!" name={t('framing.automatic')} k="0" act={onAutomatic} off={!byHand} />
          <KeyButton
            className="h-7!"
            name={decision.skip ? t('framing.include') : t('framing.skip')}
            k="X"
            act={onSkip}
          />
          <KeyButton
            className="h-7!"
            name={t('framing.accept')}
            k="A"
            act={onAccept}
            off={!cell || cell.toReview.length === 0}
          />
          <KeyButton className="h-7!" name={t('framing.next')} k="E" act={onNextLook} />
          <KeyButton
            className="h-7!"
            name={t('framing.weigh')}
            k="G"
            act={onWeigh}
            off={decision.skip}
            main
          />
        </div>
      </section>
    </aside>
  );
}
