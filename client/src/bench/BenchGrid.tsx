import { useVirtualizer } from '@tanstack/react-virtual';
import { type RefObject, useEffect, useEffectEvent, useLayoutEffect, useRef, useState } from 'react';
import { type JobPicture, type JobSlot } from '../api/client';
import { useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';
import { BenchRow, headWidth } from './BenchRow';
import { headHeight, type Layout, type View } from './layout';
import { Rest } from './rest';
import { SlotHead } from './SlotHead';
import { useCellPointer } from './useCellPointer';
import type { At } from './useSelection';

/** Pictures down, slots across; only what is on screen is in the page. */
export function BenchGrid({
  pictures,
  slots,
  layout,
  view,
  at,
  isSelected,
  onGo,
  onSelect,
  onOpen,
  onPoint,
  scrollTo,
}: {
  pictures: readonly JobPicture[];
  slots: readonly JobSlot[];
  layout: Layout;
  view: View;
  at: At;
  isSelected: (row: number, column: number) => boolean;
  onGo: (to: At, how?: { extend?: boolean; add?: boolean }) => void;
  onSelect: (from: At, to: At) => void;
  onOpen: (at: At) => void;
  /** The place of the picture that was clicked, as fractions of it. */
  onPoint: (point: { x: number; y: number }) => void;
  scrollTo: RefObject<((at: At) => void) | null>;
}) {
  const store = useJobStore();
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
  const [rest] = useState(() => new Rest());
  const moves = rows.isScrolling || columns.isScrolling;
  useLayoutEffect(() => rest.set(!moves), [rest, moves]);
  const shownRows = rows.getVirtualItems();
  const shownColumns = columns.getVirtualItems();

  // What is on screen is made first.
  const seen = `${shownRows[0]?.index}-${shownRows.at(-1)?.index}/${shownColumns[0]?.index}-${shownColumns.at(-1)?.index}/${pictures.length}/${slots.length}`;
  const sayWhatIsSeen = useEffectEvent(() => {
    const visible = rows.getVirtualItems().map((row) => pictures[row.index]?.picture.id);
    const across = columns.getVirtualItems().map((column) => slots[column.index]?.address);
    store.lookAt(
      visible.filter((id) => id !== undefined),
      across.filter((address) => address !== undefined),
    );
  });
  useEffect(() => {
    const timer = setTimeout(() => sayWhatIsSeen(), 250);
    return () => clearTimeout(timer);
  }, [seen, store]);

  const pointer = useCellPointer({ room, layout, at, onGo, onSelect, onOpen, onPoint });

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
      aria-activedescendant={`cell-${at.row}-${at.column}`}
      data-testid="bench"
      {...pointer}
    >
      <div
        role="presentation"
        className="relative"
        style={{ width: columns.getTotalSize() + headWidth, height: rows.getTotalSize() + headHeight }}
      >
        <div
          role="row"
          aria-rowindex={1}
          className="sticky top-0 z-30 border-b border-line bg-sheet"
          style={{ height: headHeight, width: columns.getTotalSize() + headWidth }}
        >
          <span
            role="columnheader"
            className="sticky left-0 z-10 flex h-full items-end border-r border-line bg-sheet px-3 pb-1.5 text-ink-2"
            style={{ width: headWidth }}
          >
            {t('common.pictures', { count: pictures.length })}
          </span>
          {shownColumns.map((column) => (
            <SlotHead
              key={slots[column.index]!.address}
              slot={slots[column.index]!}
              before={slots[column.index - 1]}
              column={column}
              onSelect={() =>
                onSelect({ row: 0, column: column.index }, { row: pictures.length - 1, column: column.index })
              }
            />
          ))}
        </div>
        {shownRows.map((row) => (
          <BenchRow
            key={pictures[row.index]!.picture.id}
            picture={pictures[row.index]!}
            index={row.index}
            top={headHeight + row.start}
            height={row.size}
            width={columns.getTotalSize() + headWidth}
            slots={slots}
            shown={shownColumns}
            view={view}
            active={at.row === row.index ? at.column : null}
            isSelected={isSelected}
            rest={rest}
            onSelect={onSelect}
          />
        ))}
      </div>
    </div>
  );
}
