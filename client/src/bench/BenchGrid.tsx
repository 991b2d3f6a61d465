import { useVirtualizer, type VirtualItem } from '@tanstack/react-virtual';
import { useEffect, useEffectEvent, useLayoutEffect, useRef, useState } from 'react';
import { t } from '../texts/texts';
import { BenchRow, headWidth } from './BenchRow';
import { headHeight, type Layout, type View } from './layout';
import { Rest } from './rest';
import { RowFilter } from './RowFilter';
import { SlotHead } from './SlotHead';
import type { BenchState } from './useBench';
import { useCellPointer } from './useCellPointer';

/** Pictures down, slots across; only what is on screen is in the page. */
export function BenchGrid({ bench, layout, view }: { bench: BenchState; layout: Layout; view: View }) {
  const { pictures, slots, selection } = bench;
  const { room, rows, columns } = useOnScreen(bench, layout);
  const [rest] = useState(() => new Rest());
  const moves = rows.isScrolling || columns.isScrolling;
  useLayoutEffect(() => rest.set(!moves), [rest, moves]);
  const pointer = useCellPointer({
    room,
    layout,
    at: selection.at,
    onGo: selection.goTo,
    onSelect: selection.select,
    onOpen: bench.open,
    onPoint: bench.setFocusAt,
  });
  const width = columns.getTotalSize() + headWidth;
  const pressed = useRef(false);
  const { row: atRow, column: atColumn } = selection.at;
  return (
    <div
      ref={room}
      className="relative min-h-0 overflow-auto outline-none select-none"
      tabIndex={0}
      role="grid"
      aria-label={t('bench.bench')}
      aria-multiselectable
      aria-rowcount={pictures.length + 1}
      aria-colcount={slots.length + 1}
      aria-activedescendant={selection.none ? undefined : `cell-${atRow}-${atColumn}`}
      // Whoever comes by keyboard has a cell in hand.
      onPointerDownCapture={() => (pressed.current = true)}
      onPointerUpCapture={() => (pressed.current = false)}
      onFocus={() => {
        if (selection.none && !pressed.current) selection.goTo(selection.at);
      }}
      data-testid="bench"
      {...pointer}
    >
      <div
        role="presentation"
        className="relative"
        style={{ width, height: rows.getTotalSize() + headHeight }}
      >
        <HeadRow bench={bench} width={width} columns={columns.getVirtualItems()} />
        {rows.getVirtualItems().map((row) => (
          <BenchRow
            key={pictures[row.index]!.picture.id}
            picture={pictures[row.index]!}
            index={row.index}
            top={headHeight + row.start}
            height={row.size}
            width={width}
            slots={slots}
            shown={columns.getVirtualItems()}
            view={view}
            active={!selection.none && atRow === row.index ? atColumn : null}
            isSelected={selection.isSelected}
            rest={rest}
            onSelect={selection.select}
          />
        ))}
      </div>
    </div>
  );
}

function HeadRow({
  bench: { pictures, slots, selection, rows },
  width,
  columns,
}: {
  bench: BenchState;
  width: number;
  columns: VirtualItem[];
}) {
  return (
    <div
      role="row"
      aria-rowindex={1}
      className="sticky top-0 z-30 border-b border-line bg-sheet"
      style={{ height: headHeight, width }}
    >
      <span
        role="columnheader"
        className="sticky left-0 z-10 flex h-full flex-col justify-center gap-1 border-r border-line bg-sheet px-2"
        style={{ width: headWidth }}
      >
        <RowFilter rows={rows} />
      </span>
      {columns.map((column) => (
        <SlotHead
          key={slots[column.index]!.address}
          slot={slots[column.index]!}
          before={slots[column.index - 1]}
          column={column}
          onSelect={() =>
            selection.select(
              { row: 0, column: column.index },
              { row: pictures.length - 1, column: column.index },
            )
          }
        />
      ))}
    </div>
  );
}

/** Which rows and columns are on screen. The server is told of them, so that their files are made first. */
function useOnScreen({ store, pictures, slots, scrollTo }: BenchState, layout: Layout) {
  const room = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: pictures.length,
    getScrollElement: () => room.current,
    estimateSize: (i) => layout.rows[i] ?? 0,
    overscan: 0,
    scrollPaddingStart: headHeight,
    // Both ways are drawn in one go.
    useFlushSync: false,
  });
  const columns = useVirtualizer({
    horizontal: true,
    count: slots.length,
    getScrollElement: () => room.current,
    estimateSize: (i) => layout.columns[i] ?? 0,
    overscan: 0,
    scrollPaddingStart: headWidth,
    useFlushSync: false,
  });
  useEffect(() => {
    rows.measure();
    columns.measure();
  }, [layout, rows, columns]);
  useEffect(() => {
    scrollTo.current = (to) => {
      rows.scrollToIndex(to.row);
      columns.scrollToIndex(to.column);
    };
  });
  const [down, across] = [rows.getVirtualItems(), columns.getVirtualItems()];
  const seen = `${down[0]?.index}-${down.at(-1)?.index}/${across[0]?.index}-${across.at(-1)?.index}/${pictures.length}/${slots.length}`;
  const sayWhatIsSeen = useEffectEvent(() => {
    const visible = rows.getVirtualItems().map((row) => pictures[row.index]?.picture.id);
    const shown = columns.getVirtualItems().map((column) => slots[column.index]?.address);
    store.lookAt(
      visible.filter((id) => id !== undefined),
      shown.filter((address) => address !== undefined),
    );
  });
  useEffect(() => {
    const timer = setTimeout(() => sayWhatIsSeen(), 250);
    return () => clearTimeout(timer);
  }, [seen, store]);
  return { room, rows, columns };
}
