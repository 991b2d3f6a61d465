import { describe, expect, it } from 'vitest';
import type { Decisions, Edges, JobCommand, JobHead, JobPicture, JobSlot, Slot, Turn } from '../api/client';
import { frameFor } from './solver';
import solverCases from './solver.vectors.json';
import { turned } from './turn';
import turnCases from './turn.vectors.json';
import { applied } from './commands';
import commandCases from './commands.vectors.json';

// The core worked these cases out (tests/Pantomet.Core.Tests/Vectors); what the page computes while a hand moves must be the same.

const close = (is: number, was: number) => expect(is).toBeCloseTo(was, 6);
const boxClose = (is: Edges, was: Edges) => {
  close(is.left, was.left);
  close(is.top, was.top);
  close(is.right, was.right);
  close(is.bottom, was.bottom);
};

describe('the solver', () => {
  it.each(solverCases.map((one, at) => ({ at, one })))('finds the frame of case $at', ({ one }) => {
    const box = frameFor(
      one.picture as unknown as JobPicture,
      one.slot as unknown as Slot,
      'site/slot',
      one.decisions as unknown as Decisions,
    );
    close(box.x, one.frame.x);
    close(box.y, one.frame.y);
    close(box.width, one.frame.width);
    close(box.height, one.frame.height);
  });
});

describe('a turn', () => {
  it.each(turnCases.map((one, at) => ({ at, one })))('moves the marks of case $at', ({ one }) => {
    const now = turned(one.decisions as unknown as Decisions, one.to as Turn, one.original);
    const core = one.turned as unknown as Decisions;
    expect(now.turn).toEqual(core.turn);
    expect(now.keep.length).toBe(core.keep.length);
    now.keep.forEach((box, at) => boxClose(box, core.keep[at]!));
    close(now.focus!.x, core.focus!.x);
    close(now.focus!.y, core.focus!.y);
  });
});

/** As far as a case says it; the file's own types are those of its literals. */
interface JobOfCase {
  name: string;
  patterns: object;
  pictures: { id: string; decisions: object; frames: object }[];
  slots: { address: string; shapeKey: string; choice: object | null }[];
}

/** As much of a job as commands ask for. */
function headOf(job: JobOfCase, id: string): JobHead {
  return {
    id,
    name: job.name,
    prefix: '',
    numbered: false,
    patterns: job.patterns as Record<string, string>,
    pictures: job.pictures.map((one) => ({
      picture: { id: one.id, width: 1200, height: 900 },
      decisions: one.decisions,
      suggestion: null,
    })) as unknown as JobPicture[],
    slots: job.slots.map(({ address, shapeKey, choice }) => ({
      address,
      slot: { shapeKey },
      choice,
    })) as unknown as JobSlot[],
  } as unknown as JobHead;
}

describe('a command', () => {
  it.each(commandCases.map((one, at) => ({ at, what: one.command.do, one })))(
    'makes of a job what the core makes of it: $at, $what',
    ({ one }) => {
      const head = headOf(one.job, 'job');
      const core = headOf(one.after, 'job');
      // The suggestion is told by the server as it lies after the turn; the case says where by what is kept of it.
      if (one.command.do === 'confirm-suggestion')
        head.pictures[0]!.suggestion = core.pictures[0]!.decisions.keep[0]!;
      const frames = new Map(one.job.pictures.map((picture) => [picture.id, picture.frames]));
      const now = applied(head, [one.command as unknown as JobCommand], (picture, slot) => {
        const frame = (frames.get(picture) as Record<string, number[]> | undefined)?.[slot];
        return frame ? { frame, toReview: [] } : undefined;
      });
      const rounded = (value: unknown) =>
        JSON.parse(
          JSON.stringify(value, (_, inner: unknown) =>
            typeof inner === 'number' ? Math.round(inner * 1e9) / 1e9 : inner,
          ),
        ) as unknown;
      expect(rounded(now.pictures.map((picture) => picture.decisions))).toEqual(
        rounded(core.pictures.map((picture) => picture.decisions)),
      );
      expect(now.slots.map((slot) => [slot.address, slot.choice])).toEqual(
        core.slots.map((slot) => [slot.address, slot.choice]),
      );
      expect([now.name, now.patterns]).toEqual([core.name, core.patterns]);
    },
  );
});
