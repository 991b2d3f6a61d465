import { useMemo, useState } from 'react';
import { fittingTiles, tileColumns, tileFoot } from './arrangement';
import { headWidth } from './BenchRow';
import { caption, fittingScale, fittingView, heights, layOut, pad, scales, type View } from './layout';
import { useStableLayout } from './pairing';
import type { BenchRows } from './useBenchRows';

/** What the scroll bar takes at most, in pixels. */
const scrollBar = 18;

/**
 * How large the crops are drawn: alike in height, or in proportion to each other; as they fit until somebody changes it.
 * @param size The bench's room, in pixels; null before it is measured.
 */
export function useBenchView(
  { pictures, slots, cells, tiles }: BenchRows,
  size: { width: number; height: number } | null,
) {
  const [scaled, setScaled] = useState(false);
  const toScale = scaled && !tiles;
  const [chosenView, setChosenView] = useState<{ alike?: number; scale?: number }>({});
  const view: View = useMemo(() => {
    const room = size ?? { width: 1148, height: 600 };
    const free = { width: room.width - headWidth - scrollBar, height: room.height };
    if (toScale) return { kind: 'scale', scale: chosenView.scale ?? fittingScale(slots, free) };
    if (tiles) {
      const width = room.width - scrollBar;
      const height =
        chosenView.alike ?? fittingTiles(tiles.length, { width, height: room.height - filterBar });
      return { kind: 'alike', height, width: tileColumns(height, width).width - 2 * pad };
    }
    return chosenView.alike
      ? { kind: 'alike', height: chosenView.alike }
      : fittingView(slots, pictures.length, free);
  }, [toScale, tiles, chosenView, slots, pictures.length, size]);
  const range = toScale ? scales : heights;
  const value = view.kind === 'scale' ? view.scale : view.height;
  const setSize = (to: number) => {
    const held = Math.min(range.most, Math.max(range.least, to));
    setChosenView((now) => ({ ...now, [view.kind]: held }));
  };
  const across = tileColumns(value, (size?.width ?? 1148) - scrollBar);
  const layout = useMemo(() => {
    if (tiles)
      return {
        columns: Array.from({ length: across.across }, () => across.width),
        rows: Array.from(
          { length: Math.ceil(tiles.length / across.across) },
          () => value + caption + 2 * pad + tileFoot,
        ),
      };
    const ids = pictures.map((one) => one.picture.id);
    return layOut(slots, ids, cells, view);
  }, [slots, pictures, cells, view, tiles, across.across, across.width, value]);
  const by = toScale ? 0.02 : 16;
  return {
    ...{ view, range, toScale, setSize, layout: useStableLayout(layout) },
    /** How many tiles stand side by side. */
    across: across.across,
    larger: () => setSize(value + by),
    smaller: () => setSize(value - by),
    /** Null where all crops are tiles of one height. */
    switchScale: tiles ? null : () => setScaled((now) => !now),
  };
}

/** The height of the bar over tiles, in pixels. */
export const filterBar = 38;
