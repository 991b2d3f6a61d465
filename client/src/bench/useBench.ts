import { useEffect, useMemo, useRef, useState } from 'react';
import { useLocation } from 'wouter';
import { type Chosen, middleOf } from '../jobs/actions';
import { useJobStore } from '../jobs/useJob';
import { matrix, tiled } from './arrangement';
import { pairing } from './pairing';
import type { BenchRows } from './useBenchRows';
import { type At, useSelection } from './useSelection';

/** The bench: which cells are chosen, the ways from cell to cell, and what can be done with the chosen. */
export type BenchState = ReturnType<typeof useBench>;

/** @param across How many tiles stand side by side, where cells are drawn as tiles. */
export function useBench(rows: BenchRows, across: number) {
  const { pictures, slots, cells, tiles, filter, alike } = rows;
  const store = useJobStore();
  const [, go] = useLocation();
  const lie = useMemo(
    () => (tiles ? tiled(tiles, across) : matrix(pictures, slots)),
    [tiles, across, pictures, slots],
  );
  const [focusAt, setFocusAt] = useState<{ x: number; y: number } | null>(null);
  // A cell that is in hand is never another one because cells lie differently.
  const selection = useSelection(
    lie.rows,
    lie.columns,
    `${lie.columns}/${filter.order}/${filter.words}/${alike.join('|')}`,
  );
  const chosen: Chosen[] = useMemo(
    () =>
      selection.list.flatMap((at) => {
        const place = lie.at(at);
        const cell = place && cells.at(place.picture.picture.id, place.slot.address);
        return cell ? [{ ...place, cell }] : [];
      }),
    [selection.list, lie, cells],
  );
  const scrollTo = useRef<((at: At) => void) | null>(null);
  const [inHand] = chosen;
  const [handPicture, handSlot] = [inHand?.picture.picture.id ?? null, inHand?.slot.address ?? null];
  useEffect(() => store.together.moveTo(handPicture, handSlot), [store, handPicture, handSlot]);
  const goTo = (to: At, how: { extend?: boolean; add?: boolean } = {}) => {
    selection.goTo(to, how);
    scrollTo.current?.({
      row: Math.max(0, Math.min(lie.rows - 1, to.row)),
      column: Math.max(0, Math.min(lie.columns - 1, to.column)),
    });
  };
  const latest = useRef(goTo);
  useEffect(() => {
    latest.current = goTo;
  });
  const nextToReview = () => {
    const count = lie.rows * lie.columns;
    // Where nothing is chosen, the first cell is asked as well.
    const from = selection.none ? -1 : selection.at.row * lie.columns + selection.at.column;
    for (let i = 1; i <= count; i++) {
      const index = (from + i) % count;
      const at = { row: Math.floor(index / lie.columns), column: index % lie.columns };
      const place = lie.at(at);
      const cell = place && cells.at(place.picture.picture.id, place.slot.address);
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
    ...{ store, ...rows, lie, selection, chosen, scrollTo, goTo, nextToReview },
    open: (at: At) => {
      const place = lie.at(at);
      if (place) go(`/job/${store.id}/framing/${place.picture.picture.id}?slot=${place.slot.address}`);
    },
    setFocusAt,
    // With the keyboard there is no clicked place: the middle of the frame then.
    point: focusAt ?? (chosen[0] ? middleOf(chosen[0]) : null),
    pair: pair && { ...pair, act: combine },
    /** The pictures whose whole rows are chosen and nothing else; null where there are none. */
    wholeRows: tiles ? null : wholeRows(chosen, slots.length),
  };
}

function wholeRows(chosen: readonly Chosen[], slots: number): ReadonlySet<string> | null {
  const rows = new Set(chosen.map((one) => one.picture.picture.id));
  return rows.size > 0 && chosen.length === rows.size * slots ? rows : null;
}
