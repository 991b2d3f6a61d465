import { useEffect, useMemo } from 'react';
import { useLocation } from 'wouter';
import { Button, Key } from '../design/Button';
import { useShortcuts } from '../design/useShortcuts';
import { actionKeys, type Chosen } from '../jobs/actions';
import { useCells, useHead, useJob, useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';
import { countToReview, type Reason, ReviewFilter } from './ReviewFilter';
import { Tray } from './Tray';
import { useWall, type WallState } from './useWall';
import { keyOf, WallCrop } from './WallCrop';

/**
 * The cells that are to review for one reason, large, in reading order, to be worked off by keys: what is settled leaves, and the next is under
 * the hand. When none is left the bench is there again.
 */
export function Wall({ reason, onReason }: { reason: Reason; onReason: (reason: Reason | null) => void }) {
  const store = useJobStore();
  const head = useHead();
  const cells = useCells();
  const reading = useJob((job) => job.reading);
  const [, go] = useLocation();
  const counts = useMemo(() => countToReview(cells.values(), head), [cells, head]);
  const wall = useWall(reason);
  const { all, held, list, isChosen, click, chosen } = wall;
  const done = all.length === 0 && !reading;
  useEffect(() => {
    if (done) onReason(null);
  }, [done, onReason]);
  const open = ({ picture, slot }: Chosen) =>
    go(`/job/${store.id}/framing/${picture.picture.id}?slot=${slot.address}`);
  useWallKeys(wall, open, () => onReason(null));
  return (
    <div className="grid min-h-0 min-w-0 flex-1 grid-rows-[auto_1fr_auto]">
      <div className="flex flex-wrap items-center gap-x-1.5 gap-y-1 border-b border-line bg-sheet px-5 py-1.5">
        <ReviewFilter counts={counts} reason={reason} reading={reading} onReason={onReason} />
        <span className="flex-1" />
        <Button className="h-7!" onClick={() => onReason(null)}>
          {t('bench.backToTheBench')} <Key>B</Key>
        </Button>
      </div>
      <ul
        ref={list}
        role="listbox"
        aria-multiselectable
        aria-label={t('bench.cellsToReview')}
        className="flex min-h-0 flex-wrap content-start items-start gap-2 overflow-y-auto p-3 select-none"
        data-testid="wall"
      >
        {all.map((item, i) => (
          <WallCrop
            key={keyOf(item)}
            item={item}
            chosen={isChosen(i)}
            held={i === held}
            onClick={click(i)}
            onOpen={() => open(item)}
          />
        ))}
      </ul>
      {chosen.length > 0 && <Tray chosen={chosen} focusAt={wall.point} />}
    </div>
  );
}

function useWallKeys(wall: WallState, open: (one: Chosen) => void, leave: () => void): void {
  const store = useJobStore();
  const [, go] = useLocation();
  const { all, held, low, choose, chooseAll, line, one, chosen, point } = wall;
  useShortcuts({
    arrowleft: (event) => choose(held - 1, event.shiftKey),
    arrowright: (event) => choose(held + 1, event.shiftKey),
    arrowup: (event) => choose(line(-1), event.shiftKey),
    arrowdown: (event) => choose(line(1), event.shiftKey),
    home: (event) => choose(0, event.shiftKey),
    end: (event) => choose(all.length - 1, event.shiftKey),
    'ctrl+a': chooseAll,
    escape: leave,
    b: leave,
    e: () => choose((held + 1) % Math.max(1, all.length), false),
    enter: () => one && open(one),
    w: () => one && go(`/job/${store.id}/weighing/${one.picture.picture.id}/${one.slot.address}`),
    // What is acted on leaves or stays; either way the hand is where it began.
    ...actionKeys(store, chosen, point, () => choose(low, false)),
  });
}
