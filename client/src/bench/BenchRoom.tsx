import type { VirtualItem } from '@tanstack/react-virtual';
import { type ReactNode, useLayoutEffect, useRef, useState } from 'react';
import { t } from '../texts/texts';
import type { Layout } from './layout';
import { Rest } from './rest';
import type { BenchState } from './useBench';
import { useCellPointer } from './useCellPointer';
import { useOnScreen } from './useOnScreen';

/** What is on screen of the bench. */
interface OnScreen {
  rows: VirtualItem[];
  columns: VirtualItem[];
  /** Of all that is scrolled, in pixels. */
  width: number;
  rest: Rest;
}

/** Where cells lie and are scrolled, chosen and opened; what is drawn in it is up to the way they lie. */
export function BenchRoom({
  bench,
  layout,
  origin,
  children,
}: {
  bench: BenchState;
  layout: Layout;
  /** Where the first cell begins, in pixels. */
  origin: { left: number; top: number };
  children: (shown: OnScreen) => ReactNode;
}) {
  const { lie, selection } = bench;
  const { room, rows, columns } = useOnScreen(bench, layout, origin);
  const [rest] = useState(() => new Rest());
  const moves = rows.isScrolling || columns.isScrolling;
  useLayoutEffect(() => rest.set(!moves), [rest, moves]);
  const pointer = useCellPointer({
    ...{ room, layout, origin },
    at: selection.at,
    onGo: selection.goTo,
    onSelect: selection.select,
    onOpen: bench.open,
    onPoint: bench.setFocusAt,
  });
  const width = columns.getTotalSize() + origin.left;
  const pressed = useRef(false);
  const heads = origin.left > 0 ? 1 : 0;
  return (
    <div
      ref={room}
      className="relative min-h-0 overflow-auto outline-none select-none"
      tabIndex={0}
      role="grid"
      aria-label={t('bench.bench')}
      aria-multiselectable
      aria-rowcount={lie.rows + heads}
      aria-colcount={lie.columns + heads}
      aria-activedescendant={selection.none ? undefined : `cell-${selection.at.row}-${selection.at.column}`}
      // Whoever comes by keyboard has a cell in hand. A pointer that is let go outside has ended its press as well.
      onPointerDownCapture={() => {
        pressed.current = true;
        addEventListener('pointerup', () => (pressed.current = false), { once: true });
      }}
      onFocus={() => {
        if (selection.none && !pressed.current) selection.goTo(selection.at);
      }}
      data-testid="bench"
      {...pointer}
    >
      <div
        role="presentation"
        className="relative"
        style={{ width, height: rows.getTotalSize() + origin.top }}
      >
        {children({ rows: rows.getVirtualItems(), columns: columns.getVirtualItems(), width, rest })}
      </div>
    </div>
  );
}
