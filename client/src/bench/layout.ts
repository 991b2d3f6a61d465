import type { Cell, JobSlot } from '../api/client';
import type { Cells } from '../jobs/JobStore';

/** What a cell needs beside its picture: room around it and the caption below. */
export const pad = 10;
export const caption = 20;
/** A slot may ask for more than any bench is wide; it is drawn no larger than this, in CSS pixels of the slot. */
const mostSide = 3200;
const leastColumn = 88;
/** What the tallest slot takes of the screen at first. */
const tallestAtFirst = 170;
const leastRow = 64;

export interface Layout {
  columns: number[];
  rows: number[];
}

export const drawn = (cell: Pick<Cell, 'width' | 'height'>, scale: number) => {
  const shrink = Math.min(1, mostSide / Math.max(cell.width, cell.height));
  return {
    width: Math.max(6, cell.width * shrink * scale),
    height: Math.max(6, cell.height * shrink * scale),
  };
};

/** Column widths and row heights at a scale: every cell fits, and nothing is drawn at another scale than the rest. */
export function layOut(
  slots: readonly JobSlot[],
  pictures: readonly string[],
  cells: Cells,
  scale: number,
): Layout {
  const columns = slots.map(() => leastColumn);
  const rows = pictures.map(() => leastRow);
  pictures.forEach((picture, row) => {
    slots.forEach((slot, column) => {
      const cell = cells.at(picture, slot.address);
      if (!cell) return;
      const size = drawn(cell, scale);
      columns[column] = Math.max(columns[column]!, size.width + 2 * pad);
      rows[row] = Math.max(rows[row]!, size.height + 2 * pad + caption);
    });
  });
  return { columns, rows };
}

/** The scale at which all slots stand side by side, within what can still be judged. */
export function fittingScale(slots: readonly JobSlot[], room: number): number {
  const wide = (slot: JobSlot) => Math.min(mostSide, slot.slot.width);
  const tallest = Math.max(...slots.map((slot) => Math.min(mostSide, slot.slot.height)));
  let scale = Math.min(0.16, tallestAtFirst / tallest);
  for (; scale > 0.05; scale -= 0.005) {
    const all = slots.reduce((sum, slot) => sum + Math.max(leastColumn, wide(slot) * scale + 2 * pad), 0);
    if (all <= room) break;
  }
  return scale;
}
