import type { CellDecision, Decisions } from '../api/client';

export const noDecision: CellDecision = {
  loose: false,
  frame: null,
  skip: false,
  accepted: [],
  letThrough: [],
  choice: null,
};

export const decisionFor = (decisions: Decisions, slot: string): CellDecision =>
  decisions.cells[slot] ?? noDecision;

/** The same decisions with another one for one slot. */
export function withCell(decisions: Decisions, slot: string, change: Partial<CellDecision>): Decisions {
  return {
    ...decisions,
    cells: { ...decisions.cells, [slot]: { ...decisionFor(decisions, slot), ...change } },
  };
}
