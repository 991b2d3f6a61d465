import type { Cell, JobCommand, JobPicture, JobSlot } from '../api/client';
import type { JobStore } from './JobStore';

/** A chosen cell with what belongs to it. */
export interface Chosen {
  picture: JobPicture;
  slot: JobSlot;
  cell: Cell;
}

/** One command for each chosen cell. */
const each = (chosen: readonly Chosen[], make: (picture: string, slot: string, one: Chosen) => JobCommand) =>
  chosen.map((one) => make(one.picture.picture.id, one.slot.address, one));

/** Frames by hand give way for these cells; then one command for each of their pictures. */
const byMarks = (chosen: readonly Chosen[], make: (picture: string) => JobCommand): JobCommand[] => [
  {
    do: 'follow-marks',
    cells: chosen.map((one) => ({ picture: one.picture.picture.id, slot: one.slot.address })),
  },
  ...[...new Set(chosen.map((one) => one.picture.picture.id))].map(make),
];

/** What can be done to chosen cells; each is one step. */
export const benchActions = {
  confirm: (store: JobStore, chosen: readonly Chosen[]) =>
    store.send(byMarks(chosen, (picture) => ({ do: 'confirm-suggestion', picture }))),

  focusHere: (store: JobStore, chosen: readonly Chosen[], focus: { x: number; y: number }) =>
    store.send(byMarks(chosen, (picture) => ({ do: 'set-focus', picture, focus }))),

  unlink: (store: JobStore, chosen: readonly Chosen[]) =>
    store.send(each(chosen, (picture, slot) => ({ do: 'unlink', picture, slot }))),

  link: (store: JobStore, chosen: readonly Chosen[]) =>
    store.send(each(chosen, (picture, slot) => ({ do: 'link', picture, slot }))),

  /** What was looked at is accepted, not what may have come up since. */
  accept: (store: JobStore, chosen: readonly Chosen[]) =>
    store.send(
      each(
        chosen.filter((one) => one.cell.toReview.length > 0),
        (picture, slot, { cell }) => ({ do: 'accept', picture, slot, reasons: cell.toReview }),
      ),
    ),

  /** Skips all; where all are skipped already, includes them. */
  skip: (store: JobStore, chosen: readonly Chosen[]) => {
    const all = chosen.every((one) => one.cell.state === 'skipped');
    return store.send(each(chosen, (picture, slot) => ({ do: 'skip', picture, slot, skipped: !all })));
  },

  allowAnyway: (store: JobStore, chosen: readonly Chosen[]) =>
    store.send(
      each(
        chosen.filter((one) => broken(one.cell).length > 0),
        (picture, slot, { cell }) => ({ do: 'allow-anyway', picture, slot, files: broken(cell) }),
      ),
    ),

  remake: (store: JobStore, chosen: readonly Chosen[]) =>
    store.remake(chosen.map(({ picture, slot }) => ({ picture: picture.picture.id, slot: slot.address }))),
};

/** True for a file that was made and breaks a limit. */
export const isBroken = (file: Cell['files'][number]) => file.made && file.verdict === 'breaks';

const broken = (cell: Cell) => cell.files.filter(isBroken).map((file) => file.id);

/** The keys that act on chosen cells, the same on the bench and on the wall. */
export function actionKeys(
  store: JobStore,
  chosen: readonly Chosen[],
  focus: { x: number; y: number } | null,
  then: () => void = () => {},
) {
  const act =
    (does: () => unknown, may = true) =>
    () => {
      if (chosen.length === 0 || !may) return;
      void does();
      then();
    };
  // Pictures side by side are framed by the marks of each.
  const single = !chosen.some(({ picture }) => picture.parts);
  return {
    a: act(() => benchActions.accept(store, chosen)),
    u: act(() => benchActions.confirm(store, chosen), single),
    f: act(() => focus && benchActions.focusHere(store, chosen, focus), single && focus !== null),
    x: act(() => benchActions.skip(store, chosen)),
    l: act(() => benchActions.unlink(store, chosen), single),
    t: act(() => benchActions.link(store, chosen), single),
    m: act(() => benchActions.remake(store, chosen)),
    v: act(
      () => benchActions.allowAnyway(store, chosen),
      chosen.some((one) => broken(one.cell).length > 0),
    ),
  };
}

/** The middle of what a cell shows, as fractions of its picture. */
export const middleOf = ({ cell }: Chosen) => ({
  x: (cell.frame[0]! + cell.frame[2]!) / 2,
  y: (cell.frame[1]! + cell.frame[3]!) / 2,
});

/** The place of the picture under the pointer, as fractions of it. */
export function pointIn(frame: readonly number[], crop: DOMRect, at: { clientX: number; clientY: number }) {
  const inside = (value: number) => Math.min(1, Math.max(0, value));
  return {
    x: frame[0]! + (frame[2]! - frame[0]!) * inside((at.clientX - crop.left) / crop.width),
    y: frame[1]! + (frame[3]! - frame[1]!) * inside((at.clientY - crop.top) / crop.height),
  };
}
