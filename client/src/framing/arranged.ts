/** What a slot's window needs beside the crop: the line above it, and room around both. */
export const caption = 18;
export const around = 14;

const most = 190;
const least = 56;
/** The slot in hand is drawn so much higher than the others, and its column is so much of both where it is wide. */
const higher = 1.6;
const wider = 0.57;
/** Its shape gains from a wider column from here on. */
const wide = 1.4;

/** A square in hand is at least so much larger than one that is not. */
const grows = 1.35;

interface Sides {
  width: number;
  height: number;
}

/** The sizes of the slots' windows in two columns, as large as the room allows, the one in hand larger than the others. */
export function arranged(
  shapes: readonly Sides[],
  inHand: number,
  room: Sides,
): { sizes: Sides[]; columns: string } {
  const rows = Math.ceil(shapes.length / 2);
  const taller = inHand < 0 ? 1 : higher;
  const down = room.height - 12 - rows * (caption + around);
  const hand = shapes[inHand];
  const share = hand && hand.width / hand.height > wide ? wider : 0.5;
  const first = inHand % 2 === 0 ? share : 1 - share;
  const across = [first, 1 - first].map((one) => (room.width - 12) * one - around);
  // Few slots leave room for the one in hand to grow, also across.
  const high = Math.max(least, Math.min(most, down / (rows - 1 + taller), Math.min(...across) / grows));
  return {
    sizes: shapes.map(({ width, height }, i) => {
      const fits = Math.min(across[i % 2]! / width, (i === inHand ? high * taller : high) / height);
      return { width: Math.max(20, width * fits), height: Math.max(12, height * fits) };
    }),
    columns: `${first}fr ${1 - first}fr`,
  };
}
