import { type MouseEvent, useEffect, useMemo, useRef, useState } from 'react';
import { type Chosen, middleOf, pointIn } from '../jobs/actions';
import { useCells, useHead } from '../jobs/useJob';
import { nearestInLine } from './nearestInLine';
import type { Reason } from './ReviewFilter';
import { keyOf } from './WallCrop';

/** The cells that are to review for one reason, which of them is in hand, and which are chosen with it. */
export type WallState = ReturnType<typeof useWall>;

export function useWall(reason: Reason) {
  const head = useHead();
  const cells = useCells();
  const [at, setAt] = useState(0);
  const [from, setFrom] = useState(0);
  const [beside, setBeside] = useState<ReadonlySet<string>>(new Set());
  const [clicked, setClicked] = useState<{ x: number; y: number } | null>(null);
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
  const last = all.length - 1;
  const held = Math.min(at, Math.max(0, last));
  const [low, high] = [Math.min(held, from), Math.max(held, Math.min(from, last))];
  const isChosen = (i: number) => (i >= low && i <= high) || beside.has(keyOf(all[i]!));
  const list = useRef<HTMLUListElement>(null);
  useEffect(() => {
    list.current?.children[held]?.scrollIntoView({ block: 'nearest' });
  }, [held, all.length]);
  const choose = (to: number, extend: boolean) => {
    const next = Math.max(0, Math.min(last, to));
    setAt(next);
    if (!extend) setFrom(next);
    setBeside(new Set());
    setClicked(null);
  };
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
  const one = all[held];
  return {
    ...{ all, held, low, isChosen, list, choose, click, one },
    chosen: all.filter((_, i) => isChosen(i)),
    chooseAll: () => {
      setFrom(0);
      setAt(last);
    },
    /** A line up or down: the crop that lies nearest. */
    line: (by: number) =>
      nearestInLine(
        [...(list.current?.children ?? [])].map((item) => item.getBoundingClientRect()),
        held,
        by,
      ),
    point: clicked ?? (one ? middleOf(one) : null),
  };
}
