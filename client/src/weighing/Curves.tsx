import { useState } from 'react';
import type { CurvePoint, Slot, VariantFile } from '../api/client';
import { KeyButton } from '../design/Button';
import { weight } from '../design/figures';
import { useElementSize } from '../framing/useElementSize';
import { typeNames } from '../design/typeNames';
import type { Curve } from './useCurves';

const room = { left: 150, right: 130, top: 12, bottom: 30 };
/** The borders between the words for likeness, as the core has them; the lowest is the foot of the drawing. */
const levels = [
  { at: 0.998, name: 'No difference' },
  { at: 0.995, name: 'Hard to see' },
  { at: 0.984, name: 'Slight' },
  { at: 0.969, name: 'Visible' },
  { at: 0.9, name: 'Rough' },
];
/** What is left to 1 is what the eye sees: it is drawn by its logarithm. */
const height = (likeness: number) => -Math.log10(Math.max(0.0006, 1 - likeness));
const [foot, head] = [height(0.9), height(0.9994)];
const dashes: Record<string, string | undefined> = { jpeg: undefined, webp: '7 4', avif: '2 4', png: '1 6' };

/** Weight against likeness, a line for each type; a point is chosen by clicking or with the arrow keys. */
export function Curves({
  curves,
  slot,
  file,
  original,
  others,
  onOthers,
  onPick,
}: {
  curves: readonly Curve[];
  slot: Slot;
  file: VariantFile | null;
  original: number;
  /** True while types are drawn that the slot does not take. */
  others: boolean;
  onOthers: () => void;
  onPick: (format: string, quality: number | null) => void;
}) {
  const [box, size] = useElementSize<HTMLDivElement>();
  const [near, setNear] = useState<{ curve: Curve; point: CurvePoint } | null>(null);
  const points = curves.flatMap((curve) => curve.points);
  const weights = [
    ...points.map((point) => point.bytes),
    ...(file ? [file.bytes] : []),
    ...(slot.maxBytes ? [slot.maxBytes] : []),
  ];
  const working = curves.some((curve) => curve.working);
  const least = Math.min(...weights) * 0.8;
  const most = Math.max(...weights) * 1.25;
  const inner = size
    ? { width: size.width - room.left - room.right, height: size.height - room.top - room.bottom }
    : null;
  const x = (bytes: number) => room.left + (inner!.width * Math.log(bytes / least)) / Math.log(most / least);
  const y = (likeness: number) =>
    room.top +
    inner!.height * (1 - (Math.min(head, Math.max(foot, height(likeness))) - foot) / (head - foot));
  const labels = new Map(inner ? spread(curves, y) : []);
  const nearest = (clientX: number, clientY: number) => {
    const edges = box.current!.getBoundingClientRect();
    const all = curves.flatMap((curve) => curve.points.map((point) => ({ curve, point })));
    const away = ({ point }: { point: CurvePoint }) =>
      Math.hypot(x(point.bytes) - (clientX - edges.left), y(point.likeness) - (clientY - edges.top));
    return all.toSorted((a, b) => away(a) - away(b))[0] ?? null;
  };
  const taken = curves.filter((curve) => curve.taken);
  const byKeys = (event: React.KeyboardEvent) => {
    const format = file?.format ?? taken[0]?.format;
    const index = taken.findIndex((curve) => curve.format === format);
    const mine = taken[index];
    if (!mine || mine.points.length === 0) return;
    const along = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    const across = { ArrowUp: -1, ArrowDown: 1 }[event.key];
    if (along === undefined && across === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    if (along !== undefined) {
      const now = file?.bytes ?? 0;
      const next =
        along > 0
          ? mine.points.find((point) => point.bytes > now)
          : mine.points.findLast((point) => point.bytes < now);
      if (next) onPick(mine.format, next.quality);
    } else {
      const other = taken[(index + across! + taken.length) % taken.length]!;
      const alike = other.points.toSorted(
        (a, b) => Math.abs(a.likeness - (file?.likeness ?? 1)) - Math.abs(b.likeness - (file?.likeness ?? 1)),
      )[0];
      if (alike) onPick(other.format, alike.quality);
    }
  };
  return (
    <section
      ref={box}
      aria-label="Weight against likeness"
      className="relative border-t border-line bg-sheet"
      data-testid="curves"
    >
      {size && inner && points.length > 0 && (
        <div
          role="slider"
          tabIndex={0}
          aria-label="Point on the curves: left and right change the weight, up and down the type"
          aria-valuemin={0}
          aria-valuemax={Math.round(most)}
          aria-valuenow={file?.bytes ?? 0}
          aria-valuetext={
            file
              ? `${file.formatLabel}${file.quality === null ? '' : ` ${file.quality}`}, ${weight(file.bytes)}`
              : undefined
          }
          className="absolute inset-0 cursor-pointer"
          onKeyDown={byKeys}
          onPointerMove={(event) => setNear(nearest(event.clientX, event.clientY))}
          onPointerLeave={() => setNear(null)}
          onClick={(event) => {
            const found = nearest(event.clientX, event.clientY);
            if (found?.curve.taken) onPick(found.curve.format, found.point.quality);
          }}
        >
          <svg width={size.width} height={size.height} aria-hidden className="block">
            {levels.map(({ at, name }, i) => {
              const above = i === 0 ? 0.9994 : levels[i - 1]!.at;
              return (
                <g key={name}>
                  {at > 0.9 && (
                    <line
                      x1={room.left}
                      x2={size.width - room.right}
                      y1={y(at)}
                      y2={y(at)}
                      className="stroke-line"
                    />
                  )}
                  <text
                    x={room.left - 10}
                    y={(y(at) + y(above)) / 2 + 4}
                    textAnchor="end"
                    className="fill-ink-2 text-[11px]"
                  >
                    {name}
                  </text>
                </g>
              );
            })}
            {slot.bandLeast != null && slot.bandMost != null && (
              <rect
                x={x(Math.max(least, slot.bandLeast))}
                width={Math.max(0, x(slot.bandMost) - x(Math.max(least, slot.bandLeast)))}
                y={room.top}
                height={inner.height}
                className="fill-accent/12"
              />
            )}
            {slot.likenessAim != null && (
              <line
                x1={room.left}
                x2={size.width - room.right}
                y1={y(slot.likenessAim)}
                y2={y(slot.likenessAim)}
                className="stroke-accent"
                strokeDasharray="1 3"
              />
            )}
            <line
              x1={room.left}
              x2={size.width - room.right}
              y1={room.top + inner.height}
              y2={room.top + inner.height}
              className="stroke-ink-2"
            />
            {ticks(least, most).map((tick) => (
              <g key={tick}>
                <line
                  x1={x(tick)}
                  x2={x(tick)}
                  y1={room.top + inner.height}
                  y2={room.top + inner.height + 5}
                  className="stroke-ink-2"
                />
                <text
                  x={x(tick)}
                  y={room.top + inner.height + 17}
                  textAnchor="middle"
                  className="fill-ink-2 text-[11px]"
                >
                  {weight(tick)}
                </text>
              </g>
            ))}
            {slot.maxBytes != null && (
              <g>
                <line
                  x1={x(slot.maxBytes)}
                  x2={x(slot.maxBytes)}
                  y1={room.top - 4}
                  y2={room.top + inner.height}
                  className="stroke-ink"
                  strokeWidth="2"
                />
                <line
                  x1={x(slot.maxBytes) - 5}
                  x2={x(slot.maxBytes) + 5}
                  y1={room.top - 4}
                  y2={room.top - 4}
                  className="stroke-ink"
                  strokeWidth="2"
                />
              </g>
            )}
            {curves.map((curve) => (
              <g key={curve.format} data-testid={`curve-${curve.format}`}>
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
                    r={near?.point === point ? 5 : 2.5}
                    className={curve.taken ? 'fill-ink' : 'fill-ink-2'}
                  />
                ))}
                {curve.points.length > 0 && (
                  <text
                    x={x(curve.points.at(-1)!.bytes) + 8}
                    y={labels.get(curve)}
                    className={curve.taken ? 'fill-ink text-[11px] font-semibold' : 'fill-ink-2 text-[11px]'}
                  >
                    {typeNames[curve.format]}
                  </text>
                )}
              </g>
            ))}
            {file && file.likeness !== null && (
              <g data-testid="chosen-point">
                <line
                  x1={x(file.bytes)}
                  x2={x(file.bytes)}
                  y1={y(file.likeness)}
                  y2={room.top + inner.height}
                  className="stroke-accent"
                  strokeWidth="2"
                />
                <rect
                  x={x(file.bytes) - 4.5}
                  y={y(file.likeness) - 4.5}
                  width="9"
                  height="9"
                  className="fill-accent"
                />
              </g>
            )}
          </svg>
          {near && (
            <span
              className="pointer-events-none absolute bg-ink px-1.5 text-[11px] leading-5 whitespace-nowrap text-sheet"
              style={{
                left: Math.min(size.width - (near.curve.taken ? 190 : 310), x(near.point.bytes) + 8),
                top: Math.max(0, y(near.point.likeness) - 24),
              }}
            >
              {typeNames[near.curve.format]}
              {near.point.quality === null ? '' : ` ${near.point.quality}`}, {weight(near.point.bytes)},{' '}
              {near.point.likeness.toFixed(3)}
              {!near.curve.taken && ', not a type of this slot'}
            </span>
          )}
        </div>
      )}
      <KeyButton
        className="absolute top-2 right-2 h-6! text-[12px]"
        name={others ? 'Its types' : 'Other types'}
        title={
          others ? 'Draw the types that the slot takes' : 'Draw the types that the slot does not take as well'
        }
        k="O"
        act={onOthers}
      />
      {points.length === 0 && (
        <p className="grid h-full place-items-center text-ink-2">
          {working ? 'Weighing the types.' : `The original weighs ${weight(original)}.`}
        </p>
      )}
      {working && points.length > 0 && (
        <span className="absolute right-3 bottom-2 text-[11px] text-ink-2">weighing</span>
      )}
    </section>
  );
}

/** Round weights along a logarithmic scale. */
function ticks(least: number, most: number): number[] {
  const all: number[] = [];
  for (let power = 10 ** Math.floor(Math.log10(least)); power < most; power *= 10)
    for (const step of [1, 2, 5]) if (power * step >= least && power * step <= most) all.push(power * step);
  return all;
}

/** Where the names at the ends of the curves stand, none on another. */
function spread(curves: readonly Curve[], y: (likeness: number) => number): [Curve, number][] {
  let last = -Infinity;
  return curves
    .filter((curve) => curve.points.length > 0)
    .map((curve) => ({ curve, at: y(curve.points.at(-1)!.likeness) + 4 }))
    .toSorted((a, b) => a.at - b.at)
    .map(({ curve, at }) => [curve, (last = Math.max(at, last + 13))]);
}
