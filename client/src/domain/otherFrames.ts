import type { Decisions, JobSlot } from '../api/client';
import type { Box, Size } from './box';
import { decisionFor } from './decisions';

/** A frame beside the one in hand, with the slots that share it. */
export interface OtherFrame {
  key: string;
  name: string;
  box: Box;
  slots: string[];
}

/**
 * The frames of the other slots of a picture: one for each shape, and one for each slot that is unlinked from its shape.
 * Those that show the whole picture, and those of skipped slots, have no edge to draw.
 */
export function otherFrames(
  slots: readonly JobSlot[],
  boxes: ReadonlyMap<string, Box>,
  decisions: Decisions,
  active: JobSlot,
  picture: Size,
): OtherFrame[] {
  const mine = decisionFor(decisions, active.address).unlinked ? active.address : active.slot.shapeKey;
  const seen = new Map<string, OtherFrame>();
  for (const one of slots) {
    const { unlinked, skip } = decisionFor(decisions, one.address);
    const key = unlinked ? one.address : one.slot.shapeKey;
    const box = boxes.get(one.address)!;
    const isWhole = box.width >= picture.width - 0.5 && box.height >= picture.height - 0.5;
    const known = seen.get(key);
    if (known) known.slots.push(one.address);
    else if (key !== mine && !isWhole && !skip)
      seen.set(key, {
        key,
        name: unlinked ? one.slot.name : (one.slot.ratioText ?? one.slot.name),
        box,
        slots: [one.address],
      });
  }
  return [...seen.values()];
}
