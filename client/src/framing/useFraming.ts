import { useEffect, useMemo, useState } from 'react';
import { useSearchParams } from 'wouter';
import type { JobPicture, JobSlot } from '../api/client';
import { decisionFor } from '../domain/decisions';
import { cellKey } from '../domain/jobState';
import { otherFrames } from '../domain/otherFrames';
import { frameFor } from '../domain/solver';
import { benchActions, type Chosen } from '../jobs/actions';
import { useHead, useJob, useJobStore } from '../jobs/useJob';
import { useForetoldFiles } from './useForetoldFiles';
import { useGoing } from './useGoing';
import { useHeldDecisions } from './useHeldDecisions';
import type { Tool } from './useStageGestures';

/** The framing of a picture in a slot: what is shown of it, and what can be done. */
export type FramingState = ReturnType<typeof useFraming>;

export function useFraming(picture: JobPicture, slot: JobSlot) {
  const store = useJobStore();
  const { slots } = useHead();
  const going = useGoing(picture, slot, slots);
  const [tool, setTool] = useState<Tool>('frame');
  const [search, setSearch] = useSearchParams();
  // The address says that the sheet is open: a reload opens what was open, and nothing else.
  const copying = search.has('copy');
  const setCopying = (open: boolean) =>
    setSearch(open ? { slot: slot.address, copy: '' } : { slot: slot.address }, { replace: true });
  const [pointed, setPointed] = useState<string | null>(null);
  const id = picture.picture.id;
  const { held, decisions, send, ...hand } = useHeldDecisions(picture, slots);

  // What is on screen is made first.
  useEffect(() => store.lookAt([id], [slot.address]), [store, id, slot.address]);

  const boxes = useMemo(
    () => new Map(slots.map((one) => [one.address, frameFor(picture, one.slot, one.address, decisions)])),
    [slots, picture, decisions],
  );
  const others = useMemo(
    () => otherFrames(slots, boxes, decisions, slot, picture),
    [slots, boxes, decisions, slot, picture],
  );
  const ahead = useForetoldFiles(store.id, id, slot.destination, slot.slot.key, held);
  const cell = useJob((job) => job.cells.get(cellKey(id, slot.address)));
  const chosen: Chosen[] = cell ? [{ picture: { ...picture, decisions }, slot, cell }] : [];
  const { unlinked, frame } = decisionFor(decisions, slot.address);
  const byHand = (unlinked ? frame : decisions.framings[slot.slot.shapeKey]) != null;
  const actions = {
    /** Back to the frame that follows the marks. */
    automatic: () => {
      if (byHand) send([{ do: 'set-frame', picture: id, slot: slot.address, frame: null }]);
    },
    unlink: () => void benchActions.unlink(store, chosen),
    link: () => void benchActions.link(store, chosen),
    accept: () => void benchActions.accept(store, chosen),
    skip: () => void benchActions.skip(store, chosen),
    confirm: () => {
      if (picture.suggestion) send([{ do: 'confirm-suggestion', picture: id }]);
    },
    reject: () => send([{ do: 'reject-suggestion', picture: id }]),
    clear: () => send([{ do: 'clear-marks', picture: id }]),
    turn: (quarters: number, degrees: number) =>
      send([{ do: 'turn', picture: id, quarters: ((quarters % 4) + 4) % 4, degrees }]),
    copy: () => setCopying(true),
  };
  return {
    ...{ store, picture, slot, slots, going, tool, setTool, copying, setCopying, pointed, setPointed },
    ...{ held, decisions, send, ...hand },
    ...{ boxes, box: boxes.get(slot.address)!, others, ahead, cell, byHand, actions },
  };
}
