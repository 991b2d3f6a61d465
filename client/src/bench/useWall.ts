import { type MouseEvent, useEffect, useMemo, useRef, useState } from 'react';
import type { ReasonCode } from '../api/client';
import { byGravity } from '../domain/reasons';
import { type Chosen, middleOf, pointIn } from '../jobs/actions';
import { useCells, useHead } from '../jobs/useJob';
import type { Reason } from './ReviewFilter';
import { keyOf } from './WallCrop';

/** The cells that are to review for one reason, which of them is in hand, and which are chosen with it. */
export type WallState = ReturnType<typeof useWall>;

/** Cells that ask the same question, each with its place among all. */
export interface WallGroup {
  reason: ReasonCode;
  items: { item: Chosen; index: number }[];
}

/** Puts cells under the gravest question that each asks, or the one that was picked; within a group they stay in reading order. */
export function grouped(cells: readonly Chosen[], picked: Reason): WallGroup[] {
  const byReason = new Map<ReasonCode, Chosen[]>();
  for (const one of cells) {
    const reason = picked === 'any' ? one.cell.toReview.toSorted(byGravity)[0]! : picked;
    byReason.set(reason, [...(byReason.get(reason) ?? []), one]);
  }
  let index = 0;
  return [...byReason.keys()]
    .toSorted(byGravity)
    .map((reason) => ({ reason, items: byReason.get(reason)!.map((item) => ({ item, index: index++ })) }));
}

export function useWall(reason: Reason) {
  const head = useHead();
  const cells = useCells();
  const [at, setAt] = useState(0);
  const [from, setFrom] = useState(0);
  const [beside, setBeside] = useState<ReadonlySet<string>>(new Set());
  const [clicked, setClicked] = useState<{ x: number; y: number } | null>(null);
  const groups = useMemo(() => {
    const asking: Chosen[] = head.pictures.flatMap((picture) =>
      head.slots.flatMap((slot) => {
        const cell = cells.at(picture.picture.id, slot.address);
        const asks = cell && (reason === 'any' ? cell.toReview.length > 0 : cell.toReview.includes(reason));
        return asks ? [{ picture, slot, cell }] : [];
      }),
    );
    return grouped(asking, reason);
  }, [head, cells, reason]);
  const all = useMemo(() => groups.flatMap((group) => group.items.map(({ item }) => item)), [groups]);
  const last = all.length - 1;
  const held = Math.min(at, Math.max(0, last));
  const [low, high] = [Math.min(held, from), Math.max(held, Math.min(from, last))];
  const isChosen = (i: number) => (i >= low && i <= high) || beside.has(keyOf(all[i]!));
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    list.current?.querySelectorAll('[role=option]')[held]?.scrollIntoView({ block: 'nearest' });
  }, [held, all.length]);
  const choose = (to: number, extend: boolean) => {
    const next = Math.max(0, Math.min(last, to));
    setAt(next);
    if (!extend) setFrom(next);
    setBeside(new Set());
    setClicked(null);
  };
  const one = all[held];
  return {
    ...{ all, groups, held, low, isChosen, list, choose, one },
    click: (i: number) => (event: MouseEvent) => {
      if (!event.ctrlKey && !event.metaKey) return choose(i, event.shiftKey);
      const next = new Set(beside);
      const key = keyOf(all[i]!);
      if (!next.delete(key)) next.add(key);
      setBeside(next);
    },
    chosen: all.filter((_, i) => isChosen(i)),
    chooseAll: () => {
      setFrom(0);
      setAt(last);
    },
    /** Takes a point of the large crop for the focus. */
    pointAt: (crop: DOMRect, event: MouseEvent) => one && setClicked(pointIn(one.cell.frame, crop, event)),
    point: clicked ?? (one ? middleOf(one) : null),
  };
}
