import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'wouter';
import type { JobCommand, JobPicture, JobSlot } from '../api/client';
import { benchActions, type Chosen } from '../jobs/actions';
import { useShortcuts } from '../design/useShortcuts';
import { Notice } from '../design/Notice';
import { decided, edgesOf } from '../domain/commands';
import { decisionFor } from '../domain/decisions';
import { JobBar } from '../jobs/JobBar';
import { cellKey } from '../domain/jobState';
import { useHead, useJob, useJobStore } from '../jobs/useJob';
import { type Box, frameOf, moved, zoomed } from '../domain/box';
import { CopySheet } from './CopySheet';
import { FramingPanel } from './FramingPanel';
import { MarksBar } from './MarksBar';
import { PictureStage } from './PictureStage';
import { OverlayScreen } from '../overlay/OverlayScreen';
import { PairScreen } from './PairScreen';
import { frameFor } from '../domain/solver';
import { useForetoldFiles } from './useForetoldFiles';
import { useGoing } from './useGoing';
import { t } from '../texts/texts';
import type { Tool } from './useStageGestures';

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
        <Notice>{t('framing.thisPictureIsNotInThe')}</Notice>
      ) : !slot ? (
        <Notice>{t('framing.theJobHasNoSlotsYet')}</Notice>
      ) : search.has('over') ? (
        <OverlayScreen key={`${picture.picture.id}/${slot.address}`} picture={picture} slot={slot} />
      ) : picture.parts ? (
        <PairScreen key={picture.picture.id} picture={picture} slot={slot} />
      ) : (
        <Framing key={picture.picture.id} picture={picture} slot={slot} />
      )}
    </div>
  );
}

function Framing({ picture, slot }: { picture: JobPicture; slot: JobSlot }) {
  const store = useJobStore();
  const head = useHead();
  const { bench, activate, nextSlot, neighbour, nextLook, weigh, over } = useGoing(picture, slot, head.slots);
  const [tool, setTool] = useState<Tool>('frame');
  const [copying, setCopying] = useState(false);
  const id = picture.picture.id;
  // What a hand is about to decide while it is on something; nothing otherwise.
  const [held, setHeld] = useState<readonly JobCommand[] | null>(null);
  const decisions = useMemo(
    () =>
      (held ?? []).reduce(
        (now, command) => decided({ ...picture, decisions: now }, command, head.slots, () => undefined),
        picture.decisions,
      ),
    [held, picture, head.slots],
  );

  // What is on screen is made first.
  useEffect(() => store.lookAt([id], [slot.address]), [store, id, slot.address]);

  const drawing = useRef(0);
  const send = useCallback(
    (commands: readonly JobCommand[], gesture?: string) => {
      cancelAnimationFrame(drawing.current);
      setHeld(null);
      void store.send(commands, gesture);
    },
    [store],
  );
  const framed = useCallback(
    (address: string, box: Box): JobCommand[] => [
      { do: 'set-frame', picture: id, slot: address, frame: edgesOf(frameOf(box, picture)) },
    ],
    [id, picture],
  );
  // A hand moves more often than the screen is drawn: the last place before a drawing counts.
  const hold = useCallback(
    (address: string, box: Box) => {
      cancelAnimationFrame(drawing.current);
      drawing.current = requestAnimationFrame(() => setHeld(framed(address, box)));
    },
    [framed],
  );
  const commit = useCallback(
    (address: string, box: Box, gesture?: string) => send(framed(address, box), gesture),
    [send, framed],
  );
  const boxes = useMemo(
    () =>
      new Map(head.slots.map((one) => [one.address, frameFor(picture, one.slot, one.address, decisions)])),
    [head.slots, picture, decisions],
  );
  const box = boxes.get(slot.address)!;
  const ahead = useForetoldFiles(store.id, id, slot.destination, slot.slot.key, held);
  const cell = useJob((job) => job.cells.get(cellKey(id, slot.address)));
  const [pointed, setPointed] = useState<string | null>(null);
  const others = useMemo(() => {
    const seen = new Map<string, { key: string; name: string; box: Box; slots: string[] }>();
    for (const one of head.slots) {
      const loose = decisionFor(decisions, one.address).loose;
      const key = loose ? one.address : one.slot.shapeKey;
      const mine = decisionFor(decisions, slot.address).loose ? slot.address : slot.slot.shapeKey;
      const other = boxes.get(one.address)!;
      const all = other.width >= picture.width - 0.5 && other.height >= picture.height - 0.5;
      if (seen.has(key)) seen.get(key)!.slots.push(one.address);
      else if (key !== mine && !all && !decisionFor(decisions, one.address).skip)
        seen.set(key, {
          key,
          name: loose ? one.slot.name : (one.slot.ratioText ?? one.slot.name),
          box: other,
          slots: [one.address],
        });
    }
    return [...seen.values()];
  }, [head.slots, boxes, decisions, slot, picture]);

  const chosen: Chosen[] = cell ? [{ picture: { ...picture, decisions }, slot, cell }] : [];
  // A key that is held down repeats itself: that is one gesture, and one step of undo.
  const gesture = useRef('');
  const gestureOf = (event: KeyboardEvent) => {
    if (!event.repeat) gesture.current = crypto.randomUUID();
    return gesture.current;
  };
  const step = (dx: number, dy: number) => (event: KeyboardEvent) => {
    const [x, y] = event.shiftKey ? [1, 1] : [picture.width / 100, picture.height / 100];
    commit(slot.address, moved(box, dx * x, dy * y, picture), gestureOf(event));
  };
  const zoom = (factor: number) => (event: KeyboardEvent) =>
    commit(
      slot.address,
      zoomed(box, factor, { x: box.x + box.width / 2, y: box.y + box.height / 2 }, picture, slot.slot.ratio),
      gestureOf(event),
    );
  const hand = decisionFor(decisions, slot.address).loose
    ? decisionFor(decisions, slot.address).frame
    : decisions.framings[slot.slot.shapeKey];
  /** Back to the frame that follows the marks. */
  const automatic = () => {
    if (hand) send([{ do: 'set-frame', picture: id, slot: slot.address, frame: null }]);
  };
  const loosen = () => void benchActions.letLoose(store, chosen);
  const tie = () => void benchActions.tieAgain(store, chosen);
  const confirm = () => picture.suggestion && send([{ do: 'confirm-suggestion', picture: id }]);
  const turn = (quarters: number, degrees: number) =>
    send([{ do: 'turn', picture: id, quarters: ((quarters % 4) + 4) % 4, degrees }]);

  useShortcuts({
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
    escape: () => (tool === 'frame' ? bench() : setTool('frame')),
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
    o: over,
    b: bench,
  });

  return (
    <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_clamp(348px,31vw,396px)]">
      <div className="grid min-h-0 grid-rows-[auto_1fr]">
        <MarksBar
          picture={picture}
          decisions={decisions}
          tool={tool}
          onTool={setTool}
          onConfirm={confirm}
          onDecline={() => send([{ do: 'decline-suggestion', picture: id }])}
          onClear={() => send([{ do: 'clear-marks', picture: id }])}
          onTurn={turn}
          onOver={over}
          onCopy={() => setCopying(true)}
          onNext={() => neighbour(1)}
        />
        <PictureStage
          picture={picture}
          slot={slot}
          box={box}
          others={others}
          pointed={pointed}
          keep={decisions.keep}
          suggestion={decisions.noSuggestion ? null : picture.suggestion}
          focus={decisions.focus}
          tool={tool}
          onHold={hold}
          onCommit={commit}
          onKeep={(box, done) => {
            const kept: JobCommand[] = [{ do: 'add-keep-box', picture: id, box }];
            if (!done) return setHeld(kept);
            send(kept);
            setTool('frame');
          }}
          onFocus={(focus) => {
            send([{ do: 'set-focus', picture: id, focus }]);
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
        held={held !== null}
        ahead={ahead}
        byHand={hand != null}
        onPoint={setPointed}
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
            void store.send([
              {
                do: 'copy-framing',
                picture: id,
                to: pictures.map((other) => other.picture.id),
                slot: slot.address,
              },
            ]);
          }}
        />
      )}
    </div>
  );
}
