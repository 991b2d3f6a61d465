import { useEffect, useMemo } from 'react';
import { useLocation } from 'wouter';
import { Button, Key } from '../design/Button';
import { useShortcuts } from '../design/useShortcuts';
import { reasonQuestion } from '../domain/reasons';
import { actionKeys, type Chosen } from '../jobs/actions';
import { useCells, useHead, useJob, useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';
import { ReviewStage } from './ReviewStage';
import { countToReview, type Reason, ReviewFilter } from './ReviewFilter';
import { Tray } from './Tray';
import { useCopyToAlike } from './useCopyToAlike';
import { useWall, type WallState } from './useWall';
import { keyOf, WallCrop } from './WallCrop';

/**
 * The cells that are to review, under the questions that they ask, to be worked off by keys; the one in hand is large, beside what it cuts away.
 * What is settled leaves, and the next is under the hand. When none is left the bench is there again.
 */
export function Wall({ reason, onReason }: { reason: Reason; onReason: (reason: Reason | null) => void }) {
  const store = useJobStore();
  const head = useHead();
  const cells = useCells();
  const reading = useJob((job) => job.reading);
  const [, go] = useLocation();
  const counts = useMemo(() => countToReview(cells.values(), head), [cells, head]);
  const wall = useWall(reason);
  const { all, one, chosen } = wall;
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
      <div className="grid min-h-0 grid-cols-[276px_1fr]">
        <ToReview wall={wall} onOpen={open} />
        <div className="grid min-h-0 min-w-0 px-5 py-3">
          {one && <ReviewStage key={keyOf(one)} item={one} onPoint={wall.pointAt} onOpen={() => open(one)} />}
        </div>
      </div>
      {chosen.length > 0 && <Tray chosen={chosen} focusAt={wall.point} />}
    </div>
  );
}

/** All that are to review, each question once over the cells that ask it. */
function ToReview({ wall, onOpen }: { wall: WallState; onOpen: (item: Chosen) => void }) {
  const { groups, held, list, isChosen, click } = wall;
  return (
    <div
      ref={list}
      role="listbox"
      tabIndex={0}
      aria-multiselectable
      aria-label={t('bench.cellsToReview')}
      className="min-h-0 overflow-y-auto border-r border-line bg-sheet pb-3 -outline-offset-2 select-none"
      data-testid="wall"
    >
      {groups.map((group) => (
        <div key={group.reason} role="group" aria-label={reasonQuestion(group.reason)}>
          <p
            className="sticky top-0 z-10 border-b border-line bg-sheet-2 px-3 py-1.5 leading-4 font-semibold"
            aria-hidden
          >
            {reasonQuestion(group.reason)}{' '}
            <span className="font-normal text-ink-2">{group.items.length}</span>
          </p>
          {group.items.map(({ item, index }) => (
            <WallCrop
              key={keyOf(item)}
              item={item}
              under={group.reason}
              chosen={isChosen(index)}
              held={index === held}
              onClick={click(index)}
              onOpen={() => onOpen(item)}
            />
          ))}
        </div>
      ))}
    </div>
  );
}

function useWallKeys(wall: WallState, open: (one: Chosen) => void, leave: () => void): void {
  const store = useJobStore();
  const [, go] = useLocation();
  const { all, held, low, choose, chooseAll, one, chosen, point } = wall;
  const copy = useCopyToAlike(one);
  const step = (by: number) => (event: KeyboardEvent) => choose(held + by, event.shiftKey);
  useShortcuts({
    arrowleft: step(-1),
    arrowright: step(1),
    arrowup: step(-1),
    arrowdown: step(1),
    home: (event) => choose(0, event.shiftKey),
    end: (event) => choose(all.length - 1, event.shiftKey),
    'ctrl+a': chooseAll,
    escape: leave,
    b: leave,
    e: () => choose((held + 1) % Math.max(1, all.length), false),
    enter: () => one && open(one),
    w: () => one && go(`/job/${store.id}/weighing/${one.picture.picture.id}/${one.slot.address}`),
    c: () => copy?.act(),
    // What is acted on leaves or stays; either way the hand is where it began.
    ...actionKeys(store, chosen, point, () => choose(low, false)),
  });
}
