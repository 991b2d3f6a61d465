import { useMemo } from 'react';
import { useElementSize } from '../design/useElementSize';
import { useHead, useJob } from '../jobs/useJob';
import { BenchBar } from './BenchBar';
import { BenchGrid } from './BenchGrid';
import { BenchTiles } from './BenchTiles';
import { countToReview, type Reason } from './ReviewFilter';
import { Tray } from './Tray';
import { useBench } from './useBench';
import { useBenchRows } from './useBenchRows';
import { useBenchKeys } from './useBenchKeys';
import { useBenchView } from './useBenchView';

/** All pictures by all slots, what is chosen of them, and what can be done with it. */
export function FullBench({
  onChoose,
  places,
  onPlaces,
  onReason,
}: {
  onChoose: () => void;
  places: boolean;
  onPlaces: () => void;
  onReason: (reason: Reason | null) => void;
}) {
  const head = useHead();
  const [room, size] = useElementSize<HTMLDivElement>();
  const rows = useBenchRows();
  const view = useBenchView(rows, size);
  const bench = useBench(rows, view.across);
  useBenchKeys(bench, view);
  const reading = useJob((job) => job.reading);
  const counts = useMemo(() => countToReview(bench.cells.values(), head), [bench.cells, head]);
  return (
    <div className="grid min-h-0 min-w-0 flex-1 grid-rows-[auto_1fr]">
      <BenchBar
        counts={counts}
        reading={reading}
        view={view.view}
        range={view.range}
        toScale={view.toScale}
        places={places}
        pair={bench.pair}
        skipped={bench.skipped}
        removable={bench.wholeRows}
        onReason={onReason}
        onNext={bench.nextToReview}
        onSize={view.setSize}
        onScale={view.switchScale}
        onChoose={onChoose}
        onPlaces={onPlaces}
      />
      {/* The crops are as large as the room with the tray is: none moves when a cell is chosen. */}
      <div ref={room} className="grid min-h-0 min-w-0 grid-rows-[minmax(0,1fr)_auto]">
        {/* Drawn once its size is known: drawing four thousand cells twice is seen. */}
        {size && bench.tiles && <BenchTiles bench={bench} layout={view.layout} view={view.view} />}
        {size && !bench.tiles && <BenchGrid bench={bench} layout={view.layout} view={view.view} />}
        {bench.chosen.length > 0 && <Tray chosen={bench.chosen} focusAt={bench.point} />}
      </div>
    </div>
  );
}
