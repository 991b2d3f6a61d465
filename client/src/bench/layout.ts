import type { Cell, JobSlot } from '../api/client';
import { sentence } from '../design/figures';
import { windows } from '../design/needs';
import { type ColumnSpan, spansOver, spanWords } from '../domain/columns';
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
/** A strip is drawn no wider than this times the height of the others, unless the window has room for more. */
const widest = 2.2;
/** With room for it a strip is drawn so much wider than the height of the others, at most. */
const longest = 5.2;
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
      /** No crop is wider than this, in pixels; what would be is lower. Without it, than 2.2 times the height. */
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
    const ratio = Math.min(view.width ? view.width / view.height : widest, cell.width / cell.height);
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

/** How the size of a slot is said in the head of its column, with its shape where the head above does not say it. */
export function sizeWords({ slot }: JobSlot, span: ColumnSpan): string {
  const ratio = slot.ratioText && slot.ratioText !== span.common ? `${slot.ratioText}, ` : '';
  if (slot.group) return ratio + windows(slot);
  return slot.shape == null ? sentence(slot.size) : `${ratio}${slot.width}×${slot.height}`;
}

const widthOf = (line: string) => line.length * letter + 18;

/** How wide each head is for its lines, and the longest word of its name, to stand uncut. */
export function headWidths(slots: readonly JobSlot[]): number[] {
  return spansOver(slots).flatMap((span) => {
    // Several columns share the line above them.
    const above = widthOf(spanWords(span)) / span.count;
    return slots.slice(span.first, span.first + span.count).map((slot) => {
      const name = slot.slot.name;
      const words = [...name.split(' ').map((word) => word.length), Math.ceil(name.length / 2)];
      const own = Math.max(widthOf(sizeWords(slot, span)), Math.max(...words) * letter * 1.2 + 18);
      return Math.round(Math.max(leastColumn, Math.min(widestHead, Math.max(above, own))));
    });
  });
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
  const columns = headWidths(slots);
  const rows = pictures.map(() => leastRow);
  // Cells of one size take as much as each other, and most cells of a slot are of one size.
  const known = new Map<number, Sides>();
  slots.forEach(({ address }, column) => {
    pictures.forEach((picture, row) => {
      const cell = cells.at(picture, address);
      if (!cell) return;
      const sides = cell.width * 1e6 + cell.height;
      const size = known.get(sides) ?? taken(cell, view);
      known.set(sides, size);
      columns[column] = Math.max(columns[column]!, size.width);
      rows[row] = Math.max(rows[row]!, size.height);
    });
  });
  return { columns, rows };
}

const wideTogether = (slots: readonly JobSlot[], heads: readonly number[], view: View) =>
  slots.reduce((sum, slot, i) => sum + Math.max(heads[i]!, taken(slot.slot, view).width), 0);

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
  const heads = headWidths(slots);
  const down = (room.height - headHeight) / rows - 2 * pad - caption - 1;
  let height = Math.max(leastSide, Math.min(heights.most, Math.floor(down)));
  while (height > judged && wideTogether(slots, heads, { kind: 'alike', height }) > room.width) height--;
  // Where even the smallest do not stand side by side, there is nothing to seek.
  const smallest = { kind: 'alike', height: leastSide + 1, width: narrowest * leastSide } as const;
  if (wideTogether(slots, heads, smallest) > room.width) return { kind: 'alike', height: leastSide };
  for (; height > leastSide; height--) {
    const fits = (width: number) =>
      wideTogether(slots, heads, { kind: 'alike', height, width }) <= room.width;
    let [low, high] = [Math.ceil(narrowest * height), Math.floor(longest * height)];
    if (!fits(low)) continue;
    // The wider crops may be, the wider all are together: the widest that fits lies between one that does and one that does not.
    while (low < high) {
      const width = Math.ceil((low + high) / 2);
      if (fits(width)) low = width;
      else high = width - 1;
    }
    return { kind: 'alike', height, width: low };
  }
  return { kind: 'alike', height };
}

/** The scale at which all slots stand side by side, within what can still be seen. */
export function fittingScale(slots: readonly JobSlot[], room: { width: number }): number {
  const heads = headWidths(slots);
  let scale = 0.16;
  while (scale > 0.05 && wideTogether(slots, heads, { kind: 'scale', scale }) > room.width)
    scale -= scales.step;
  return scale;
}
