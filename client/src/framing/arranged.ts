/** What a slot's window needs beside the crop: the line above it, and room around both. */
export const caption = 18;
export const around = 14;

const most = 250;
const least = 72;
/** The slot in hand fills its place; the others are drawn so many times smaller in theirs. */
const larger = 1.35;

interface Sides {
  width: number;
  height: number;
}

/**
 * The windows of the slots in two columns, as large as the room allows. Each has a place that it would fill if it were in hand, so that nothing
 * else moves when another slot is taken.
 * @returns The size of each window, and the height of each place without the line above it.
 */
export function arranged(
  shapes: readonly Sides[],
  inHand: number,
  room: Sides,
): { sizes: Sides[]; places: number[] } {
  const rows = Math.ceil(shapes.length / 2);
  const across = (room.width - 12) / 2 - around;
  const high = Math.max(least, Math.min(most, (room.height - 12) / rows - caption - around));
  const full = shapes.map(({ width, height }) => {
    const fits = Math.min(across / width, high / height);
    return { width: width * fits, height: height * fits };
  });
  return {
    sizes: full.map(({ width, height }, i) => {
      const by = i === inHand ? 1 : 1 / larger;
      return { width: Math.max(20, width * by), height: Math.max(12, height * by) };
    }),
    places: full.map(({ height }) => Math.max(12, height)),
  };
}
