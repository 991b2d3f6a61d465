import { useMemo, useState } from 'react';
import { useElementSize } from '../design/useElementSize';
import { headWidth } from './BenchRow';
import { fittingScale, fittingView, heights, layOut, scales, type View } from './layout';
import { useStableLayout } from './pairing';
import type { BenchState } from './useBench';

/** How large the crops are drawn: alike in height, or in proportion to each other; as they fit until somebody changes it. */
export function useBenchView({ pictures, slots, cells }: BenchState) {
  const [room, size] = useElementSize<HTMLDivElement>();
  const [toScale, setToScale] = useState(false);
  const [chosenView, setChosenView] = useState<{ alike?: number; scale?: number }>({});
  const view: View = useMemo(() => {
    const free = size
      ? { width: size.width - headWidth - 18, height: size.height }
      : { width: 1000, height: 600 };
    return toScale
      ? { kind: 'scale', scale: chosenView.scale ?? fittingScale(slots, free) }
      : chosenView.alike
        ? { kind: 'alike', height: chosenView.alike }
        : fittingView(slots, pictures.length, free);
  }, [toScale, chosenView, slots, pictures.length, size]);
  const range = toScale ? scales : heights;
  const value = view.kind === 'scale' ? view.scale : view.height;
  const setSize = (to: number) => {
    const held = Math.min(range.most, Math.max(range.least, to));
    setChosenView((now) => ({ ...now, [view.kind]: held }));
  };
  const layout = useMemo(() => {
    const ids = pictures.map((one) => one.picture.id);
    return layOut(slots, ids, cells, view);
  }, [slots, pictures, cells, view]);
  const by = toScale ? 0.02 : 16;
  return {
    ...{ room, view, range, toScale, setSize, layout: useStableLayout(layout) },
    larger: () => setSize(value + by),
    smaller: () => setSize(value - by),
    switchScale: () => setToScale((now) => !now),
  };
}
