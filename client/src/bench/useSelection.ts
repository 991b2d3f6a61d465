import { useCallback, useMemo, useState } from 'react';

export interface At {
  row: number;
  column: number;
}

/**
 * The active cell, the rectangle that goes out from where it began, and single cells beside it. At first nothing is chosen.
 * @param order What tells one way to lay the cells from another: with another one nothing is chosen.
 */
export function useSelection(rows: number, columns: number, order = '') {
  const [at, setAt] = useState<At>({ row: 0, column: 0 });
  const [from, setFrom] = useState<At | null>(null);
  const [none, setNone] = useState(true);
  const [singles, setSingles] = useState<ReadonlySet<string>>(new Set());
  const [laid, setLaid] = useState(order);
  if (laid !== order) {
    setLaid(order);
    setNone(true);
    setAt({ row: 0, column: 0 });
    setFrom(null);
    setSingles(new Set());
  }

  const clampedAt = useMemo(
    () => ({
      row: Math.min(at.row, Math.max(0, rows - 1)),
      column: Math.min(at.column, Math.max(0, columns - 1)),
    }),
    [at, rows, columns],
  );

  const box = useMemo(() => {
    const start = from ?? clampedAt;
    return {
      top: Math.min(start.row, clampedAt.row),
      bottom: Math.max(start.row, clampedAt.row),
      left: Math.min(start.column, clampedAt.column),
      right: Math.max(start.column, clampedAt.column),
    };
  }, [from, clampedAt]);

  const isSelected = useCallback(
    (row: number, column: number) =>
      !none &&
      ((row >= box.top && row <= box.bottom && column >= box.left && column <= box.right) ||
        singles.has(`${row}/${column}`)),
    [none, box, singles],
  );

  /** Goes to a cell; with `extend` the rectangle grows to it, with `add` what was chosen stays. */
  const goTo = useCallback(
    (to: At, how: { extend?: boolean; add?: boolean } = {}) => {
      const next = {
        row: Math.max(0, Math.min(rows - 1, to.row)),
        column: Math.max(0, Math.min(columns - 1, to.column)),
      };
      setNone(false);
      if (how.add && !none) {
        setSingles((now) => {
          const all = new Set(now);
          for (let row = box.top; row <= box.bottom; row++)
            for (let column = box.left; column <= box.right; column++) all.add(`${row}/${column}`);
          return all;
        });
      } else if (!how.extend) setSingles(new Set());
      setFrom((now) => (how.extend ? (now ?? clampedAt) : null));
      setAt(next);
    },
    [rows, columns, none, box, clampedAt],
  );

  const select = useCallback((start: At, end: At) => {
    setNone(false);
    setSingles(new Set());
    setFrom(start);
    setAt(end);
  }, []);

  const list = useMemo(() => listOf(rows, columns, isSelected), [rows, columns, isSelected]);

  return {
    ...{ at: clampedAt, none, isSelected, goTo, select, list },
    /** Of several only the active cell stays chosen, then none. */
    less: () => {
      if (list.length > 1) goTo(clampedAt);
      else setNone(true);
    },
  };
}

function listOf(rows: number, columns: number, isSelected: (row: number, column: number) => boolean): At[] {
  const all: At[] = [];
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) if (isSelected(row, column)) all.push({ row, column });
  return all;
}
