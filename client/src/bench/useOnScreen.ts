import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useEffectEvent, useRef } from 'react';
import type { Layout } from './layout';
import type { BenchState } from './useBench';

/**
 * Which rows and columns are on screen. The server is told of them, so that their files are made first.
 * @param origin Where the first cell begins, in pixels: the rest is heads that stay in view.
 */
export function useOnScreen(
  { store, lie, scrollTo }: BenchState,
  layout: Layout,
  origin: { left: number; top: number },
) {
  const room = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: lie.rows,
    getScrollElement: () => room.current,
    estimateSize: (i) => layout.rows[i] ?? 0,
    overscan: 0,
    scrollPaddingStart: origin.top,
    // Both ways are drawn in one go.
    useFlushSync: false,
  });
  const columns = useVirtualizer({
    horizontal: true,
    count: lie.columns,
    getScrollElement: () => room.current,
    estimateSize: (i) => layout.columns[i] ?? 0,
    overscan: 0,
    scrollPaddingStart: origin.left,
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
  const seen = `${down[0]?.index}-${down.at(-1)?.index}/${across[0]?.index}-${across.at(-1)?.index}`;
  const sayWhatIsSeen = useEffectEvent(() => {
    const places = rows
      .getVirtualItems()
      .flatMap((row) =>
        columns.getVirtualItems().flatMap((column) => lie.at({ row: row.index, column: column.index }) ?? []),
      );
    store.lookAt(
      [...new Set(places.map((one) => one.picture.picture.id))],
      [...new Set(places.map((one) => one.slot.address))],
    );
  });
  useEffect(() => {
    const timer = setTimeout(() => sayWhatIsSeen(), 250);
    return () => clearTimeout(timer);
  }, [seen, lie, store]);
  return { room, rows, columns };
}
