import type { Cell, CellDecision, Decisions, JobPicture, JobSlot } from '../api/client';

export const noDecision: CellDecision = {
  unlinked: false,
  frame: null,
  skip: false,
  accepted: [],
  allowed: [],
  choice: null,
  dress: null,
};

export const decisionFor = (decisions: Decisions, slot: string): CellDecision =>
  decisions.cells[slot] ?? noDecision;

/** The same decisions with another one for one slot. */
export function withCell(decisions: Decisions, slot: string, change: Partial<CellDecision>): Decisions {
  const cell = { ...decisionFor(decisions, slot), ...change };
  const cells = { ...decisions.cells, [slot]: cell };
  // Where nothing is decided, nothing stands.
  if (
    !cell.unlinked &&
    !cell.frame &&
    !cell.skip &&
    !cell.choice &&
    !cell.dress &&
    !cell.accepted.length &&
    !cell.allowed.length
  )
    delete cells[slot];
  return { ...decisions, cells };
}

/** What tells the files of a cell apart, in their order: densities, or the widths of its ladder. */
export const descriptorsOf = (cell: Cell | undefined, slot: JobSlot): readonly string[] =>
  cell && cell.files.length > 0
    ? [...new Set(cell.files.map((file) => file.descriptor))]
    : slot.slot.descriptors;

/** True where nobody said yet what a picture shows. */
export const wantsText = (one: JobPicture) => !one.decisions.decorative && one.decisions.alternative === '';
