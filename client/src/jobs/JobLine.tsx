import { Link } from 'wouter';
import { addresses, type JobSummary } from '../api/client';
import { Button } from '../design/Button';
import { files, weight } from '../design/figures';
import { ProgressBar } from '../design/ProgressBar';
import { VerdictMark } from '../design/VerdictMark';
import { t } from '../texts/texts';

/** One job: its pictures, how far it is, and what waits there. */
export function JobLine({
  job,
  onCopy,
  onArchive,
}: {
  job: JobSummary;
  onCopy: () => void;
  onArchive: () => void;
}) {
  // Set aside by the program: it is named, and everything else goes on.
  if (job.fault)
    return (
      <li className="border-b border-line px-4 py-3">
        <span className="block text-head font-semibold wrap-anywhere">{job.name}</span>
        <span className="block text-breaks">{job.fault}</span>
      </li>
    );
  return (
    <li className="group/line grid grid-cols-[minmax(180px,1fr)_300px_minmax(170px,230px)_156px] items-center gap-6 border-b border-line px-4 py-3 max-[900px]:grid-cols-[minmax(0,1fr)] max-[900px]:gap-2">
      <Link href={`/job/${job.id}`} className="group min-w-0">
        <span className="block text-head font-semibold wrap-anywhere group-hover:underline">{job.name}</span>
        <span className="block text-ink-2">
          {t('jobs.picturesFor', { count: job.pictures, slots: t('jobs.slots', { count: job.slots }) })}
        </span>
      </Link>
      <Link href={`/job/${job.id}`} tabIndex={-1} className="flex h-12 gap-1 overflow-hidden" aria-hidden>
        {job.first.map((one) => (
          <img
            key={one.id}
            src={addresses.preview(one.id, one.shown, 480)}
            alt=""
            className="h-12 w-auto max-w-24 object-cover"
          />
        ))}
      </Link>
      <JobState job={job} />
      {/* Quiet until the line is in hand. */}
      <span className="flex justify-end gap-1.5 opacity-0 group-focus-within/line:opacity-100 group-hover/line:opacity-100 pointer-coarse:opacity-100">
        <Button needs="edit" onClick={onCopy} aria-label={t('jobs.copyName', { name: job.name })}>
          {t('jobs.copy')}
        </Button>
        <Button
          onClick={onArchive}
          aria-label={`${job.archived ? t('jobs.restore') : t('jobs.archive')} ${job.name}`}
        >
          {job.archived ? t('jobs.restore') : t('jobs.archive')}
        </Button>
      </span>
    </li>
  );
}

/** How far the files are; what waits is a way to it. */
function JobState({ job }: { job: JobSummary }) {
  const { progress } = job;
  if (!progress || progress.files === 0) return <span className="text-ink-2">{t('jobs.noFilesYet')}</span>;
  const left = progress.files - progress.done - progress.failed;
  const finished = left === 0 && job.toReview === 0 && progress.failed === 0;
  return (
    <span>
      {left > 0 ? (
        <>
          <span className="block">
            {t('jobs.doneOfFilesRun', {
              done: progress.done,
              files: files(progress.files),
              run: job.run === 'running' ? '' : t('jobs.paused'),
            })}
          </span>
          <ProgressBar
            label={t('jobs.filesMade')}
            done={progress.done}
            of={progress.files}
            held={job.run !== 'running'}
            className="my-1 w-full"
          />
        </>
      ) : (
        <span className="flex items-center gap-2">
          {finished && <VerdictMark verdict="meets" />}
          {`${files(progress.done)}, ${weight(progress.bytes)}`}
        </span>
      )}
      {job.toReview > 0 ? (
        <Link
          href={`/job/${job.id}?reason=any`}
          className="inline-block font-semibold text-accent underline underline-offset-2"
        >
          {t('jobs.looksToReview', { looks: job.toReview })}
        </Link>
      ) : (
        <span className="block text-ink-2">{finished ? t('jobs.finished') : t('jobs.nothingToReview')}</span>
      )}
    </span>
  );
}
