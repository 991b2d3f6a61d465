import { useCellDetail } from '../api/queries';
import { Breakpoints } from '../design/Breakpoints';
import { KeyButton } from '../design/Button';
import { type Box, withFigure } from '../domain/box';
import { decisionFor } from '../domain/decisions';
import { t } from '../texts/texts';
import { FigureField } from './FigureField';
import { SaidAndDone } from './SaidAndDone';
import { SlotHeading } from './SlotHeading';
import { SlotResult } from './SlotResult';
import type { FramingState } from './useFraming';

/** The active slot: what comes of it, its frame in figures, and what can be done. */
export function ActiveSlot({ framing }: { framing: FramingState }) {
  const { store, slot, slots, decisions, cell, held, ahead, byHand, going } = framing;
  const detail = useCellDetail(store.id, cell);
  const { unlinked } = decisionFor(decisions, slot.address);
  const sameShape = slots.filter(
    (one) => one.slot.shapeKey === slot.slot.shapeKey && !decisionFor(decisions, one.address).unlinked,
  );
  const group = slots.filter(
    (one) =>
      slot.slot.group != null && one.destination === slot.destination && one.slot.group === slot.slot.group,
  );
  return (
    <section className="border-t border-line px-4 pt-2.5 pb-3" aria-label={t('framing.theActiveSlot')}>
      <SlotHeading slot={slot} />
      {group.length > 1 && (
        <div className="mt-2" data-testid="breakpoints">
          <Breakpoints
            slots={group.map((one) => one.slot)}
            active={slot.slot}
            onPick={(picked) => going.activate(group.find((one) => one.slot === picked)!.address)}
          />
        </div>
      )}
      <SlotResult cell={cell} detail={detail.data} ahead={held ? (ahead ?? []) : null} />
      <FrameFigures framing={framing} />
      <div className="mt-1.5 flex items-baseline justify-between gap-3 text-small">
        <p className="text-ink-2" data-testid="tied">
          {byHand ? t('framing.framedByHand') : t('framing.framedAutomatically')}{' '}
          {unlinked
            ? t('framing.notLinked')
            : sameShape.length > 1
              ? t('framing.linkedWith', { count: sameShape.length - 1 })
              : ''}
        </p>
        <SaidAndDone job={store.id} picture={framing.picture.picture.id} slot={slot.address} />
      </div>
      <SlotActions framing={framing} />
    </section>
  );
}

function FrameFigures({ framing: { picture, slot, box, commit } }: { framing: FramingState }) {
  const field = (name: string, key: keyof Box, most: number) => (
    <FigureField
      name={name}
      value={box[key]}
      most={most}
      onSet={(value) => commit(slot.address, withFigure(box, key, value, picture, slot.slot.ratio))}
    />
  );
  return (
    <div className="mt-2 grid grid-cols-4 gap-2">
      {field(t('framing.left'), 'x', picture.width)}
      {field(t('framing.top'), 'y', picture.height)}
      {field(t('framing.width'), 'width', picture.width)}
      {field(t('framing.height'), 'height', picture.height)}
    </div>
  );
}

function SlotActions({ framing }: { framing: FramingState }) {
  const { slot, decisions, cell, byHand, actions, going } = framing;
  const { unlinked, skip } = decisionFor(decisions, slot.address);
  const low = 'h-7!';
  return (
    <div className="mt-2 grid grid-cols-3 gap-1.5">
      {unlinked ? (
        <KeyButton needs="edit" className={low} name={t('framing.linkAgain')} k="T" act={actions.link} />
      ) : (
        <KeyButton
          needs="edit"
          className={low}
          name={t('framing.unlink')}
          title={t('framing.unlinkFromItsShape')}
          k="L"
          act={actions.unlink}
        />
      )}
      <KeyButton
        needs="edit"
        className={low}
        name={t('framing.automatic')}
        k="0"
        act={actions.automatic}
        off={!byHand}
      />
      <KeyButton
        needs="edit"
        className={low}
        name={skip ? t('framing.include') : t('framing.skip')}
        k="X"
        act={actions.skip}
      />
      <KeyButton
        needs="edit"
        className={low}
        name={t('framing.accept')}
        k="A"
        act={actions.accept}
        off={!cell || cell.toReview.length === 0}
      />
      <KeyButton className={low} name={t('framing.next')} k="E" act={going.nextToReview} />
      <KeyButton className={low} name={t('framing.weigh')} k="G" act={going.weigh} off={skip} main />
    </div>
  );
}
