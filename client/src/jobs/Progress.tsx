import { Button } from '../design/Button';
import { duration, files, weight } from '../design/figures';
import { ProgressBar } from '../design/ProgressBar';
import { runWords } from '../domain/run';
import { t } from '../texts/texts';
import { useJob, useJobStore } from './useJob';

/** How far the files are, honestly, with the ways to pause, stop and go on. */
export function Progress() {
  const store = useJobStore();
  const progress = useJob((job) => job.progress);
  const run = useJob((job) => job.run);
  if (!progress || progress.files === 0) return null;
  const left = progress.files - progress.done - progress.failed;
  const state =
    run === 'running' ? remaining(progress.secondsLeft) : t('jobs.runState', { run: runWords[run] });
  return (
    <div className="flex shrink-0 items-center gap-2" data-testid="progress" data-left={left}>
      <ProgressBar
        label={t('jobs.filesMade')}
        done={progress.done}
        of={progress.files}
        held={run !== 'running'}
        className="w-24 @max-[760px]:hidden"
      />
      <span className="hidden whitespace-nowrap text-ink-2 @[920px]:inline">
        {left === 0
          ? `${files(progress.done)}, ${weight(progress.bytes)}`
          : t('jobs.doneOfFilesBytesState', {
              done: progress.done,
              files: files(progress.files),
              bytes: weight(progress.bytes),
              state,
            })}
      </span>
      {left > 0 &&
        (run === 'running' ? (
          <>
            <Button
              className="h-7!"
              onClick={() => void store.setRun('paused')}
              title={t('jobs.filesThatAreBeingMadeAre')}
            >
              {t('jobs.pause')}
            </Button>
            <Button
              className="h-7! @max-[760px]:hidden"
              onClick={() => void store.setRun('stopped')}
              title={t('jobs.filesThatAreBeingMadeAre2')}
            >
              {t('jobs.stop')}
            </Button>
          </>
        ) : (
          <Button needs="edit" className="h-7!" onClick={() => void store.setRun('running')}>
            {t('jobs.resume')}
          </Button>
        ))}
    </div>
  );
}

function remaining(seconds: number | null): string {
  if (seconds === null) return '';
  return `, ${duration(seconds)}`;
}
