import type { Cell, JobCommand, JobEvent, JobHead, JobPicture, JobProgress, RunState } from '../api/client';
import { standingTogether } from './columns';
import { applied } from './commands';

export const cellKey = (picture: string, slot: string) => `${picture}|${slot}`;

/** Commands that were sent: shown already, and taken back if they are refused. */
export interface PendingCommands {
  id: number;
  commands: readonly JobCommand[];
  /** The sequence that was reached; null until the server answered. */
  reached: number | null;
}

/** A job as a client knows it. Never changed: every step returns another. */
export interface JobState {
  /** The job as the server last told it; null until it was read. */
  told: JobHead | null;
  /** The job as it is shown: as told, with the pending commands applied. */
  head: JobHead | null;
  /** All cells that were read, by picture and slot. */
  cells: ReadonlyMap<string, Cell>;
  progress: JobProgress | null;
  run: RunState;
  /** The number of the last change that was taken in; -1 until the job was read. */
  sequence: number;
  pending: readonly PendingCommands[];
}

export const emptyJobState: JobState = {
  told: null,
  head: null,
  cells: new Map(),
  progress: null,
  run: 'running',
  sequence: -1,
  pending: [],
};

/** What can happen to a job in a client. */
export type JobAction =
  | { type: 'read'; head: JobHead; cells: readonly Cell[]; progress: JobProgress }
  | { type: 'cells'; cells: readonly Cell[] }
  | { type: 'event'; event: JobEvent }
  | { type: 'send'; id: number; commands: readonly JobCommand[] }
  | { type: 'answer'; id: number; sequence: number }
  | { type: 'refuse'; id: number };

/** True where an event says that something was missed: the job must be read again. */
export const missed = (state: JobState, event: JobEvent): boolean =>
  event.sequence > state.sequence + 1 || event.reread;

/** The job after an action. An event that is older than the job, or that comes before it was read, changes nothing. */
export function reduced(state: JobState, action: JobAction): JobState {
  switch (action.type) {
    case 'read':
      return shown({
        ...state,
        told: { ...action.head, slots: standingTogether(action.head.slots) },
        cells: new Map(action.cells.map((cell) => [cellKey(cell.picture, cell.slot), cell])),
        progress: action.progress,
        run: action.head.run,
        sequence: action.head.sequence,
      });
    case 'cells':
      return { ...state, cells: withCells(state.cells, action.cells) };
    case 'event': {
      const { event } = action;
      if (!state.told || event.sequence < state.sequence) return state;
      return shown({
        ...state,
        told: merged(state.told, event),
        // Other cells, pictures or slots: what is worked out over all cells is worked out again.
        cells:
          event.cells.length > 0 || event.order || event.slots
            ? withCells(state.cells, event.cells)
            : state.cells,
        progress: event.progress,
        run: event.run,
        sequence: event.sequence,
      });
    }
    case 'send':
      return shown({
        ...state,
        cells: accepted(state.cells, action.commands),
        pending: [...state.pending, { id: action.id, commands: action.commands, reached: null }],
      });
    case 'answer':
      // The event may have come before the answer did.
      return shown({
        ...state,
        pending: state.pending.map((one) =>
          one.id === action.id ? { ...one, reached: action.sequence } : one,
        ),
      });
    case 'refuse':
      return shown({ ...state, pending: state.pending.filter((one) => one.id !== action.id) });
  }
}

/** What was told takes the place of what was shown ahead of it. */
function shown(state: JobState): JobState {
  const pending = state.pending.filter((one) => one.reached === null || one.reached > state.sequence);
  const commands = pending.flatMap((one) => one.commands);
  const cellOf = (picture: string, slot: string) => state.cells.get(cellKey(picture, slot));
  const head = state.told && (commands.length > 0 ? applied(state.told, commands, cellOf) : state.told);
  return { ...state, pending, head };
}

function withCells(cells: ReadonlyMap<string, Cell>, changed: readonly Cell[]): ReadonlyMap<string, Cell> {
  const next = new Map(cells);
  for (const cell of changed) {
    const key = cellKey(cell.picture, cell.slot);
    if ((next.get(key)?.sequence ?? -1) <= cell.sequence) next.set(key, cell);
  }
  return next;
}

/** An accepted cell is no longer to review, before the server says so: the next cell to review is another one. */
function accepted(
  cells: ReadonlyMap<string, Cell>,
  commands: readonly JobCommand[],
): ReadonlyMap<string, Cell> {
  if (!commands.some((command) => command.do === 'accept')) return cells;
  const next = new Map(cells);
  for (const command of commands) {
    if (command.do !== 'accept') continue;
    const key = cellKey(command.picture, command.slot);
    const cell = next.get(key);
    if (!cell) continue;
    const toReview = cell.toReview.filter((code) => command.reasons && !command.reasons.includes(code));
    next.set(key, { ...cell, toReview });
  }
  return next;
}

/** The job after an event: only what the event tells is another object. */
function merged(head: JobHead, event: JobEvent): JobHead {
  let next = event.title ? { ...head, ...event.title } : head;
  if (event.slots) next = { ...next, slots: standingTogether(event.slots) };
  if (!event.pictures && !event.order) return next;
  const known = new Map(next.pictures.map((one) => [one.picture.id, one]));
  for (const one of (event.pictures ?? []) as JobPicture[]) known.set(one.picture.id, one);
  const order = event.order ?? next.pictures.map((one) => one.picture.id);
  return { ...next, pictures: order.flatMap((id) => known.get(id) ?? []) };
}
