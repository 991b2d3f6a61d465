import { useCallback, useMemo, useRef, useState } from 'react';
import type { JobCommand, JobPicture, JobSlot } from '../api/client';
import { type Box, frameOf } from '../domain/box';
import { decided, edgesOf } from '../domain/commands';
import { useJobStore } from '../jobs/useJob';

/**
 * What a hand is about to decide about a picture while it is on something, the decisions with it, and the ways to hold a
 * frame and to let it go.
 */
export function useHeldDecisions(picture: JobPicture, slots: readonly JobSlot[]) {
  const store = useJobStore();
  const id = picture.picture.id;
  // Null while nothing is held.
  const [held, setHeld] = useState<readonly JobCommand[] | null>(null);
  const decisions = useMemo(
    () =>
      (held ?? []).reduce(
        (now, command) => decided({ ...picture, decisions: now }, command, slots, () => undefined),
        picture.decisions,
      ),
    [held, picture, slots],
  );
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
  return { held, setHeld, decisions, send, hold, commit };
}
