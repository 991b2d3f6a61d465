import { useEffect, useMemo } from 'react';
import { useElementSize } from '../design/useElementSize';
import { decisionFor } from '../domain/decisions';
import { useCells } from '../jobs/useJob';
import { standingOf } from '../design/standing';
import { t } from '../texts/texts';
import { arranged } from './arranged';
import { dressedFile } from './dressedFile';
import { SlotWindow } from './SlotWindow';
import type { FramingState } from './useFraming';
import { useInHand } from './useInHand';

/** A window onto the picture for each slot; the one in hand is larger, in a place that it has anyway. */
export function SlotList({ framing }: { framing: FramingState }) {
  const { picture, slot, slots, boxes, decisions, held, setPointed, going, hold, commit } = framing;
  const cells = useCells();
  const id = picture.picture.id;
  const [list, room] = useElementSize<HTMLUListElement>();
  const large = useInHand(slot.address);
  const { sizes, places } = useMemo(() => {
    const shapes = slots.map((one) => cells.at(id, one.address) ?? one.slot);
    return arranged(
      shapes,
      slots.findIndex((one) => one.address === large),
      room ?? { width: 372, height: 460 },
    );
  }, [slots, cells, id, room, large]);
  useEffect(() => {
    list.current
      ?.querySelector(`[data-slot="${CSS.escape(slot.address)}"]`)
      ?.scrollIntoView({ block: 'nearest' });
  }, [slot.address, list]);
  return (
    <ul
      ref={list}
      className="grid min-h-0 flex-1 grid-cols-2 content-start overflow-y-auto p-1.5"
      aria-label={t('framing.allSlotsOfThisPicture')}
    >
      {slots.map((one, i) => {
        const its = cells.at(id, one.address);
        const { unlinked, skip } = decisionFor(decisions, one.address);
        return (
          <SlotWindow
            key={one.address}
            picture={picture}
            slot={one}
            box={boxes.get(one.address)!}
            width={sizes[i]!.width}
            height={sizes[i]!.height}
            place={places[i]!}
            active={one.address === slot.address}
            unlinked={unlinked}
            skipped={skip || one.slot.pair != null}
            verdict={standingOf(its)}
            toReview={(its?.toReview.length ?? 0) > 0}
            made={held ? null : dressedFile(one, its, decisions)}
            onPoint={setPointed}
            onActive={going.activate}
            onHold={hold}
            onCommit={commit}
          />
        );
      })}
    </ul>
  );
}
