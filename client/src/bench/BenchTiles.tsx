import { BenchRoom } from './BenchRoom';
import { BenchCell } from './CellView';
import type { Layout, View } from './layout';
import { RowFilter } from './RowFilter';
import type { BenchState } from './useBench';
import { filterBar } from './useBenchView';

const origin = { left: 0, top: filterBar };

/** Each cell that is in use as a tile with the names of its slot and its picture: for pictures that go to one slot each. */
export function BenchTiles({ bench, layout, view }: { bench: BenchState; layout: Layout; view: View }) {
  const { lie, filter, selection } = bench;
  const { row: atRow, column: atColumn } = selection.at;
  return (
    <BenchRoom bench={bench} layout={layout} origin={origin}>
      {({ rows, columns, width, rest }) => (
        <>
          <div
            role="presentation"
            className="sticky top-0 z-30 flex items-center gap-2 border-b border-line bg-sheet px-5"
            style={{ height: filterBar, width }}
          >
            <RowFilter rows={filter} wide />
          </div>
          {rows.map((row) => (
            <div
              key={row.index}
              role="row"
              aria-rowindex={row.index + 1}
              className="absolute left-0"
              style={{ top: filterBar + row.start, height: row.size, width }}
            >
              {columns.map((column) => {
                const place = lie.at({ row: row.index, column: column.index });
                return (
                  place && (
                    <BenchCell
                      key={column.index}
                      id={`cell-${row.index}-${column.index}`}
                      {...place}
                      view={view}
                      left={column.start}
                      width={column.size}
                      height={row.size}
                      rest={rest}
                      named
                      active={!selection.none && atRow === row.index && atColumn === column.index}
                      selected={selection.isSelected(row.index, column.index)}
                    />
                  )
                );
              })}
            </div>
          ))}
        </>
      )}
    </BenchRoom>
  );
}
