import type { Cell, Verdict } from '../api/client';

/** What is known of a cell or a file: its verdict, or that it waits or is being made. */
export type Standing = Verdict | 'waiting' | 'making';

/** A verdict is claimed once the files are there; that a limit is broken is known from the plan already. */
export const standingOf = (cell: Pick<Cell, 'state' | 'verdict'> | undefined): Standing =>
  !cell
    ? 'waiting'
    : cell.state === 'skipped'
      ? 'skipped'
      : cell.state === 'done' || cell.verdict === 'breaks'
        ? cell.verdict
        : cell.state;
