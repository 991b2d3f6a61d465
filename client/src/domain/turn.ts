import type { Decisions, Edges, Turn } from '../api/client';
import type { Size } from './box';

/** How a picture lies after a turn; the same geometry as in the core. */
const radians = (turn: Turn) => (turn.degrees * Math.PI) / 180;

export function uprightSize(turn: Turn, original: Size): Size {
  return turn.quarters % 2 === 0 ? original : { width: original.height, height: original.width };
}

export function turnedSize(turn: Turn, original: Size): Size {
  const { width: w, height: h } = uprightSize(turn, original);
  if (turn.degrees === 0) return { width: w, height: h };
  // Whole pixels, as in the core.
  const whole = (width: number, height: number) => ({
    width: Math.max(1, Math.floor(width + 1e-9)),
    height: Math.max(1, Math.floor(height + 1e-9)),
  });
  const [sin, cos] = [Math.abs(Math.sin(radians(turn))), Math.cos(radians(turn))];
  if (Math.min(w, h) <= 2 * sin * cos * Math.max(w, h)) {
    const half = Math.min(w, h) / 2;
    return w >= h ? whole(half / sin, half / cos) : whole(half / cos, half / sin);
  }
  const twice = cos * cos - sin * sin;
  return whole((w * cos - h * sin) / twice, (h * cos - w * sin) / twice);
}

type Point = { x: number; y: number };

/** From the turned picture back to the original, both as fractions. */
function toOriginal(point: Point, turn: Turn, original: Size): Point {
  const upright = uprightSize(turn, original);
  const left = turnedSize(turn, original);
  const [dx, dy] = [(point.x - 0.5) * left.width, (point.y - 0.5) * left.height];
  const [sin, cos] = [Math.sin(radians(turn)), Math.cos(radians(turn))];
  const at = {
    x: (dx * cos + dy * sin) / upright.width + 0.5,
    y: (-dx * sin + dy * cos) / upright.height + 0.5,
  };
  if (turn.quarters === 1) return { x: at.y, y: 1 - at.x };
  if (turn.quarters === 2) return { x: 1 - at.x, y: 1 - at.y };
  if (turn.quarters === 3) return { x: 1 - at.y, y: at.x };
  return at;
}

function fromOriginal(point: Point, turn: Turn, original: Size): Point {
  const at =
    turn.quarters === 1
      ? { x: 1 - point.y, y: point.x }
      : turn.quarters === 2
        ? { x: 1 - point.x, y: 1 - point.y }
        : turn.quarters === 3
          ? { x: point.y, y: 1 - point.x }
          : point;
  const upright = uprightSize(turn, original);
  const left = turnedSize(turn, original);
  const [dx, dy] = [(at.x - 0.5) * upright.width, (at.y - 0.5) * upright.height];
  const [sin, cos] = [Math.sin(radians(turn)), Math.cos(radians(turn))];
  return { x: (dx * cos - dy * sin) / left.width + 0.5, y: (dx * sin + dy * cos) / left.height + 0.5 };
}

const inUnit = (value: number) => Math.min(1, Math.max(0, value));

/**
 * The decisions under another turn: marks stay on what they mark. Frames by hand stay with a small angle; with a quarter they
 * would have another shape, so those slots follow the marks again.
 */
export function turned(decisions: Decisions, to: Turn, original: Size): Decisions {
  const from = decisions.turn;
  const move = (point: Point) => {
    const there = fromOriginal(toOriginal(point, from, original), to, original);
    return { x: inUnit(there.x), y: inUnit(there.y) };
  };
  const moveBox = (box: Edges): Edges => {
    const corners = [
      move({ x: box.left, y: box.top }),
      move({ x: box.right, y: box.top }),
      move({ x: box.left, y: box.bottom }),
      move({ x: box.right, y: box.bottom }),
    ];
    const xs = corners.map((corner) => corner.x);
    const ys = corners.map((corner) => corner.y);
    return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
  };
  const quarter = from.quarters !== to.quarters;
  return {
    ...decisions,
    turn: to,
    keep: decisions.keep
      .map(moveBox)
      .filter((box) => box.right - box.left > 0.001 && box.bottom - box.top > 0.001),
    focus: decisions.focus && move(decisions.focus),
    framings: quarter ? {} : decisions.framings,
    cells: Object.fromEntries(
      Object.entries(decisions.cells).map(([slot, cell]) => [
        slot,
        quarter ? { ...cell, frame: null } : cell,
      ]),
    ),
  };
}
