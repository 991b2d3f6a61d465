import type { Cell, CellDecision, Decisions, JobPicture, JobSlot } from '../api/client';
import { decisionFor, withCell } from '../jobs/decisions';
import type { JobStore } from '../jobs/JobStore';

/** A chosen cell with what belongs to it. */
export interface Chosen {
  picture: JobPicture;
  slot: JobSlot;
  cell: Cell;
}

export const edgesOf = (frame: readonly number[]) => ({
  left: frame[0]!,
  top: frame[1]!,
  right: frame[2]!,
  bottom: frame[3]!,
});

/** Changes the decisions about all chosen cells, picture by picture, as one step that can be undone. */
export function decideFor(
  store: JobStore,
  chosen: readonly Chosen[],
  change: (decisions: Decisions, cells: readonly Chosen[]) => Decisions,
) {
  const byPicture = Map.groupBy(chosen, (one) => one.picture.picture.id);
  return store.decide(
    [...byPicture].map(([picture, cells]) => ({
      picture,
      decisions: change(cells[0]!.picture.decisions, cells),
    })),
  );
}

/** Changes each chosen cell's own decision. */
export const decideEach = (
  store: JobStore,
  chosen: readonly Chosen[],
  change: (now: CellDecision, one: Chosen) => Partial<CellDecision>,
) =>
  decideFor(store, chosen, (decisions, cells) =>
    cells.reduce(
      (all, one) => withCell(all, one.slot.address, change(decisionFor(all, one.slot.address), one)),
      decisions,
    ),
  );

/** Frames set by hand give way for these cells, so that they follow the marks again. */
function followMarks(decisions: Decisions, cells: readonly Chosen[]): Decisions {
  const framings = { ...decisions.framings };
  let next = decisions;
  for (const { slot } of cells) {
    if (decisionFor(next, slot.address).loose) next = withCell(next, slot.address, { frame: null });
    else delete framings[slot.slot.shapeKey];
  }
  return { ...next, framings };
}

export const benchActions = {
  useSuggestion: (store: JobStore, chosen: readonly Chosen[]) =>
    decideFor(store, chosen, (decisions, cells) => {
      const suggestion = cells[0]!.picture.suggestion;
      return {
        ...followMarks(decisions, cells),
        noSuggestion: false,
        focus: null,
        keep: suggestion ? [suggestion] : decisions.keep,
      };
    }),

  /** A focus means little beside a keep box, which outranks it: the boxes give way. */
  focusHere: (store: JobStore, chosen: readonly Chosen[], at: { x: number; y: number }) =>
    decideFor(store, chosen, (decisions, cells) => ({
      ...followMarks(decisions, cells),
      focus: at,
      keep: [],
    })),

  letLoose: (store: JobStore, chosen: readonly Chosen[]) =>
    decideEach(store, chosen, (now, { cell }) =>
      now.loose ? {} : { loose: true, frame: edgesOf(cell.frame) },
    ),

  tieAgain: (store: JobStore, chosen: readonly Chosen[]) =>
    decideEach(store, chosen, () => ({ loose: false, frame: null })),

  accept: (store: JobStore, chosen: readonly Chosen[]) =>
    decideFor(
      store,
      chosen.filter((one) => one.cell.looks.length > 0),
      (decisions, cells) => ({
        ...cells.reduce(
          (all, { slot, cell }) =>
            withCell(all, slot.address, {
              accepted: [...new Set([...decisionFor(all, slot.address).accepted, ...cell.looks])],
            }),
          decisions,
        ),
        otherShape: decisions.otherShape && !cells.some(({ cell }) => cell.looks.includes('other-shape')),
      }),
    ),

  /** Leaves all out; where all are left out already, takes them in again. */
  skip: (store: JobStore, chosen: readonly Chosen[]) => {
    const all = chosen.every((one) => one.cell.state === 'skipped');
    return decideEach(store, chosen, () => ({ skip: !all }));
  },

  letThrough: (store: JobStore, chosen: readonly Chosen[]) =>
    decideEach(store, chosen, (now, { cell }) => ({
      letThrough: [
        ...new Set([
          ...now.letThrough,
          ...cell.files.filter((file) => file.made && file.verdict === 'breaks').map((file) => file.id),
        ]),
      ],
    })),

  again: (store: JobStore, chosen: readonly Chosen[]) =>
    store.again(chosen.map(({ picture, slot }) => ({ picture: picture.picture.id, slot: slot.address }))),
};
