import type { JobPicture, JobSlot } from '../api/client';
import type { Cells } from '../jobs/JobStore';
import type { At } from './useSelection';

/** A picture in a slot. */
export interface Place {
  picture: JobPicture;
  slot: JobSlot;
}

/** Where the cells lie: pictures down and slots across, or one after the other as tiles. */
export interface Arrangement {
  rows: number;
  columns: number;
  at: (at: At) => Place | undefined;
}

/** So few pictures or slots are seen at one look, skipped cells or not. */
const few = 3;
/** A job with no more of its cells in use than this is mostly skipped cells. */
const sparse = 0.4;

/** The cells that are not skipped, picture by picture. What is not read yet counts as in use. */
export const inUse = (
  pictures: readonly JobPicture[],
  slots: readonly JobSlot[],
  cells: Cells,
): readonly Place[] =>
  pictures.flatMap((picture) =>
    slots
      .filter(({ address }) => cells.at(picture.picture.id, address)?.state !== 'skipped')
      .map((slot) => ({ picture, slot })),
  );

/** True where each picture goes to few of the slots, as those of a page do: a matrix would be mostly crossed-out crops. */
export const isSparse = (pictures: readonly JobPicture[], slots: readonly JobSlot[], cells: Cells): boolean =>
  pictures.length >= few &&
  slots.length >= few &&
  inUse(pictures, slots, cells).length <= sparse * pictures.length * slots.length;

/** Pictures down, slots across. */
export const matrix = (pictures: readonly JobPicture[], slots: readonly JobSlot[]): Arrangement => ({
  rows: pictures.length,
  columns: slots.length,
  at: ({ row, column }) => {
    const [picture, slot] = [pictures[row], slots[column]];
    return picture && slot && { picture, slot };
  },
});

/** One after the other, so many side by side; the last row may be short. */
export const tiled = (places: readonly Place[], across: number): Arrangement => ({
  rows: Math.ceil(places.length / across),
  columns: Math.min(across, places.length),
  at: ({ row, column }) => (column < across ? places[row * across + column] : undefined),
});

/** Where a tile's words stand below its crop and caption, in pixels: the slot on two lines, the picture on one. */
export const tileFoot = 44;
/** A tile is so much wider than its crop is high. */
const tileShape = 1.5;
/** No crop of a tile is lower than this at first. */
const leastTile = 110;
const mostTile = 320;

/** What a tile takes beside its crop's height. */
const around = 28 + tileFoot;

/** The greatest height of crops at which all tiles are in view, as far as they can still be judged; else as large as three rows are. */
export function fittingTiles(tiles: number, room: { width: number; height: number }): number {
  for (let across = 1; across <= tiles; across++) {
    const height = Math.min(mostTile, Math.floor(room.width / across / tileShape));
    if (height < leastTile) break;
    if (Math.ceil(tiles / across) * (height + around) <= room.height) return height;
  }
  return Math.max(leastTile, Math.min(mostTile, Math.floor(room.height / 3) - around));
}

/** How many tiles stand side by side, and how wide each is. */
export function tileColumns(height: number, width: number): { across: number; width: number } {
  const across = Math.max(1, Math.floor(width / (height * tileShape)));
  return { across, width: Math.floor(width / across) };
}
