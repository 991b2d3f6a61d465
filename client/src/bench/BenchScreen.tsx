import { useCallback, useEffect, useEffectEvent, useMemo, useRef, useState } from 'react';
import { useLocation, useSearchParams } from 'wouter';
import type { JobPicture, ReasonCode } from '../api/client';
import { useKeys } from '../app/useKeys';
import { Button, Key } from '../design/Button';
import { useElementSize } from '../framing/useElementSize';
import { byGravity, reasonWord } from '../jobs/reasons';
import { useCells, useHead, useJob, useJobStore } from '../jobs/useJob';
import { benchActions, type Chosen } from './actions';
import { BenchGrid, headWidth } from './BenchGrid';
import { EmptyBench } from './EmptyBench';
import { fittingScale, layOut } from './layout';
import { PlacesSheet } from './PlacesSheet';
import { Tray } from './Tray';
import { type At, useSelection } from './useSelection';

/** Home of a job: every picture in every slot, what fails marked; only the exceptions are set by hand. */
export function BenchScreen({ onChoose }: { onChoose: () => void }) {
  const head = useHead();
  const empty = head.pictures.length === 0 || head.slots.length === 0;
  // Whoever begins with an empty job goes on ticking.
  const [places, setPlaces] = useState(empty);
  useKeys({ r: onChoose, s: () => setPlaces((open) => !open) });

  return (
    <div className="flex h-full min-h-0">
      {empty ? (
        <EmptyBench onChoose={onChoose} />
      ) : (
        <FullBench onChoose={onChoose} places={places} onPlaces={() => setPlaces(!places)} />
      )}
      {(places || empty) && <PlacesSheet onClose={empty ? undefined : () => setPlaces(false)} />}
    </div>
  );
}

function FullBench({
  onChoose,
  places,
  onPlaces,
}: {
  onChoose: () => void;
  places: boolean;
  onPlaces: () => void;
}) {
  const store = useJobStore();
  const head = useHead();
  const [, go] = useLocation();
  const [search, setSearch] = useSearchParams();
  const cells = useCells();
  const reading = useJob((job) => job.reading);
  const [room, size] = useElementSize<HTMLDivElement>();
  const [chosenScale, setScale] = useState<number | null>(null);
  const [focusAt, setFocusAt] = useState<{ x: number; y: number } | null>(null);
  const reason = search.get('reason') as ReasonCode | 'any' | null;

  const counts = useMemo(() => countLooks(cells.values(), head), [cells, head]);
  const matches = useMemo(
    () => (picture: JobPicture, slot: string) => {
      if (!reason) return true;
      const looks = cells.at(picture.picture.id, slot)?.looks ?? [];
      return reason === 'any' ? looks.length > 0 : looks.includes(reason);
    },
    [reason, cells],
  );
  // Picking a reason leaves the rows and columns that have it.
  const { pictures, slots } = useMemo(
    () => ({
      pictures: reason
        ? head.pictures.filter((picture) => head.slots.some((slot) => matches(picture, slot.address)))
        : head.pictures,
      slots: reason
        ? head.slots.filter((slot) => head.pictures.some((picture) => matches(picture, slot.address)))
        : head.slots,
    }),
    [head, reason, matches],
  );
  const isShown = useCallback(
    (row: number, column: number) => matches(pictures[row]!, slots[column]!.address),
    [matches, pictures, slots],
  );
  const selection = useSelection(pictures.length, slots.length);
  const scale = chosenScale ?? (size ? fittingScale(slots, size.width - headWidth - 18) : 0.1);
  const layout = useMemo(
    () =>
      layOut(
        slots,
        pictures.map((one) => one.picture.id),
        cells,
        scale,
      ),
    [slots, pictures, cells, scale],
  );
  const stable = useStableLayout(layout);
  // A reason was picked: its first cell is the one to begin with.
  const toFirst = useEffectEvent(() => {
    const row = pictures.findIndex((picture) => slots.some((slot) => matches(picture, slot.address)));
    const column = row < 0 ? -1 : slots.findIndex((slot) => matches(pictures[row]!, slot.address));
    if (column >= 0) selection.goTo({ row, column });
  });
  useEffect(() => {
    if (reason) toFirst();
  }, [reason]);

  const chosen: Chosen[] = useMemo(
    () =>
      selection.list.flatMap(({ row, column }) => {
        const [picture, slot] = [pictures[row], slots[column]];
        const cell = picture && slot && cells.at(picture.picture.id, slot.address);
        return cell && matches(picture, slot.address) ? [{ picture, slot, cell }] : [];
      }),
    [selection.list, pictures, slots, cells, matches],
  );

  const scrollTo = useRef<((at: At) => void) | null>(null);
  const goTo = (to: At, how: { extend?: boolean; add?: boolean } = {}) => {
    selection.goTo(to, how);
    scrollTo.current?.({
      row: Math.max(0, Math.min(pictures.length - 1, to.row)),
      column: Math.max(0, Math.min(slots.length - 1, to.column)),
    });
  };
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
      if (cell && cell.looks.length > 0) return goTo(at);
    }
  };
  const first = chosen[0];
  // With the keyboard there is no clicked place: the middle of the frame then.
  const point =
    focusAt ??
    (first
      ? {
          x: (first.cell.frame[0]! + first.cell.frame[2]!) / 2,
          y: (first.cell.frame[1]! + first.cell.frame[3]!) / 2,
        }
      : null);
  const broken = chosen.some(({ cell }) => cell.files.some((file) => file.made && file.verdict === 'breaks'));
  useKeys({
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
    e: nextLook,
    a: () => void benchActions.accept(store, chosen),
    u: () => void benchActions.useSuggestion(store, chosen),
    f: () => point && void benchActions.focusHere(store, chosen, point),
    x: () => void benchActions.skip(store, chosen),
    l: () => void benchActions.letLoose(store, chosen),
    t: () => void benchActions.tieAgain(store, chosen),
    m: () => void benchActions.again(store, chosen),
    v: () => broken && void benchActions.letThrough(store, chosen),
    w: () => first && go(`/job/${store.id}/weighing/${first.picture.picture.id}/${first.slot.address}`),
    g: () => go(`/job/${store.id}/handing-over`),
    delete: () => {
      const rows = [...new Set(chosen.map((one) => one.picture.picture.id))];
      // Only whole rows: a picture is taken out, not a cell.
      if (chosen.length === rows.length * slots.length && !reason) void store.removePictures(rows);
    },
  });
  const reasons = [...counts.byReason.keys()].toSorted(byGravity);
  const wholeRows =
    !reason && chosen.length > 0 && chosen.length % slots.length === 0
      ? new Set(chosen.map((one) => one.picture.picture.id))
      : new Set<string>();
  const canTakeOut = wholeRows.size > 0 && chosen.length === wholeRows.size * slots.length;

  return (
    <div className="grid min-h-0 min-w-0 flex-1 grid-rows-[auto_1fr_auto]">
      <div className="flex flex-wrap items-center gap-x-1.5 gap-y-1 border-b border-line bg-sheet px-5 py-1.5">
        <h2 className="mr-1.5" data-testid="looks">
          {counts.cells === 0 ? 'Nothing wants a look' : `${counts.cells} of ${counts.all} want a look`}
          {reading && <span className="font-normal text-ink-2">, still reading the rest</span>}
        </h2>
        {counts.cells > 0 && (
          <>
            <ReasonButton
              name="All of them"
              on={reason === 'any'}
              act={() => setSearch(reason === 'any' ? {} : { reason: 'any' }, { replace: true })}
            />
            {reasons.map((code) => (
              <ReasonButton
                key={code}
                name={reasonWord(code)}
                count={counts.byReason.get(code)}
                on={reason === code}
                act={() => setSearch(reason === code ? {} : { reason: code }, { replace: true })}
              />
            ))}
            <Button onClick={nextLook} className="h-7!">
              Next <Key>E</Key>
            </Button>
          </>
        )}
        {reason && counts.cells === 0 && (
          <Button className="h-7!" onClick={() => setSearch({}, { replace: true })}>
            Show all cells
          </Button>
        )}
        <span className="flex-1" />
        {canTakeOut && (
          <Button className="h-7!" onClick={() => void store.removePictures([...wholeRows])}>
            Take {wholeRows.size === 1 ? 'picture' : `${wholeRows.size} pictures`} out <Key>Del</Key>
          </Button>
        )}
        <label className="flex items-center gap-2">
          <span className="text-ink-2">Scale</span>
          <input
            type="range"
            min={0.04}
            max={0.4}
            step={0.005}
            value={scale}
            aria-valuetext={`${Math.round(scale * 100)} %`}
            onChange={(event) => setScale(Number(event.target.value))}
            className="w-20 accent-(--pm-accent)"
          />
          <span className="w-9 text-right text-ink-2">{Math.round(scale * 100)} %</span>
        </label>
        <Button className="h-7!" onClick={onChoose}>
          Read pictures in <Key>R</Key>
        </Button>
        <Button
          className={`h-7! ${places ? 'border-ink! bg-sheet-2!' : ''}`}
          aria-pressed={places}
          onClick={onPlaces}
        >
          Slots <Key>S</Key>
        </Button>
      </div>
      <div ref={room} className="grid min-h-0 min-w-0">
        {pictures.length === 0 || slots.length === 0 ? (
          <p className="grid place-items-center">No cell has this reason any more.</p>
        ) : (
          <BenchGrid
            pictures={pictures}
            slots={slots}
            layout={stable}
            scale={scale}
            at={selection.at}
            isSelected={selection.isSelected}
            isShown={isShown}
            onGo={(to, how) => {
              selection.goTo(to, how);
            }}
            onSelect={selection.select}
            onOpen={open}
            onPoint={setFocusAt}
            scrollTo={scrollTo}
          />
        )}
      </div>
      {chosen.length > 0 && <Tray chosen={chosen} focusAt={point} />}
    </div>
  );
}

function ReasonButton({
  name,
  count,
  on,
  act,
}: {
  name: string;
  count?: number;
  on: boolean;
  act: () => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={act}
      className={`h-7 border-b-2 px-2 ${on ? 'border-accent font-semibold' : 'border-transparent text-ink-2 hover:text-ink'}`}
    >
      {name} {count !== undefined && <b className="font-semibold text-ink">{count}</b>}
    </button>
  );
}

function countLooks(
  cells: Iterable<{ picture: string; slot: string; looks: ReasonCode[] }>,
  head: { pictures: JobPicture[]; slots: { address: string }[] },
) {
  const pictures = new Set(head.pictures.map((one) => one.picture.id));
  const slots = new Set(head.slots.map((one) => one.address));
  const byReason = new Map<ReasonCode, number>();
  let [all, count] = [0, 0];
  for (const cell of cells) {
    if (!pictures.has(cell.picture) || !slots.has(cell.slot)) continue;
    all++;
    if (cell.looks.length > 0) count++;
    for (const look of cell.looks) byReason.set(look, (byReason.get(look) ?? 0) + 1);
  }
  return { all, cells: count, byReason };
}

/** The same object while the sizes are the same: a new one would measure the whole bench again. */
function useStableLayout<T>(layout: T): T {
  const text = JSON.stringify(layout);
  return useMemo(() => JSON.parse(text) as T, [text]);
}
