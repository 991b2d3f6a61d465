import type { VirtualItem } from '@tanstack/react-virtual';
import { useMemo } from 'react';
import { spansOver } from '../domain/columns';
import { headWidth } from './BenchRow';
import { headHeight, type Layout } from './layout';
import { RowFilter } from './RowFilter';
import { SlotHead, SpanHead } from './SlotHead';
import type { BenchState } from './useBench';

/** The heads of the columns; they stay in view, and in the corner stand the filter and the order of the rows. */
export function HeadRow({
  bench: { pictures, slots, selection, filter },
  layout,
  width,
  columns,
}: {
  bench: BenchState;
  layout: Layout;
  width: number;
  columns: VirtualItem[];
}) {
  const spans = useMemo(() => spansOver(slots), [slots]);
  const select = (first: number, count: number) =>
    selection.select({ row: 0, column: first }, { row: pictures.length - 1, column: first + count - 1 });
  const [from, to] = [columns[0]?.index ?? 0, columns.at(-1)?.index ?? -1];
  const shown = spans.filter((span) => span.first <= to && span.first + span.count > from);
  const widthOf = (first: number, end: number) =>
    layout.columns.slice(first, end).reduce((sum, one) => sum + one, 0);
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
        <RowFilter rows={filter} />
      </span>
      {shown.map((span) => (
        <SpanHead
          key={slots[span.first]!.address}
          span={span}
          left={widthOf(0, span.first)}
          width={widthOf(span.first, span.first + span.count)}
          onSelect={() => select(span.first, span.count)}
        />
      ))}
      {columns.map((column) => (
        <SlotHead
          key={slots[column.index]!.address}
          slot={slots[column.index]!}
          span={spans.find(({ first, count }) => column.index >= first && column.index < first + count)!}
          column={column}
          onSelect={() => select(column.index, 1)}
        />
      ))}
    </div>
  );
}
