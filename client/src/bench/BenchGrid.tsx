import { alikeTo } from '../domain/alike';
import { BenchRoom } from './BenchRoom';
import { BenchRow, headWidth } from './BenchRow';
import { HeadRow } from './HeadRow';
import { headHeight, type Layout, type View } from './layout';
import type { BenchState } from './useBench';

const origin = { left: headWidth, top: headHeight };

/** Pictures down, slots across; only what is on screen is in the page. */
export function BenchGrid({ bench, layout, view }: { bench: BenchState; layout: Layout; view: View }) {
  const { pictures, slots, selection, alike } = bench;
  const { row: atRow, column: atColumn } = selection.at;
  return (
    <BenchRoom bench={bench} layout={layout} origin={origin}>
      {({ rows, columns, width, rest }) => (
        <>
          <HeadRow bench={bench} layout={layout} width={width} columns={columns} />
          {rows.map((row) => (
            <BenchRow
              key={pictures[row.index]!.picture.id}
              picture={pictures[row.index]!}
              index={row.index}
              alike={alikeTo(alike, pictures[row.index]!.picture.id)}
              top={headHeight + row.start}
              height={row.size}
              width={width}
              slots={slots}
              shown={columns}
              view={view}
              active={!selection.none && atRow === row.index ? atColumn : null}
              isSelected={selection.isSelected}
              rest={rest}
              onSelect={selection.select}
            />
          ))}
        </>
      )}
    </BenchRoom>
  );
}
