import type { CurvePoint, FileType, LikenessWord, Slot, VariantFile } from '../api/client';
import { weight } from '../design/figures';
import { typeNames } from '../design/typeNames';
import { labelsFor, levels, type Scales } from './scales';
import type { Curve } from './useCurves';
import { WeightAxis } from './WeightAxis';
import { t } from '../texts/texts';

const dashes: Record<FileType, string | undefined> = {
  jpeg: undefined,
  webp: '7 4',
  avif: '2 4',
  png: '1 6',
};
const names: Record<LikenessWord, string> = {
  noDifference: t('weighing.noDifference'),
  hardToSee: t('weighing.hardToSee'),
  slight: t('weighing.slight'),
  visible: t('weighing.visible'),
  rough: t('weighing.rough'),
};

/** The drawing itself: levels of likeness, the slot's limits, a line for each type, the chosen file. */
export function CurveDrawing({
  width,
  height,
  scales,
  curves,
  slot,
  file,
  near,
}: {
  width: number;
  height: number;
  scales: Scales;
  curves: readonly Curve[];
  slot: Slot;
  file: VariantFile | null;
  near: CurvePoint | undefined;
}) {
  const labels = labelsFor(curves, scales);
  return (
    <svg width={width} height={height} aria-hidden className="block">
      <Levels scales={scales} />
      <Aims scales={scales} slot={slot} />
      <WeightAxis scales={scales} />
      {slot.maxBytes != null && <Limit scales={scales} bytes={slot.maxBytes} />}
      {curves.map((curve) => (
        <Line key={curve.format} scales={scales} curve={curve} near={near} label={labels.get(curve)} />
      ))}
      {file && file.likeness !== null && (
        <Chosen scales={scales} bytes={file.bytes} likeness={file.likeness} />
      )}
    </svg>
  );
}

function Levels({ scales: { left, right, top, y } }: { scales: Scales }) {
  return levels.map(({ word, at }, i) => (
    <g key={word}>
      {i < levels.length - 1 && <line x1={left} x2={right} y1={y(at)} y2={y(at)} className="stroke-line" />}
      <text
        x={left - 10}
        y={(y(at) + (i === 0 ? top : y(levels[i - 1]!.at))) / 2 + 4}
        textAnchor="end"
        className="fill-ink-2 text-note"
      >
        {names[word]}
      </text>
    </g>
  ));
}

/** The band of weights and the likeness that are wanted. */
function Aims({ scales: { left, right, top, bottom, x, y, least }, slot }: { scales: Scales; slot: Slot }) {
  const from = x(Math.max(least, slot.bandLeast ?? least));
  return (
    <>
      {slot.bandLeast != null && slot.bandMost != null && (
        <rect
          x={from}
          width={Math.max(0, x(slot.bandMost) - from)}
          y={top}
          height={bottom - top}
          className="fill-accent/12"
        />
      )}
      {slot.likenessAim != null && (
        <line
          x1={left}
          x2={right}
          y1={y(slot.likenessAim)}
          y2={y(slot.likenessAim)}
          className="stroke-accent"
          strokeDasharray="1 3"
        />
      )}
    </>
  );
}

function Limit({ scales: { right, top, bottom, x }, bytes }: { scales: Scales; bytes: number }) {
  const at = x(bytes);
  const before = at > right - 90;
  return (
    <>
      <g className="stroke-ink" strokeWidth="2">
        <line x1={at} x2={at} y1={top - 4} y2={bottom} />
        <line x1={at - 5} x2={at + 5} y1={top - 4} y2={top - 4} />
      </g>
      <text
        x={before ? at - 8 : at + 8}
        y={top + 5}
        textAnchor={before ? 'end' : 'start'}
        className="fill-ink stroke-sheet stroke-4 text-note font-semibold [paint-order:stroke]"
      >
        {t('weighing.limitOf', { bytes: weight(bytes) })}
      </text>
    </>
  );
}

function Line({
  scales: { x, y },
  curve,
  near,
  label,
}: {
  scales: Scales;
  curve: Curve;
  near: CurvePoint | undefined;
  label: number | undefined;
}) {
  return (
    <g data-testid={`curve-${curve.format}`}>
      <polyline
        points={curve.points.map((point) => `${x(point.bytes)},${y(point.likeness)}`).join(' ')}
        fill="none"
        className={curve.taken ? 'stroke-ink' : 'stroke-ink-2'}
        strokeWidth={curve.taken ? 1.5 : 1}
        strokeDasharray={dashes[curve.format]}
      />
      {curve.points.map((point) => (
        <circle
          key={point.bytes}
          cx={x(point.bytes)}
          cy={y(point.likeness)}
          r={near === point ? 5 : 2.5}
          className={curve.taken ? 'fill-ink' : 'fill-ink-2'}
        />
      ))}
      {curve.points.length > 0 && (
        <text
          x={x(curve.points.at(-1)!.bytes) + 8}
          y={label}
          className={`stroke-sheet stroke-4 [paint-order:stroke] ${curve.taken ? 'fill-ink text-note font-semibold' : 'fill-ink-2 text-note'}`}
        >
          {typeNames[curve.format]}
        </text>
      )}
    </g>
  );
}

function Chosen({
  scales: { bottom, x, y },
  bytes,
  likeness,
}: {
  scales: Scales;
  bytes: number;
  likeness: number;
}) {
  const [left, top] = [x(bytes), y(likeness)];
  return (
    <g data-testid="chosen-point">
      <line x1={left} x2={left} y1={top} y2={bottom} className="stroke-accent" strokeWidth="2" />
      <rect x={left - 4.5} y={top - 4.5} width="9" height="9" className="fill-accent" />
      <text
        x={left - 9}
        y={bottom - 7}
        textAnchor="end"
        className="fill-accent stroke-sheet stroke-4 text-note font-semibold [paint-order:stroke]"
      >
        {t('weighing.thisFileBytes', { bytes: weight(bytes) })}
      </text>
    </g>
  );
}
