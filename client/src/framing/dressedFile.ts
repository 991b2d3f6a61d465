import type { Cell, Decisions, JobSlot } from '../api/client';
import { decisionFor } from '../domain/decisions';

/** The file to be seen in a slot's window: where a dress is drawn over it, the picture alone is not what is handed over. */
export function dressedFile(slot: JobSlot, cell: Cell | undefined, decisions: Decisions): string | null {
  const dressed = slot.slot.dress != null || decisionFor(decisions, slot.address).dress != null;
  return dressed && cell?.state === 'done' ? (cell.files.find((file) => file.made)?.id ?? null) : null;
}
