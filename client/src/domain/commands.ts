import type { Cell, Decisions, Edges, JobCommand, JobHead, JobPicture, JobSlot } from '../api/client';
import { turned } from './turn';
import { decisionFor, withCell } from './decisions';

/** What the page knows of a cell while a command is applied to it. */
/** What a command asks of a cell: its frame, and what is to review. */
export type CellOf = (picture: string, slot: string) => Pick<Cell, 'frame' | 'toReview'> | undefined;

export const edgesOf = (frame: readonly number[]): Edges => ({
  left: frame[0]!,
  top: frame[1]!,
  right: frame[2]!,
  bottom: frame[3]!,
});

const framed = (decisions: Decisions, shape: string, frame: Edges | null): Decisions => {
  const framings = { ...decisions.framings };
  if (frame) framings[shape] = frame;
  else delete framings[shape];
  return { ...decisions, framings };
};

/**
 * What a command makes of the decisions about one picture, as the core does: the page shows it at once and the server's answer takes its
 * place. The core's tests write the cases that hold the two against each other.
 */
export function decided(
  picture: JobPicture,
  command: JobCommand,
  slots: readonly JobSlot[],
  cellOf: CellOf,
  pictures: readonly JobPicture[] = [picture],
): Decisions {
  const now = picture.decisions;
  const id = picture.picture.id;
  const mine = 'picture' in command && command.picture === id;
  switch (command.do) {
    case 'follow-marks':
      return command.cells
        .filter((one) => one.picture === id)
        .reduce<Decisions>(
          (all, one) =>
            decided(
              { ...picture, decisions: all },
              { do: 'set-frame', picture: id, slot: one.slot, frame: null },
              slots,
              cellOf,
            ),
          now,
        );
    case 'choose-for-slots':
      return Object.entries(now.cells)
        .filter(([slot, one]) => one.choice && (!command.slots || command.slots.includes(slot)))
        .reduce((all, [slot]) => withCell(all, slot, { choice: null }), now);
    case 'copy-framing': {
      const from = pictures.find((one) => one.picture.id === command.picture);
      return from && command.to.includes(id) && !mine
        ? copied(from, picture, command.slot, slots, cellOf)
        : now;
    }
  }
  return mine
    ? (frameDecided(now, command, slots, cellOf, id) ??
        markDecided(now, command, picture) ??
        cellDecided(now, command, cellOf, id))
    : now;
}

/** What is decided about the frame of a slot; undefined for any other command. */
function frameDecided(
  now: Decisions,
  command: JobCommand,
  slots: readonly JobSlot[],
  cellOf: CellOf,
  id: string,
): Decisions | undefined {
  switch (command.do) {
    case 'set-frame': {
      if (command.shape != null) return framed(now, command.shape, command.frame);
      const slot = slots.find((one) => one.address === command.slot);
      if (!slot) return now;
      return decisionFor(now, slot.address).unlinked
        ? withCell(now, slot.address, { frame: command.frame })
        : framed(now, slot.slot.shapeKey, command.frame);
    }
    case 'unlink': {
      const frame = cellOf(id, command.slot)?.frame;
      return decisionFor(now, command.slot).unlinked || !frame
        ? now
        : withCell(now, command.slot, { unlinked: true, frame: edgesOf(frame) });
    }
    case 'link':
      return withCell(now, command.slot, { unlinked: false, frame: null });
    default:
      return undefined;
  }
}

/** What is decided about the picture as a whole; undefined for any other command. */
function markDecided(now: Decisions, command: JobCommand, picture: JobPicture): Decisions | undefined {
  switch (command.do) {
    case 'add-keep-box':
      return { ...now, keep: [...now.keep, command.box], focus: null };
    case 'set-keep-boxes':
      return { ...now, keep: command.boxes, focus: command.boxes.length > 0 ? null : now.focus };
    case 'set-focus':
      return {
        ...now,
        focus: command.focus as Decisions['focus'],
        keep: command.focus ? [] : now.keep,
      };
    case 'confirm-suggestion':
      return {
        ...now,
        keep: picture.suggestion ? [picture.suggestion] : now.keep,
        focus: null,
        suggestionRejected: false,
      };
    case 'reject-suggestion':
      return { ...now, suggestionRejected: true };
    case 'clear-marks':
      return { ...now, keep: [], focus: null, suggestionRejected: false };
    case 'turn':
      return turned(now, { quarters: command.quarters, degrees: command.degrees }, picture.picture);
    case 'give-words': {
      const decorative = command.decorative ?? (!command.alternative && now.decorative);
      return {
        ...now,
        keywords: command.keywords ?? now.keywords,
        alternative: decorative ? '' : (command.alternative ?? now.alternative),
        decorative,
        title: command.title?.trim() ?? now.title,
      };
    }
    default:
      return undefined;
  }
}

/** What is decided about one cell; any other command changes nothing. */
function cellDecided(now: Decisions, command: JobCommand, cellOf: CellOf, id: string): Decisions {
  switch (command.do) {
    case 'accept': {
      const found = command.reasons ?? cellOf(id, command.slot)?.toReview ?? [];
      const accepted = [...new Set([...decisionFor(now, command.slot).accepted, ...found])];
      return {
        ...withCell(now, command.slot, { accepted }),
        otherShape: now.otherShape && !found.includes('other-shape'),
      };
    }
    case 'skip':
      return withCell(now, command.slot, { skip: command.skipped });
    case 'choose':
      return withCell(now, command.slot, { choice: command.choice });
    case 'dress':
      return withCell(now, command.slot, { dress: command.dress });
    default:
      return now;
  }
}

function copied(
  from: JobPicture,
  to: JobPicture,
  slot: string | null | undefined,
  slots: readonly JobSlot[],
  cellOf: CellOf,
): Decisions {
  const framings = { ...from.decisions.framings };
  const place = slots.find((one) => one.address === slot);
  const frame = place && cellOf(from.picture.id, place.address)?.frame;
  // Where nothing was set by hand, the frame as it stands is what is copied.
  if (place && frame) framings[place.slot.shapeKey] ??= edgesOf(frame);
  const { turn, keep, focus, suggestionRejected, cells } = from.decisions;
  return Object.entries(cells)
    .filter(([, one]) => one.unlinked)
    .reduce((all, [address, one]) => withCell(all, address, { unlinked: true, frame: one.frame }), {
      ...to.decisions,
      turn,
      keep,
      focus,
      suggestionRejected: suggestionRejected || keep.length > 0,
      framings,
    });
}

/** A job as it is shown while commands are on their way. What comes from the library or the book waits for the server. */
export function applied(head: JobHead, commands: readonly JobCommand[], cellOf: CellOf): JobHead {
  return commands.reduce((now, command) => {
    switch (command.do) {
      case 'name-job':
        return {
          ...now,
          name: command.name ?? now.name,
          prefix: command.prefix ?? now.prefix,
          numbered: command.numbered ?? now.numbered,
          patterns: { ...now.patterns, ...command.patterns },
        };
      case 'remove-pictures':
        return { ...now, pictures: now.pictures.filter((one) => !command.pictures.includes(one.picture.id)) };
      case 'remove-slots':
        return { ...now, slots: now.slots.filter((one) => !command.slots.includes(one.address)) };
    }
    const slots =
      command.do === 'choose-for-slots'
        ? now.slots.map((one) =>
            !command.slots || command.slots.includes(one.address) ? { ...one, choice: command.choice } : one,
          )
        : now.slots;
    const pictures = now.pictures.map((one) => {
      const decisions = decided(one, command, slots, cellOf, now.pictures);
      return decisions === one.decisions ? one : { ...one, decisions };
    });
    return { ...now, slots, pictures };
  }, head);
}
