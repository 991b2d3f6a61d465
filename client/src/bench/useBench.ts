import { useEffect, useMemo, useRef, useState } from 'react';
import { useLocation } from 'wouter';
import { type Chosen, middleOf } from '../jobs/actions';
import { useCells, useHead, useJobStore } from '../jobs/useJob';
import { pairing } from './pairing';
import { countByPicture, type RowOrder, rowsIn } from './rowOrder';
import { type At, useSelection } from './useSelection';

/** The bench: which cells are chosen, the ways from cell to cell, and what can be done with the chosen. */
export type BenchState = ReturnType<typeof useBench>;

export function useBench() {
  const store = useJobStore();
  const { pictures: all, slots } = useHead();
  const [, go] = useLocation();
  const cells = useCells();
  const [words, setWords] = useState('');
  const [order, setOrder] = useState<{ by: RowOrder; toReview: ReadonlyMap<string, number> }>({
    by: 'added',
    toReview: new Map(),
  });
  const pictures = useMemo(() => rowsIn(all, order.by, words, order.toReview), [all, order, words]);
  const [focusAt, setFocusAt] = useState<{ x: number; y: number } | null>(null);
  const selection = useSelection(pictures.length, slots.length);
  const chosen: Chosen[] = useMemo(
    () =>
      selection.list.flatMap(({ row, column }) => {
        const [picture, slot] = [pictures[row], slots[column]];
        const cell = picture && slot && cells.at(picture.picture.id, slot.address);
        return cell ? [{ picture, slot, cell }] : [];
      }),
    [selection.list, pictures, slots, cells],
  );
  const scrollTo = useRef<((at: At) => void) | null>(null);
  const goTo = (to: At, how: { extend?: boolean; add?: boolean } = {}) => {
    selection.goTo(to, how);
    scrollTo.current?.({
      row: Math.max(0, Math.min(pictures.length - 1, to.row)),
      column: Math.max(0, Math.min(slots.length - 1, to.column)),
    });
  };
  const latest = useRef(goTo);
  useEffect(() => {
    latest.current = goTo;
  });
  const nextToReview = () => {
    const count = pictures.length * slots.length;
    // Where nothing is chosen, the first cell is asked as well.
    const from = selection.none ? -1 : selection.at.row * slots.length + selection.at.column;
    for (let i = 1; i <= count; i++) {
      const index = (from + i) % count;
      const at = { row: Math.floor(index / slots.length), column: index % slots.length };
      const cell = cells.at(pictures[at.row]!.picture.id, slots[at.column]!.address);
      if (cell && cell.toReview.length > 0) return goTo(at);
    }
  };
  // What was just combined stands last, once it is drawn.
  const toLast = () =>
    requestAnimationFrame(() =>
      latest.current({
        row: store.head!.pictures.length - 1,
        column: slots.findIndex((one) => one.slot.pair != null),
      }),
    );
  const pictured = [...new Set(chosen.map((one) => one.picture))];
  const pair = pairing(pictured, slots);
  const combine = () => {
    if (pair?.may) void store.pair(pictured.map((one) => one.picture.id)).then((made) => made && toLast());
  };
  return {
    ...{ store, pictures, slots, cells, selection, chosen, scrollTo, goTo, nextToReview },
    /** Which rows are shown, and in which order. */
    rows: {
      ...{ words, setWords, order: order.by, all: all.length },
      setOrder: (by: RowOrder) => setOrder({ by, toReview: countByPicture(all, slots, cells) }),
    },
    open: (at: At) => {
      const [picture, slot] = [pictures[at.row], slots[at.column]];
      if (picture && slot) go(`/job/${store.id}/framing/${picture.picture.id}?slot=${slot.address}`);
    },
    setFocusAt,
    // With the keyboard there is no clicked place: the middle of the frame then.
    point: focusAt ?? (chosen[0] ? middleOf(chosen[0]) : null),
    pair: pair && { ...pair, act: combine },
    /** The pictures whose whole rows are chosen and nothing else; null where there are none. */
    wholeRows: wholeRows(chosen, slots.length),
  };
}

function wholeRows(chosen: readonly Chosen[], slots: number): ReadonlySet<string> | null {
  const rows = new Set(chosen.map((one) => one.picture.picture.id));
  return rows.size > 0 && chosen.length === rows.size * slots ? rows : null;
}
