import { useEffect, useMemo, useRef, useState } from 'react';
import { useLocation } from 'wouter';
import { useElementSize } from '../design/useElementSize';
import { useShortcuts } from '../design/useShortcuts';
import { actionKeys, type Chosen, middleOf } from '../jobs/actions';
import { useCells, useHead, useJob, useJobStore } from '../jobs/useJob';
import { BenchBar } from './BenchBar';
import { BenchGrid } from './BenchGrid';
import { headWidth } from './BenchRow';
import { fittingHeight, fittingScale, heights, layOut, scales, type View } from './layout';
import { pairing, useStableLayout } from './pairing';
import { countToReview, type Reason } from './ReviewFilter';
import { Tray } from './Tray';
import { type At, useSelection } from './useSelection';

export function FullBench({
  onChoose,
  places,
  onPlaces,
  onReason,
}: {
  onChoose: () => void;
  places: boolean;
  onPlaces: () => void;
  onReason: (reason: Reason | null) => void;
}) {
  const store = useJobStore();
  const head = useHead();
  const [, go] = useLocation();
  const cells = useCells();
  const reading = useJob((job) => job.reading);
  const [room, size] = useElementSize<HTMLDivElement>();
  const [toScale, setToScale] = useState(false);
  const [chosenView, setChosenView] = useState<{ alike?: number; scale?: number }>({});
  const [focusAt, setFocusAt] = useState<{ x: number; y: number } | null>(null);
  const counts = useMemo(() => countToReview(cells.values(), head), [cells, head]);
  const { pictures, slots } = head;
  const selection = useSelection(pictures.length, slots.length);
  const view: View = useMemo(() => {
    const room = size
      ? { width: size.width - headWidth - 18, height: size.height }
      : { width: 1000, height: 600 };
    return toScale
      ? { kind: 'scale', scale: chosenView.scale ?? fittingScale(slots, room) }
      : { kind: 'alike', height: chosenView.alike ?? fittingHeight(slots, room) };
  }, [toScale, chosenView, slots, size]);
  const range = toScale ? scales : heights;
  const value = view.kind === 'scale' ? view.scale : view.height;
  const larger = (to: number) => {
    const held = Math.min(range.most, Math.max(range.least, to));
    setChosenView((now) => ({ ...now, [view.kind]: held }));
  };
  const layout = useMemo(
    () =>
      layOut(
        slots,
        pictures.map((one) => one.picture.id),
        cells,
        view,
      ),
    [slots, pictures, cells, view],
  );
  const stable = useStableLayout(layout);
  const chosen: Chosen[] = useMemo(
    () =>
      selection.list.flatMap(({ row, column }) => {
        const [picture, slot] = [pictures[row], slots[column]];
        const cell = picture && slot && cells.at(picture.picture.id, slot.address);
        return cell ? [{ picture, slot, cell }] : [];
      }),
    [selection.list, pictures, slots, cells],
  );

  const scrollTo = useRef<((at: At) => void) | null>(null);
  const goTo = (to: At, how: { extend?: boolean; add?: boolean } = {}) => {
    selection.goTo(to, how);
    scrollTo.current?.({
      row: Math.max(0, Math.min(pictures.length - 1, to.row)),
      column: Math.max(0, Math.min(slots.length - 1, to.column)),
    });
  };
  const latest = useRef(goTo);
  useEffect(() => {
    latest.current = goTo;
  });
  // What was just put side by side stands last, once it is drawn.
  const toLast = () =>
    requestAnimationFrame(() =>
      latest.current({
        row: store.head!.pictures.length - 1,
        column: slots.findIndex((one) => one.slot.pair != null),
      }),
    );
  const step = (row: number, column: number) => (event: KeyboardEvent) =>
    goTo({ row: selection.at.row + row, column: selection.at.column + column }, { extend: event.shiftKey });
  const open = (at: At) => {
    const [picture, slot] = [pictures[at.row], slots[at.column]];
    if (picture && slot) go(`/job/${store.id}/framing/${picture.picture.id}?slot=${slot.address}`);
  };
  const nextLook = () => {
    const all = pictures.length * slots.length;
    const from = selection.at.row * slots.length + selection.at.column;
    for (let i = 1; i <= all; i++) {
      const index = (from + i) % all;
      const at = { row: Math.floor(index / slots.length), column: index % slots.length };
      const cell = cells.at(pictures[at.row]!.picture.id, slots[at.column]!.address);
      if (cell && cell.toReview.length > 0) return goTo(at);
    }
  };
  const first = chosen[0];
  // With the keyboard there is no clicked place: the middle of the frame then.
  const point = focusAt ?? (first ? middleOf(first) : null);
  const pictured = [...new Set(chosen.map((one) => one.picture))];
  const pair = pairing(pictured, slots);
  const putSideBySide = () => {
    if (pair?.may) void store.pair(pictured.map((one) => one.picture.id)).then((made) => made && toLast());
  };
  useShortcuts({
    arrowleft: step(0, -1),
    arrowright: step(0, 1),
    arrowup: step(-1, 0),
    arrowdown: step(1, 0),
    home: () => goTo({ row: selection.at.row, column: 0 }),
    end: () => goTo({ row: selection.at.row, column: slots.length - 1 }),
    pageup: () => goTo({ row: selection.at.row - 4, column: selection.at.column }),
    pagedown: () => goTo({ row: selection.at.row + 4, column: selection.at.column }),
    'ctrl+a': () =>
      selection.select({ row: 0, column: 0 }, { row: pictures.length - 1, column: slots.length - 1 }),
    escape: () => goTo(selection.at),
    enter: () => open(selection.at),
    '+': () => larger(value + (toScale ? 0.02 : 16)),
    '-': () => larger(value - (toScale ? 0.02 : 16)),
    p: () => setToScale((now) => !now),
    e: nextLook,
    ...actionKeys(store, chosen, point),
    w: () => first && go(`/job/${store.id}/weighing/${first.picture.picture.id}/${first.slot.address}`),
    g: () => go(`/job/${store.id}/handing-over`),
    d: putSideBySide,
    delete: () => {
      const rows = [...new Set(chosen.map((one) => one.picture.picture.id))];
      // Only whole rows: a picture is taken out, not a cell.
      if (chosen.length === rows.length * slots.length) void store.removePictures(rows);
    },
  });
  const wholeRows =
    chosen.length > 0 && chosen.length % slots.length === 0
      ? new Set(chosen.map((one) => one.picture.picture.id))
      : new Set<string>();
  const canTakeOut = wholeRows.size > 0 && chosen.length === wholeRows.size * slots.length;

  return (
    <div className="grid min-h-0 min-w-0 flex-1 grid-rows-[auto_1fr_auto]">
      <BenchBar
        counts={counts}
        reading={reading}
        view={view}
        range={range}
        toScale={toScale}
        places={places}
        pair={pair && { ...pair, act: putSideBySide }}
        removable={canTakeOut ? wholeRows : null}
        onReason={onReason}
        onNext={nextLook}
        onSize={larger}
        onScale={() => setToScale(!toScale)}
        onChoose={onChoose}
        onPlaces={onPlaces}
      />
      <div ref={room} className="grid min-h-0 min-w-0">
        <BenchGrid
          pictures={pictures}
          slots={slots}
          layout={stable}
          view={view}
          at={selection.at}
          isSelected={selection.isSelected}
          onGo={(to, how) => {
            selection.goTo(to, how);
          }}
          onSelect={selection.select}
          onOpen={open}
          onPoint={setFocusAt}
          scrollTo={scrollTo}
        />
      </div>
      {chosen.length > 0 && <Tray chosen={chosen} focusAt={point} />}
    </div>
  );
}
