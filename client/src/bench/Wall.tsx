import { type MouseEvent, useEffect, useMemo, useRef, useState } from 'react';
import { useLocation } from 'wouter';
import { Button, Key } from '../design/Button';
import { useShortcuts } from '../design/useShortcuts';
import { actionKeys, type Chosen, middleOf, pointIn } from '../jobs/actions';
import { useCells, useHead, useJob, useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';
import { countToReview, type Reason, ReviewFilter } from './ReviewFilter';
import { Tray } from './Tray';
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
  const [at, setAt] = useState(0);
  const [from, setFrom] = useState(0);
  const [beside, setBeside] = useState<ReadonlySet<string>>(new Set());
  const [clicked, setClicked] = useState<{ x: number; y: number } | null>(null);
  const counts = useMemo(() => countToReview(cells.values(), head), [cells, head]);
  const all: Chosen[] = useMemo(
    () =>
      head.pictures.flatMap((picture) =>
        head.slots.flatMap((slot) => {
          const cell = cells.at(picture.picture.id, slot.address);
          const asks = cell && (reason === 'any' ? cell.toReview.length > 0 : cell.toReview.includes(reason));
          return asks ? [{ picture, slot, cell }] : [];
        }),
      ),
    [head, cells, reason],
  );
  const done = all.length === 0 && !reading;
  useEffect(() => {
    if (done) onReason(null);
  }, [done, onReason]);

  const held = Math.min(at, Math.max(0, all.length - 1));
  const [low, high] = [Math.min(held, from), Math.max(held, Math.min(from, all.length - 1))];
  const isChosen = (i: number) => (i >= low && i <= high) || beside.has(keyOf(all[i]!));
  const chosen = all.filter((_, i) => isChosen(i));
  const wall = useRef<HTMLUListElement>(null);
  useEffect(() => {
    wall.current?.children[held]?.scrollIntoView({ block: 'nearest' });
  }, [held, all.length]);

  const choose = (to: number, extend: boolean) => {
    const next = Math.max(0, Math.min(all.length - 1, to));
    setAt(next);
    if (!extend) setFrom(next);
    setBeside(new Set());
    setClicked(null);
  };
  // A line up or down: the crop that lies nearest.
  const line = (by: number) => {
    const items = [...(wall.current?.children ?? [])].map((one) => one.getBoundingClientRect());
    const here = items[held];
    if (!here) return held;
    const middle = here.left + here.width / 2;
    const other = items.filter((one) => (by > 0 ? one.top > here.top + 1 : one.top < here.top - 1));
    const top = by > 0 ? Math.min(...other.map((one) => one.top)) : Math.max(...other.map((one) => one.top));
    const near = other
      .filter((one) => Math.abs(one.top - top) < 1)
      .toSorted(
        (a, b) => Math.abs(a.left + a.width / 2 - middle) - Math.abs(b.left + b.width / 2 - middle),
      )[0];
    return near ? items.indexOf(near) : held;
  };
  const one = all[held];
  const open = ({ picture, slot }: Chosen) =>
    go(`/job/${store.id}/framing/${picture.picture.id}?slot=${slot.address}`);
  const point = clicked ?? (one ? middleOf(one) : null);
  useShortcuts({
    arrowleft: (event) => choose(held - 1, event.shiftKey),
    arrowright: (event) => choose(held + 1, event.shiftKey),
    arrowup: (event) => choose(line(-1), event.shiftKey),
    arrowdown: (event) => choose(line(1), event.shiftKey),
    home: (event) => choose(0, event.shiftKey),
    end: (event) => choose(all.length - 1, event.shiftKey),
    'ctrl+a': () => {
      setFrom(0);
      setAt(all.length - 1);
    },
    escape: () => onReason(null),
    b: () => onReason(null),
    e: () => choose((held + 1) % Math.max(1, all.length), false),
    enter: () => one && open(one),
    w: () => one && go(`/job/${store.id}/weighing/${one.picture.picture.id}/${one.slot.address}`),
    // What is acted on leaves or stays; either way the hand is where it began.
    ...actionKeys(store, chosen, point, () => choose(low, false)),
  });
  const click = (i: number) => (event: MouseEvent<HTMLElement>) => {
    if (event.ctrlKey || event.metaKey) {
      const next = new Set(beside);
      const key = keyOf(all[i]!);
      if (!next.delete(key)) next.add(key);
      setBeside(next);
      return;
    }
    choose(i, event.shiftKey);
    const crop = event.currentTarget.querySelector('[data-crop]')?.getBoundingClientRect();
    if (crop) setClicked(pointIn(all[i]!.cell.frame, crop, event));
  };

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
        ref={wall}
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
      {chosen.length > 0 && <Tray chosen={chosen} focusAt={point} />}
    </div>
  );
}
