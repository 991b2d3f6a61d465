import { Link } from 'wouter';
import { Button, buttonShape, Key } from '../design/Button';
import { VerdictMark } from '../design/VerdictMark';
import { useJob, useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';
import type { View } from './layout';
import { type Reason, type ReviewCounts, ReviewFilter } from './ReviewFilter';

const sizeWords = (view: View) =>
  view.kind === 'scale' ? `${Math.round(view.scale * 100)} %` : t('bench.heightPx', { height: view.height });

/** The bar over the bench: what is to review, what can be done with whole rows, and the size of the crops. */
export function BenchBar({
  counts,
  reading,
  view,
  range,
  toScale,
  places,
  pair,
  skipped,
  removable,
  onReason,
  onNext,
  onSize,
  onScale,
  onChoose,
  onPlaces,
}: {
  counts: ReviewCounts;
  reading: boolean;
  view: View;
  range: { least: number; most: number; step: number };
  toScale: boolean;
  places: boolean;
  /** Null where the chosen pictures cannot be combined here. */
  pair: { may: boolean; title: string; act: () => void } | null;
  /** Whether skipped cells are shown; null where few are skipped. */
  skipped: { shown: boolean; show: (shown: boolean) => void } | null;
  /** The pictures of the rows that are chosen whole; null where there is none. */
  removable: ReadonlySet<string> | null;
  onReason: (reason: Reason | null) => void;
  onNext: () => void;
  onSize: (to: number) => void;
  /** Null where crops have one height only. */
  onScale: (() => void) | null;
  onChoose: () => void;
  onPlaces: () => void;
}) {
  const store = useJobStore();
  return (
    <div className="flex flex-wrap items-center gap-x-1.5 gap-y-1 border-b border-line bg-sheet px-5 py-1.5 max-[1100px]:[&_kbd]:hidden">
      <ReviewFilter counts={counts} reason={null} reading={reading} onReason={onReason}>
        <Button onClick={onNext} className="h-7!">
          {t('bench.next')} <Key>E</Key>
        </Button>
      </ReviewFilter>
      <WayOn settled={counts.cells === 0 && !reading} />
      {pair && (
        <Button needs="edit" className="h-7!" disabled={!pair.may} title={pair.title} onClick={pair.act}>
          {t('bench.sideBySide')} <Key>D</Key>
        </Button>
      )}
      {removable && (
        <Button needs="edit" className="h-7!" onClick={() => void store.removePictures([...removable])}>
          {t('bench.removePictures', { count: removable.size })} <Key>Del</Key>
        </Button>
      )}
      {skipped && (
        <Button
          className={`h-7! ${skipped.shown ? 'border-ink! bg-sheet-2!' : ''}`}
          aria-pressed={skipped.shown}
          title={t('bench.showSkippedCells')}
          onClick={() => skipped.show(!skipped.shown)}
        >
          {t('bench.showSkipped')}
        </Button>
      )}
      <CropSize view={view} range={range} toScale={toScale} onSize={onSize} onScale={onScale} />
      <Button needs="edit" className="h-7!" onClick={onChoose}>
        {t('bench.addPictures')} <Key>R</Key>
      </Button>
      <Button
        className={`h-7! ${places ? 'border-ink! bg-sheet-2!' : ''}`}
        aria-pressed={places}
        onClick={onPlaces}
      >
        {t('bench.slots')} <Key>S</Key>
      </Button>
    </div>
  );
}

/** The way on, once nothing is to review and every file is made; and the room up to what is on the right. */
function WayOn({ settled }: { settled: boolean }) {
  const store = useJobStore();
  const left = useJob(({ progress }) => (progress ? progress.files - progress.done - progress.failed : 1));
  if (!settled || left > 0) return <span className="flex-1" />;
  return (
    <>
      <VerdictMark verdict="meets" />
      <Link
        href={`/job/${store.id}/handing-over`}
        className={`${buttonShape} ml-2 h-7! border-accent bg-accent text-on-accent hover:brightness-110`}
      >
        {t('bench.handOver')} <Key>G</Key>
      </Link>
      <span className="flex-1" />
    </>
  );
}

/** How large the crops are drawn, and whether in proportion to each other. */
function CropSize({
  view,
  range,
  toScale,
  onSize,
  onScale,
}: {
  view: View;
  range: { least: number; most: number; step: number };
  toScale: boolean;
  onSize: (to: number) => void;
  onScale: (() => void) | null;
}) {
  const name = toScale ? t('bench.scale') : t('bench.cropHeight');
  return (
    <>
      <label className="flex items-center gap-2">
        <input
          type="range"
          min={range.least}
          max={range.most}
          step={range.step}
          value={view.kind === 'scale' ? view.scale : view.height}
          aria-label={name}
          title={t('bench.toScaleViewAnd', { toScale: name, view: sizeWords(view) })}
          aria-valuetext={sizeWords(view)}
          onChange={(event) => onSize(Number(event.target.value))}
          className="w-20 accent-(--pm-accent)"
        />
        <span className="w-10 text-right whitespace-nowrap text-ink-2">{sizeWords(view)}</span>
      </label>
      {onScale && (
        <Button
          className={`h-7! ${toScale ? 'border-ink! bg-sheet-2!' : ''}`}
          aria-pressed={toScale}
          title={t('bench.drawAllCropsToOneScale')}
          onClick={onScale}
        >
          {t('bench.trueScale')} <Key>P</Key>
        </Button>
      )}
    </>
  );
}
