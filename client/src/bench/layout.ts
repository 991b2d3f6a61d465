import type { Cell, JobSlot } from '../api/client';
import type { Cells } from '../jobs/JobStore';

/** What a cell needs beside its picture: room around it and the caption below. */
export const pad = 4;
export const caption = 20;
export const headHeight = 66;
/** Beside an upright crop the caption takes so much, and leaves its height to the crop. */
export const captionBeside = 60;
/** A crop that is smaller on its shorter side cannot be judged. */
const leastSide = 64;
/** A slot may ask for more than any bench is wide; to one scale it is drawn no larger than this, in CSS pixels of the slot. */
const mostSide = 3200;
const leastColumn = 84;
const leastRow = 60;
/** A strip is drawn no wider than this times the height of the others. */
const widest = 2.2;
/** So many rows stay in view at first. */
const rowsInView = 5;

/** How crops are drawn: alike in height, to be judged, or to one scale, as large as they stand to each other on a page. */
export type View =
  | { kind: 'alike'; /** In pixels. */ height: number }
  | { kind: 'scale'; /** Pixels for one CSS pixel. */ scale: number };

export const heights = { least: 48, most: 320, step: 4 };
export const scales = { least: 0.04, most: 0.4, step: 0.005 };

export interface Layout {
  columns: number[];
  rows: number[];
}

type Sides = Pick<Cell, 'width' | 'height'>;

/** True where an upright crop would be too narrow: it takes the caption's height as well, and the caption stands beside it. */
export const standsBeside = (cell: Sides, view: View) =>
  view.kind === 'alike' && (cell.width / cell.height) * view.height < Math.min(leastSide, view.height);

/** The size a crop is drawn at, in pixels. */
export const drawn = (cell: Sides, view: View) => {
  if (view.kind === 'alike') {
    const ratio = Math.min(widest, cell.width / cell.height);
    const height = standsBeside(cell, view)
      ? Math.min(view.height + caption, leastSide / ratio)
      : view.height;
    const width = ratio * height;
    return { width, height: Math.min(height, (width * cell.height) / cell.width) };
  }
  const shrink = Math.min(1, mostSide / Math.max(cell.width, cell.height));
  return {
    width: Math.max(6, cell.width * shrink * view.scale),
    height: Math.max(6, cell.height * shrink * view.scale),
  };
};

/** What a cell takes, with its caption and the room around it. */
const taken = (cell: Sides, view: View) => {
  const { width, height } = drawn(cell, view);
  const beside = standsBeside(cell, view);
  return {
    width: width + (beside ? captionBeside : 0) + 2 * pad,
    height: height + (beside ? 0 : caption) + 2 * pad,
  };
};

/** Column widths and row heights: every cell fits, and a row is no higher than its crops. */
export function layOut(
  slots: readonly JobSlot[],
  pictures: readonly string[],
  cells: Cells,
  view: View,
): Layout {
  const columns = slots.map(() => leastColumn);
  const rows = pictures.map(() => leastRow);
  pictures.forEach((picture, row) => {
    slots.forEach((slot, column) => {
      const cell = cells.at(picture, slot.address);
      if (!cell) return;
      const { width, height } = taken(cell, view);
      columns[column] = Math.max(columns[column]!, width);
      rows[row] = Math.max(rows[row]!, height);
    });
  });
  return { columns, rows };
}

const wideTogether = (slots: readonly JobSlot[], view: View) =>
  slots.reduce((sum, { slot }) => sum + Math.max(leastColumn, taken(slot, view).width), 0);

/** The greatest height at which all slots stand side by side and enough rows stay in view; never too small to be judged. */
export function fittingHeight(slots: readonly JobSlot[], room: { width: number; height: number }): number {
  const down = (room.height - headHeight) / rowsInView - 2 * pad - caption - 1;
  let height = Math.max(64, Math.min(heights.most, Math.floor(down)));
  while (height > 64 && wideTogether(slots, { kind: 'alike', height }) > room.width) height--;
  return height;
}

/** The scale at which all slots stand side by side, within what can still be seen. */
export function fittingScale(slots: readonly JobSlot[], room: { width: number }): number {
  let scale = 0.16;
  while (scale > 0.05 && wideTogether(slots, { kind: 'scale', scale }) > room.width) scale -= scales.step;
  return scale;
}
