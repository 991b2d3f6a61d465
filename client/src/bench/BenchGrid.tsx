import { useVirtualizer } from '@tanstack/react-virtual';
import {
  type PointerEvent as ReactPointerEvent,
  type RefObject,
  useEffect,
  useEffectEvent,
  useLayoutEffect,
  useRef,
  useState,
} from 'react';
import { type JobPicture, type JobSlot } from '../api/client';
import { sentence } from '../design/figures';
import { needs, windows } from '../design/needs';
import { pointIn } from '../jobs/actions';
import { useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';
import { BenchRow, headWidth } from './BenchRow';
import { headHeight, type Layout, type View } from './layout';
import { Rest } from './rest';
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

  const drag = useRef<At | null>(null);
  const cellAt = (event: { clientX: number; clientY: number }): At | null => {
    const box = room.current!.getBoundingClientRect();
    const x = event.clientX - box.left - headWidth + room.current!.scrollLeft;
    const y = event.clientY - box.top - headHeight + room.current!.scrollTop;
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
    const crop = cell.firstElementChild?.firstElementChild?.getBoundingClientRect();
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
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={() => (drag.current = null)}
      onDoubleClick={(event) => {
        if ((event.target as HTMLElement).closest('[data-cell]')) {
          const to = cellAt(event);
          if (to) onOpen(to);
        }
      }}
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
          {shownColumns.map((column) => {
            const slot = slots[column.index]!;
            const first = column.index === 0 || slots[column.index - 1]!.destination !== slot.destination;
            return (
              <div
                key={slot.address}
                role="columnheader"
                aria-colindex={column.index + 2}
                className={`absolute top-0 h-full ${first ? 'border-l border-ink-2' : 'border-l border-line'}`}
                style={{ left: headWidth + column.start, width: column.size }}
              >
                <button
                  type="button"
                  tabIndex={-1}
                  title={`${slot.destinationName}: ${slot.slot.name}, ${needs(slot.slot)}`}
                  onClick={() =>
                    onSelect(
                      { row: 0, column: column.index },
                      { row: pictures.length - 1, column: column.index },
                    )
                  }
                  className="flex h-full w-full flex-col justify-end px-2 pb-1.5 text-left hover:bg-sheet-2"
                >
                  <span className="w-full truncate text-note leading-[15px] text-ink-2">
                    {first ? slot.destinationName : (slot.slot.group ?? '\u00a0')}
                  </span>
                  <span className="line-clamp-2 w-full leading-[15px] font-medium text-balance wrap-anywhere">
                    {slot.slot.name}
                  </span>
                  <span className="w-full truncate text-note leading-[15px] text-ink-2">
                    {shapeWords(slot)}
                  </span>
                </button>
              </div>
            );
          })}
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

function shapeWords({ slot }: JobSlot): string {
  const ratio = slot.ratioText ? `${slot.ratioText}, ` : '';
  if (slot.group) return ratio + windows(slot);
  return slot.shape == null ? sentence(slot.size) : `${ratio}${slot.width}×${slot.height}`;
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
