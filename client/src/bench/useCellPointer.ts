import { type MouseEvent, type PointerEvent as ReactPointerEvent, type RefObject, useRef } from 'react';
import { pointIn } from '../jobs/actions';
import { useJobStore } from '../jobs/useJob';
import type { Layout } from './layout';
import type { At } from './useSelection';

/** What a pointer does on the bench: a click goes to a cell, a drag chooses a rectangle, a double click opens a cell. */
export function useCellPointer({
  room,
  layout,
  origin,
  at,
  onGo,
  onSelect,
  onOpen,
  onPoint,
}: {
  room: RefObject<HTMLDivElement | null>;
  layout: Layout;
  /** Where the first cell begins, in pixels. */
  origin: { left: number; top: number };
  at: At;
  onGo: (to: At, how?: { extend?: boolean; add?: boolean }) => void;
  onSelect: (from: At, to: At) => void;
  onOpen: (at: At) => void;
  onPoint: (point: { x: number; y: number }) => void;
}) {
  const store = useJobStore();
  const drag = useRef<At | null>(null);
  const cellAt = (event: { clientX: number; clientY: number }): At | null => {
    const box = room.current!.getBoundingClientRect();
    const x = event.clientX - box.left - origin.left + room.current!.scrollLeft;
    const y = event.clientY - box.top - origin.top + room.current!.scrollTop;
    const row = indexAt(layout.rows, y);
    const column = indexAt(layout.columns, x);
    return row === null || column === null ? null : { row, column };
  };
  const down = (event: ReactPointerEvent) => {
    const target = event.target as HTMLElement;
    const cell = target.closest<HTMLElement>('[data-cell]');
    if (!cell || event.button !== 0) return;
    const to = cellAt(event);
    if (!to) return;
    const frame = store.cells.get(cell.dataset.cell!)?.frame;
    const crop = cell.querySelector('[data-crop]')?.getBoundingClientRect();
    if (frame && crop) onPoint(pointIn(frame, crop, event));
    onGo(to, { extend: event.shiftKey, add: event.ctrlKey || event.metaKey });
    if (!event.shiftKey && !event.ctrlKey && !event.metaKey) {
      drag.current = to;
      // The pointer is taken only once it moves: a double click must reach its cell.
    }
  };
  const move = (event: ReactPointerEvent) => {
    if (!drag.current || !(event.buttons & 1)) {
      drag.current = null;
      return;
    }
    const to = cellAt(event);
    if (
      to &&
      (to.row !== drag.current.row ||
        to.column !== drag.current.column ||
        at.row !== to.row ||
        at.column !== to.column)
    )
      onSelect(drag.current, to);
  };
  return {
    onPointerDown: down,
    onPointerMove: move,
    onPointerUp: () => {
      drag.current = null;
    },
    onDoubleClick: (event: MouseEvent) => {
      if ((event.target as HTMLElement).closest('[data-cell]')) {
        const to = cellAt(event);
        if (to) onOpen(to);
      }
    },
  };
}

function indexAt(sizes: readonly number[], at: number): number | null {
  if (at < 0) return null;
  let end = 0;
  for (let i = 0; i < sizes.length; i++) {
    end += sizes[i]!;
    if (at < end) return i;
  }
  return null;
}
