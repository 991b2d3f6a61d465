import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useLocation, useSearchParams } from 'wouter';
import type { Decisions, Edges, JobPicture, JobSlot } from '../api/client';
import { benchActions, type Chosen } from '../bench/actions';
import { useKeys } from '../app/useKeys';
import { Notice } from '../design/Notice';
import { decisionFor, withCell } from '../jobs/decisions';
import { JobBar } from '../jobs/JobBar';
import { cellKey } from '../jobs/JobStore';
import { useHead, useJob, useJobStore } from '../jobs/useJob';
import { type Box, frameOf, moved, zoomed } from './box';
import { CopySheet } from './CopySheet';
import { FramingPanel } from './FramingPanel';
import { MarksBar } from './MarksBar';
import { PictureStage, type Tool } from './PictureStage';
import { frameFor } from './solver';
import { turned } from './turn';
import { useAhead } from './useAhead';

/** One picture and all its slots: frames are set in the slots, marks on the picture. */
export function FramingScreen({ pictureId }: { pictureId: string }) {
  const head = useHead();
  const picture = head.pictures.find((one) => one.picture.id === pictureId);
  const [search] = useSearchParams();
  const slot = head.slots.find((one) => one.address === search.get('slot')) ?? head.slots[0];
  return (
    <div className="grid h-full min-h-0 grid-rows-[auto_1fr]">
      <div>
        <JobBar stage="framing" at={{ picture: pictureId, slot: slot?.address }} />
      </div>
      {!picture ? (
        <Notice>The job has no such picture.</Notice>
      ) : !slot ? (
        <Notice>The job has no slots yet. Tick some on the bench.</Notice>
      ) : (
        <Framing key={picture.picture.id} picture={picture} slot={slot} />
      )}
    </div>
  );
}

function Framing({ picture, slot }: { picture: JobPicture; slot: JobSlot }) {
  const store = useJobStore();
  const head = useHead();
  const [, go] = useLocation();
  const [, setSearch] = useSearchParams();
  const [tool, setTool] = useState<Tool>('frame');
  const [copying, setCopying] = useState(false);
  // While a hand is on something, these decisions are shown; the stored ones otherwise.
  const [draft, setDraft] = useState<Decisions | null>(null);
  const decisions = draft ?? picture.decisions;
  const now = useRef(decisions);
  useEffect(() => {
    now.current = decisions;
  });
  const id = picture.picture.id;

  // What is on screen is made first.
  useEffect(() => store.lookAt([id], [slot.address]), [store, id, slot.address]);

  const drawing = useRef(0);
  const decide = useCallback(
    (next: Decisions) => {
      cancelAnimationFrame(drawing.current);
      setDraft(next);
      now.current = next;
      // A hand that took hold again in the meantime keeps what it holds.
      void store
        .decide([{ picture: id, decisions: next }])
        .then(() => setDraft((held) => (held === next ? null : held)));
    },
    [store, id],
  );
  const framed = useCallback(
    (address: string, box: Box): Decisions => {
      const one = head.slots.find((other) => other.address === address)!;
      const [left, top, right, bottom] = frameOf(box, picture);
      const frame = { left, top, right, bottom };
      return decisionFor(now.current, address).loose
        ? withCell(now.current, address, { frame })
        : { ...now.current, framings: { ...now.current.framings, [one.slot.shapeKey]: frame } };
    },
    [head.slots, picture],
  );
  // A hand moves more often than the screen is drawn: the last place before a drawing counts.
  const hold = useCallback(
    (address: string, box: Box) => {
      cancelAnimationFrame(drawing.current);
      drawing.current = requestAnimationFrame(() => setDraft(framed(address, box)));
    },
    [framed],
  );
  const commit = useCallback((address: string, box: Box) => decide(framed(address, box)), [decide, framed]);
  const activate = useCallback(
    (address: string) => setSearch({ slot: address }, { replace: true }),
    [setSearch],
  );

  const boxes = useMemo(
    () =>
      new Map(head.slots.map((one) => [one.address, frameFor(picture, one.slot, one.address, decisions)])),
    [head.slots, picture, decisions],
  );
  const box = boxes.get(slot.address)!;
  const ahead = useAhead(store.id, id, slot.destination, slot.slot.key, draft);
  const cell = useJob((job) => job.cells.get(cellKey(id, slot.address)));
  const others = useMemo(() => {
    const seen = new Map<string, { key: string; name: string; box: Box }>();
    for (const one of head.slots) {
      const loose = decisionFor(decisions, one.address).loose;
      const key = loose ? one.address : one.slot.shapeKey;
      const mine = decisionFor(decisions, slot.address).loose ? slot.address : slot.slot.shapeKey;
      const other = boxes.get(one.address)!;
      const all = other.width >= picture.width - 0.5 && other.height >= picture.height - 0.5;
      if (key !== mine && !all && !decisionFor(decisions, one.address).skip && !seen.has(key))
        seen.set(key, {
          key,
          name: loose ? one.slot.name : (one.slot.ratioText ?? one.slot.name),
          box: other,
        });
    }
    return [...seen.values()];
  }, [head.slots, boxes, decisions, slot, picture]);

  const chosen: Chosen[] = cell ? [{ picture: { ...picture, decisions }, slot, cell }] : [];
  const step = (dx: number, dy: number) => (event: KeyboardEvent) => {
    const [x, y] = event.shiftKey ? [1, 1] : [picture.width / 100, picture.height / 100];
    commit(slot.address, moved(box, dx * x, dy * y, picture));
  };
  const zoom = (factor: number) => () =>
    commit(
      slot.address,
      zoomed(box, factor, { x: box.x + box.width / 2, y: box.y + box.height / 2 }, picture, slot.slot.ratio),
    );
  const hand = decisionFor(decisions, slot.address).loose
    ? decisionFor(decisions, slot.address).frame
    : decisions.framings[slot.slot.shapeKey];
  /** Back to the frame that follows the marks. */
  const automatic = () => {
    if (!hand) return;
    if (decisionFor(decisions, slot.address).loose)
      return decide(withCell(decisions, slot.address, { frame: null }));
    const framings = { ...decisions.framings };
    delete framings[slot.slot.shapeKey];
    decide({ ...decisions, framings });
  };
  const nextLook = () => {
    const cells = head.pictures.flatMap((one) => head.slots.map((other) => ({ one, other })));
    const from = cells.findIndex(({ one, other }) => one.picture.id === id && other.address === slot.address);
    for (let i = 1; i <= cells.length; i++) {
      const { one, other } = cells[(from + i) % cells.length]!;
      if ((store.cells.get(cellKey(one.picture.id, other.address))?.looks.length ?? 0) > 0)
        return go(`/job/${store.id}/framing/${one.picture.id}?slot=${other.address}`);
    }
  };
  const neighbour = (by: number) => {
    const index = head.pictures.findIndex((one) => one.picture.id === id);
    const next = head.pictures[(index + by + head.pictures.length) % head.pictures.length]!;
    go(`/job/${store.id}/framing/${next.picture.id}?slot=${slot.address}`);
  };
  const nextSlot = (by: number) => {
    const index = head.slots.findIndex((one) => one.address === slot.address);
    activate(head.slots[(index + by + head.slots.length) % head.slots.length]!.address);
  };
  const loosen = () => void benchActions.letLoose(store, chosen);
  const tie = () => void benchActions.tieAgain(store, chosen);
  const weigh = () => go(`/job/${store.id}/weighing/${id}/${slot.address}`);
  const confirm = () =>
    picture.suggestion &&
    decide({ ...decisions, keep: [picture.suggestion], focus: null, noSuggestion: false });
  const turn = (quarters: number, degrees: number) =>
    decide(turned(decisions, { quarters: ((quarters % 4) + 4) % 4, degrees }, picture.picture));

  useKeys({
    arrowleft: step(-1, 0),
    arrowright: step(1, 0),
    arrowup: step(0, -1),
    arrowdown: step(0, 1),
    '+': zoom(0.95),
    '=': zoom(0.95),
    '-': zoom(1 / 0.95),
    '0': automatic,
    k: () => setTool(tool === 'keep' ? 'frame' : 'keep'),
    f: () => setTool(tool === 'focus' ? 'frame' : 'focus'),
    escape: () => (tool === 'frame' ? go(`/job/${store.id}`) : setTool('frame')),
    u: () => confirm(),
    l: loosen,
    t: tie,
    a: () => void benchActions.accept(store, chosen),
    x: () => void benchActions.skip(store, chosen),
    e: nextLook,
    n: (event) => neighbour(event.shiftKey ? -1 : 1),
    'shift+n': () => neighbour(-1),
    '.': () => nextSlot(1),
    ',': () => nextSlot(-1),
    c: () => setCopying(true),
    g: weigh,
    b: () => go(`/job/${store.id}`),
  });

  return (
    <div className="grid min-h-0 grid-cols-[1fr_348px]">
      <div className="grid min-h-0 grid-rows-[auto_1fr]">
        <MarksBar
          picture={picture}
          decisions={decisions}
          tool={tool}
          onTool={setTool}
          onConfirm={confirm}
          onDecline={() => decide({ ...decisions, noSuggestion: true })}
          onClear={() => decide({ ...decisions, keep: [], focus: null, noSuggestion: false })}
          onTurn={turn}
          onCopy={() => setCopying(true)}
          onNext={() => neighbour(1)}
        />
        <PictureStage
          picture={picture}
          slot={slot}
          box={box}
          others={others}
          keep={decisions.keep}
          suggestion={decisions.noSuggestion ? null : picture.suggestion}
          focus={decisions.focus}
          tool={tool}
          onHold={hold}
          onCommit={commit}
          onKeep={(kept: Edges, done) => {
            const next = { ...picture.decisions, keep: [...picture.decisions.keep, kept], focus: null };
            if (!done) return setDraft(next);
            decide(next);
            setTool('frame');
          }}
          onFocus={(focus) => {
            decide({ ...decisions, focus, keep: [] });
            setTool('frame');
          }}
        />
      </div>
      <FramingPanel
        picture={picture}
        slot={slot}
        slots={head.slots}
        boxes={boxes}
        decisions={decisions}
        cell={cell}
        held={draft !== null}
        ahead={ahead}
        byHand={hand != null}
        onActive={activate}
        onHold={hold}
        onCommit={commit}
        onAutomatic={automatic}
        onLoose={loosen}
        onTie={tie}
        onAccept={() => void benchActions.accept(store, chosen)}
        onSkip={() => void benchActions.skip(store, chosen)}
        onNextLook={nextLook}
        onWeigh={weigh}
      />
      {copying && (
        <CopySheet
          picture={picture}
          onClose={() => setCopying(false)}
          onCopy={(pictures) => {
            setCopying(false);
            void store.decide(
              pictures.map((other) => ({
                picture: other.picture.id,
                decisions: {
                  ...other.decisions,
                  turn: decisions.turn,
                  keep: decisions.keep,
                  focus: decisions.focus,
                  noSuggestion: decisions.noSuggestion || decisions.keep.length > 0,
                  // Where nothing was set by hand, the frame as it stands is what is copied.
                  framings: {
                    ...decisions.framings,
                    [slot.slot.shapeKey]:
                      decisions.framings[slot.slot.shapeKey] ?? edges(frameOf(box, picture)),
                  },
                  cells: {
                    ...other.decisions.cells,
                    ...Object.fromEntries(
                      Object.entries(decisions.cells)
                        .filter(([, one]) => one.loose)
                        .map(([address, one]) => [
                          address,
                          { ...decisionFor(other.decisions, address), loose: true, frame: one.frame },
                        ]),
                    ),
                  },
                },
              })),
            );
          }}
        />
      )}
    </div>
  );
}

const edges = ([left, top, right, bottom]: readonly [number, number, number, number]): Edges => ({
  left,
  top,
  right,
  bottom,
});
