import { useState } from 'react';
import type { CurvePoint, FileType, Slot, VariantFile } from '../api/client';
import { KeyButton } from '../design/Button';
import { weight } from '../design/figures';
import { typeNames } from '../design/typeNames';
import { useElementSize } from '../design/useElementSize';
import { CurveDrawing } from './CurveDrawing';
import { nearestPoint, scalesFor } from './scales';
import type { Curve } from './useCurves';
import { t } from '../texts/texts';

type Pick = (format: FileType, quality: number | null) => void;

interface CurvesProps {
  curves: readonly Curve[];
  slot: Slot;
  file: VariantFile | null;
  onPick: Pick;
}

/** Weight against likeness, a line for each type; a point is chosen by clicking or with the arrow keys. */
export function Curves({
  original,
  others,
  onOthers,
  ...drawn
}: CurvesProps & {
  original: number;
  /** True while types are drawn that the slot does not take. */
  others: boolean;
  onOthers: () => void;
}) {
  const [box, size] = useElementSize<HTMLDivElement>();
  const working = drawn.curves.some((curve) => curve.working);
  const any = drawn.curves.some((curve) => curve.points.length > 0);
  return (
    <section
      ref={box}
      aria-label={t('weighing.weightAgainstLikeness')}
      className="relative border-t border-line bg-sheet"
      data-testid="curves"
    >
      {size && any && <Picker {...drawn} size={size} />}
      <KeyButton
        className="absolute top-2 right-2 h-6! text-small"
        name={others ? t('weighing.slotTypesOnly') : t('weighing.compareFileTypes')}
        title={others ? t('weighing.showOnlyTheTypesThatThe') : t('weighing.showAlsoTheTypesThatThe')}
        k="O"
        act={onOthers}
      />
      {!any && (
        <p className="grid h-full place-items-center text-ink-2">
          {working
            ? t('weighing.weighingTheTypes')
            : t('weighing.theOriginalWeighsOriginal', { original: weight(original) })}
        </p>
      )}
      {working && any && (
        <span className="absolute right-3 bottom-2 text-note text-ink-2">{t('weighing.weighing2')}</span>
      )}
    </section>
  );
}

/** The drawing as a field in which a point is picked. */
function Picker({
  curves,
  slot,
  file,
  onPick,
  size,
}: CurvesProps & { size: { width: number; height: number } }) {
  const [near, setNear] = useState<{ curve: Curve; point: CurvePoint } | null>(null);
  const scales = scalesFor(size, [
    ...curves.flatMap((curve) => curve.points.map((point) => point.bytes)),
    ...(file ? [file.bytes] : []),
    ...(slot.maxBytes ? [slot.maxBytes] : []),
  ]);
  const under = (event: React.MouseEvent) => {
    const edges = event.currentTarget.getBoundingClientRect();
    return nearestPoint(curves, scales, { x: event.clientX - edges.left, y: event.clientY - edges.top });
  };
  const take = (event: React.MouseEvent) => {
    const found = under(event);
    if (found?.curve.taken) onPick(found.curve.format, found.point.quality);
  };
  const byKeys = (event: React.KeyboardEvent) => {
    const step = steps[event.key];
    const taken = curves.filter((curve) => curve.taken);
    if (!step || taken.length === 0) return;
    event.preventDefault();
    event.stopPropagation();
    const next = step.along ? along(taken, file, step.along) : across(taken, file, step.across!);
    if (next) onPick(next.format, next.quality);
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={t('weighing.pointOnTheCurvesLeftAnd')}
      aria-valuemin={0}
      aria-valuemax={Math.round(scales.most)}
      aria-valuenow={file?.bytes ?? 0}
      aria-valuetext={
        file
          ? `${file.formatLabel}${file.quality === null ? '' : ` ${file.quality}`}, ${weight(file.bytes)}`
          : undefined
      }
      className="absolute inset-0 cursor-pointer"
      onKeyDown={byKeys}
      onPointerMove={(event) => setNear(under(event))}
      onPointerLeave={() => setNear(null)}
      onClick={take}
    >
      <CurveDrawing {...size} scales={scales} curves={curves} slot={slot} file={file} near={near?.point} />
      {near && (
        <Label
          near={near}
          left={Math.min(size.width - (near.curve.taken ? 190 : 310), scales.x(near.point.bytes) + 8)}
          top={Math.max(0, scales.y(near.point.likeness) - 24)}
        />
      )}
    </div>
  );
}

function Label({
  near: { curve, point },
  left,
  top,
}: {
  near: { curve: Curve; point: CurvePoint };
  left: number;
  top: number;
}) {
  return (
    <span
      className="pointer-events-none absolute bg-ink px-1.5 text-note leading-5 whitespace-nowrap text-sheet"
      style={{ left, top }}
    >
      {typeNames[curve.format]}
      {point.quality === null ? '' : ` ${point.quality}`}, {weight(point.bytes)}, {point.likeness.toFixed(3)}
      {!curve.taken && t('weighing.notATypeOfThisSlot')}
    </span>
  );
}

const steps: Record<string, { along?: number; across?: number }> = {
  ArrowLeft: { along: -1 },
  ArrowRight: { along: 1 },
  ArrowUp: { across: -1 },
  ArrowDown: { across: 1 },
};

const indexOf = (taken: readonly Curve[], file: VariantFile | null) =>
  Math.max(
    0,
    taken.findIndex((curve) => curve.format === file?.format),
  );

/** The next lighter or heavier point of the same type. */
function along(taken: readonly Curve[], file: VariantFile | null, step: number) {
  const { format, points } = taken[indexOf(taken, file)]!;
  const now = file?.bytes ?? 0;
  const next = step > 0 ? points.find((one) => one.bytes > now) : points.findLast((one) => one.bytes < now);
  return next && { format, quality: next.quality };
}

/** The point of another type that is most nearly as alike. */
function across(taken: readonly Curve[], file: VariantFile | null, step: number) {
  const { format, points } = taken[(indexOf(taken, file) + step + taken.length) % taken.length]!;
  const off = (point: CurvePoint) => Math.abs(point.likeness - (file?.likeness ?? 1));
  const alike = points.toSorted((a, b) => off(a) - off(b))[0];
  return alike && { format, quality: alike.quality };
}
