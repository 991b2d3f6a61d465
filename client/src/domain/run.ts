import type { RunState } from '../api/client';
import { t } from '../texts/texts';

/** Whether files are made, in a word. */
export const runWords: Record<RunState, string> = {
  running: t('jobs.running'),
  paused: t('jobs.pausedRun'),
  stopped: t('jobs.stopped'),
};
