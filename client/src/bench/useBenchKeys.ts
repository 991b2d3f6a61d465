import { useLocation } from 'wouter';
import { useShortcuts } from '../design/useShortcuts';
import { actionKeys } from '../jobs/actions';
import type { BenchState } from './useBench';
import { useCopyToAlike } from './useCopyToAlike';
import type { useBenchView } from './useBenchView';

/** The shortcuts of the bench. */
export function useBenchKeys(bench: BenchState, view: ReturnType<typeof useBenchView>): void {
  const { store, lie, selection, chosen, goTo, point, pair, wholeRows } = bench;
  const [, go] = useLocation();
  const { row, column } = selection.at;
  const step = (down: number, across: number) => (event: KeyboardEvent) =>
    goTo({ row: row + down, column: column + across }, { extend: event.shiftKey });
  const first = chosen[0];
  const copy = useCopyToAlike(first);
  useShortcuts({
    arrowleft: step(0, -1),
    arrowright: step(0, 1),
    arrowup: step(-1, 0),
    arrowdown: step(1, 0),
    home: () => goTo({ row, column: 0 }),
    end: () => goTo({ row, column: lie.columns - 1 }),
    pageup: () => goTo({ row: row - 4, column }),
    pagedown: () => goTo({ row: row + 4, column }),
    'ctrl+a': () => selection.select({ row: 0, column: 0 }, { row: lie.rows - 1, column: lie.columns - 1 }),
    escape: selection.less,
    enter: () => bench.open(selection.at),
    '+': view.larger,
    '-': view.smaller,
    p: () => view.switchScale?.(),
    e: bench.nextToReview,
    ...actionKeys(store, chosen, point),
    w: () => first && go(`/job/${store.id}/weighing/${first.picture.picture.id}/${first.slot.address}`),
    g: () => go(`/job/${store.id}/handing-over`),
    c: () => copy?.act(),
    d: () => pair?.act(),
    // Only whole rows: a picture is removed, not a cell.
    delete: () => wholeRows && void store.removePictures([...wholeRows]),
  });
}
