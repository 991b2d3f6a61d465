/** A box on the screen. */
export interface Placed {
  left: number;
  top: number;
  width: number;
}

/** Of boxes in lines: the one in the line above (-1) or below (1) another whose middle is nearest; the same where there is no such line. */
export function nearestInLine(boxes: readonly Placed[], from: number, by: number): number {
  const here = boxes[from];
  if (!here) return from;
  const middle = here.left + here.width / 2;
  const other = boxes.filter((one) => (by > 0 ? one.top > here.top + 1 : one.top < here.top - 1));
  const top = by > 0 ? Math.min(...other.map((one) => one.top)) : Math.max(...other.map((one) => one.top));
  const far = (one: Placed) => Math.abs(one.left + one.width / 2 - middle);
  const near = other.filter((one) => Math.abs(one.top - top) < 1).toSorted((a, b) => far(a) - far(b))[0];
  return near ? boxes.indexOf(near) : from;
}
