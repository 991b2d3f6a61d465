import { scaleLog } from 'd3-scale';
import { likenessBorderValues } from '../api/schema';
import type { CurvePoint, LikenessWord } from '../api/client';
import type { Curve } from './useCurves';

const room = { left: 150, right: 130, top: 12, bottom: 30 };
/** What is left to 1 is what the eye sees: it is drawn by its logarithm, from the foot of the drawing to its head. */
const [foot, head] = [0.9, 0.9994];
const words: readonly LikenessWord[] = ['noDifference', 'hardToSee', 'slight', 'visible', 'rough'];

/** The words for likeness with the border below each; the lowest is the foot of the drawing. */
export const levels = words.map((word, i) => ({ word, at: likenessBorderValues[i] ?? foot }));

export interface Scales {
  left: number;
  right: number;
  top: number;
  bottom: number;
  x: (bytes: number) => number;
  y: (likeness: number) => number;
  /** Round weights along the axis. */
  ticks: readonly number[];
  least: number;
  most: number;
}

/** Where weights and likenesses lie on a drawing of a size. */
export function scalesFor(size: { width: number; height: number }, weights: readonly number[]): Scales {
  const [least, most] = [Math.min(...weights) * 0.8, Math.max(...weights) * 1.25];
  const [left, right] = [room.left, size.width - room.right];
  const [top, bottom] = [room.top, size.height - room.bottom];
  const x = scaleLog().domain([least, most]).range([left, right]);
  const loss = scaleLog()
    .domain([1 - foot, 1 - head])
    .range([bottom, top])
    .clamp(true);
  return {
    left,
    right,
    top,
    bottom,
    x,
    y: (likeness) => loss(Math.max(1 - likeness, Number.EPSILON)),
    ticks: apart(
      x.ticks().filter((tick) => /^[125]/.test(tick.toExponential())),
      x,
    ),
    least,
    most,
  };
}

/** The point nearest to a place of the drawing. */
export function nearestPoint(
  curves: readonly Curve[],
  { x, y }: Scales,
  place: { x: number; y: number },
): { curve: Curve; point: CurvePoint } | null {
  const away = ({ point }: { point: CurvePoint }) =>
    Math.hypot(x(point.bytes) - place.x, y(point.likeness) - place.y);
  return (
    curves
      .flatMap((curve) => curve.points.map((point) => ({ curve, point })))
      .toSorted((a, b) => away(a) - away(b))[0] ?? null
  );
}

/** Where the names at the ends of the curves stand, none on another. */
export function labelsFor(curves: readonly Curve[], { y }: Scales): ReadonlyMap<Curve, number> {
  let last = -Infinity;
  return new Map(
    curves
      .filter((curve) => curve.points.length > 0)
      .map((curve) => ({ curve, at: y(curve.points.at(-1)!.likeness) + 4 }))
      .toSorted((a, b) => a.at - b.at)
      .map(({ curve, at }) => [curve, (last = Math.max(at, last + 13))]),
  );
}

/** Where the words of ticks stand at least so far from each other, in pixels. */
const tickRoom = 52;

/** Those ticks whose words do not touch. */
function apart(ticks: readonly number[], x: (value: number) => number): number[] {
  let last = -Infinity;
  return ticks.filter((tick) => {
    if (x(tick) - last < tickRoom) return false;
    last = x(tick);
    return true;
  });
}
