import type { Cell, Verdict } from '../api/client';
import { t } from '../texts/texts';

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

const meanings: Record<Standing, string> = {
  meets: t('common.meetsMeans'),
  concedes: t('common.concedesMeans'),
  breaks: t('common.breaksMeans'),
  skipped: t('common.skippedMeans'),
  waiting: t('common.waitingMeans'),
  making: t('common.makingMeans'),
};

/** What a standing means, as a sentence, and why it is so, in words. */
export const explained = (standing: Standing, why: readonly string[] = []): string =>
  why.length > 0 ? `${meanings[standing]}\n${why.join(', ')}` : meanings[standing];
