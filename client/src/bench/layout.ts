import type { Cell, JobSlot } from '../api/client';
import { sentence } from '../design/figures';
import { windows } from '../design/needs';
import type { Cells } from '../jobs/JobStore';

/** What a cell needs beside its picture: room around it and the caption below. */
export const pad = 4;
export const caption = 20;
export const headHeight = 62;
/** Beside an upright crop the caption takes so much, and leaves its height to the crop. */
export const captionBeside = 60;
/** A crop that is smaller on its shorter side cannot be judged. */
const leastSide = 64;
/** A slot may ask for more than any bench is wide; to one scale it is drawn no larger than this, in CSS pixels of the slot. */
const mostSide = 3200;
const leastColumn = 84;
/** A head with long words makes its column wider, up to this. */
const widestHead = 150;
const leastRow = 60;
/** About how wide a letter of a note is, in pixels. */
const letter = 5.7;
/** A strip is drawn no wider than this times the height of the others. */
const widest = 2.2;
/** So high a crop is judged well: what is higher becomes so before wide crops become lower than others. */
const judged = 130;
/** Where the window is narrow, wide crops give way down to this times the height of the others. */
const narrowest = 1.4;
/** So many rows stay in view at first. */
const rowsInView = 5;

/** How crops are drawn: alike in height, to be judged, or to one scale, as large as they stand to each other on a page. */
export type View =
  | {
      kind: 'alike';
      /** In pixels. */
      height: number;
      /** No crop is wider than this, in pixels; what would be is lower. Without it a strip is no wider than 2.2 times the height. */
      width?: number;
    }
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
    const ratio = Math.min(widest, (view.width ?? Infinity) / view.height, cell.width / cell.height);
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

/** How the shape and the size of a slot are said in the head of its column. */
export function shapeWords({ slot }: JobSlot): string {
  const ratio = slot.ratioText ? `${slot.ratioText}, ` : '';
  if (slot.group) return ratio + windows(slot);
  return slot.shape == null ? sentence(slot.size) : `${ratio}${slot.width}×${slot.height}`;
}

/** What stands over the name of a slot: its destination where that begins, else its group. */
export const aboveName = (slot: JobSlot, before: JobSlot | undefined) =>
  before?.destination === slot.destination ? (slot.slot.group ?? '') : slot.destinationName;

/** How wide a head is for its lines, and the longest word of its name, to stand uncut. */
function headWidthOf(slot: JobSlot, before: JobSlot | undefined): number {
  const lines = [aboveName(slot, before), shapeWords(slot)].map((line) => line.length * letter);
  const name = slot.slot.name;
  const words = [...name.split(' ').map((word) => word.length), Math.ceil(name.length / 2)];
  const needed = Math.max(...lines, Math.max(...words) * letter * 1.2) + 18;
  return Math.round(Math.max(leastColumn, Math.min(widestHead, needed)));
}

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
  const columns = slots.map((slot, i) => headWidthOf(slot, slots[i - 1]));
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
  slots.reduce(
    (sum, slot, i) => sum + Math.max(headWidthOf(slot, slots[i - 1]), taken(slot.slot, view).width),
    0,
  );

/**
 * The greatest size at which all slots stand side by side and enough rows stay in view; never too small to be judged. Where the window is too
 * narrow for all at that height, the widest become lower, before all do.
 */
export function fittingView(
  slots: readonly JobSlot[],
  pictures: number,
  room: { width: number; height: number },
): View & { kind: 'alike' } {
  const rows = Math.min(rowsInView, Math.max(1, pictures));
  const down = (room.height - headHeight) / rows - 2 * pad - caption - 1;
  let height = Math.max(leastSide, Math.min(heights.most, Math.floor(down)));
  while (height > judged && wideTogether(slots, { kind: 'alike', height }) > room.width) height--;
  for (; height > leastSide; height--) {
    for (let width = Math.floor(widest * height); width >= narrowest * height; width--) {
      const view = { kind: 'alike', height, width } as const;
      if (wideTogether(slots, view) <= room.width) return view;
    }
  }
  return { kind: 'alike', height };
}

/** The scale at which all slots stand side by side, within what can still be seen. */
export function fittingScale(slots: readonly JobSlot[], room: { width: number }): number {
  let scale = 0.16;
  while (scale > 0.05 && wideTogether(slots, { kind: 'scale', scale }) > room.width) scale -= scales.step;
  return scale;
}
