import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';
import type { Picture } from '../api/client';
import { pageSize, useLibraryPages } from '../api/queries';
import { useElementSize } from '../design/useElementSize';
import { PictureSheet } from './PictureSheet';

const gap = { x: 24, y: 20 };
/** What stands below a picture: its width, its name. */
const caption = 44;
const edge = 20;

/** The library as sheets, of which only those on the screen are drawn and asked for. */
export function LibraryGrid({
  search,
  total,
  side,
  chosen,
  onChoose,
}: {
  search: string;
  total: number;
  side: number;
  chosen: string | undefined;
  onChoose: (picture: Picture) => void;
}) {
  const [room, size] = useElementSize<HTMLDivElement>();
  const scroller = useRef<HTMLDivElement>(null);
  const width = (size?.width ?? 900) - 2 * edge;
  const columns = Math.max(1, Math.floor((width + gap.x) / (side + gap.x)));
  const rows = useVirtualizer({
    count: Math.ceil(total / columns),
    getScrollElement: () => scroller.current,
    estimateSize: () => side + caption,
    gap: gap.y,
    paddingStart: 8,
    paddingEnd: 24,
    overscan: 2,
  });
  const shown = rows.getVirtualItems();
  const pages = [
    ...new Set(
      shown.flatMap(({ index }) => [
        Math.floor((index * columns) / pageSize),
        Math.floor(Math.min(total - 1, index * columns + columns - 1) / pageSize),
      ]),
    ),
  ];
  const known = new Map(
    useLibraryPages(search, pages).flatMap((page) =>
      (page.data?.pictures ?? []).map((picture, at) => [page.data!.from + at, picture] as const),
    ),
  );
  return (
    <div ref={room} className="min-h-0 flex-1">
      <div ref={scroller} className="h-full overflow-y-auto px-5">
        <ul className="relative" style={{ height: rows.getTotalSize() }}>
          {shown.map((row) => (
            <li
              key={row.key}
              className="absolute inset-x-0 grid"
              style={{
                top: 0,
                transform: `translateY(${row.start}px)`,
                gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`,
                columnGap: gap.x,
              }}
            >
              {Array.from({ length: columns }, (_, column) => known.get(row.index * columns + column)).map(
                (picture, column) =>
                  picture ? (
                    <PictureSheet
                      key={picture.id}
                      picture={picture}
                      side={side}
                      chosen={picture.id === chosen}
                      onChoose={onChoose}
                    />
                  ) : (
                    <span key={column} style={{ height: side + caption - gap.y }} />
                  ),
              )}
            </li>
          ))}
        </ul>
      </div>
    </div>
  );
}
