import { useEffect, useMemo, useRef, useState } from 'react';
import type { JobCommand, JobPicture, JobSlot } from '../api/client';
import { useShortcuts } from '../design/useShortcuts';
import { moved, zoomed } from '../domain/box';
import { decisionFor } from '../domain/decisions';
import { cellKey } from '../domain/jobState';
import { otherFrames } from '../domain/otherFrames';
import { frameFor } from '../domain/solver';
import { benchActions, type Chosen } from '../jobs/actions';
import { useHead, useJob, useJobStore } from '../jobs/useJob';
import { CopySheet } from './CopySheet';
import { FramingPanel } from './FramingPanel';
import { MarksBar } from './MarksBar';
import { PictureStage } from './PictureStage';
import { useForetoldFiles } from './useForetoldFiles';
import { useGoing } from './useGoing';
import { useHeldDecisions } from './useHeldDecisions';
import type { Tool } from './useStageGestures';

export function Framing({ picture, slot }: { picture: JobPicture; slot: JobSlot }) {
  const store = useJobStore();
  const head = useHead();
  const { bench, activate, nextSlot, neighbour, nextLook, weigh, over } = useGoing(picture, slot, head.slots);
  const [tool, setTool] = useState<Tool>('frame');
  const [copying, setCopying] = useState(false);
  const id = picture.picture.id;
  const { held, setHeld, decisions, send, hold, commit } = useHeldDecisions(picture, head.slots);

  // What is on screen is made first.
  useEffect(() => store.lookAt([id], [slot.address]), [store, id, slot.address]);

  const boxes = useMemo(
    () =>
      new Map(head.slots.map((one) => [one.address, frameFor(picture, one.slot, one.address, decisions)])),
    [head.slots, picture, decisions],
  );
  const box = boxes.get(slot.address)!;
  const ahead = useForetoldFiles(store.id, id, slot.destination, slot.slot.key, held);
  const cell = useJob((job) => job.cells.get(cellKey(id, slot.address)));
  const [pointed, setPointed] = useState<string | null>(null);
  const others = useMemo(
    () => otherFrames(head.slots, boxes, decisions, slot, picture),
    [head.slots, boxes, decisions, slot, picture],
  );

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
  const hand = decisionFor(decisions, slot.address).unlinked
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
          onDecline={() => send([{ do: 'reject-suggestion', picture: id }])}
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
          suggestion={decisions.suggestionRejected ? null : picture.suggestion}
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
