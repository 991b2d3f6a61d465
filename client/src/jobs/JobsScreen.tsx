import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useLocation } from 'wouter';
import { addresses, api, type JobSummary, take } from '../api/client';
import { useJobs } from '../api/queries';
import { useShortcuts } from '../design/useShortcuts';
import { Button, Key } from '../design/Button';
import { files, weight } from '../design/figures';
import { Notice } from '../design/Notice';
import { t } from '../texts/texts';

/** All jobs; making a new one is the next step. */
export function JobsScreen() {
  const jobs = useJobs();
  const [, go] = useLocation();
  const cache = useQueryClient();
  const [aside, setAside] = useState(false);
  const make = useMutation({
    mutationFn: () => take(api.POST('/api/jobs', { body: { name: null, pictures: null, slots: null } })),
    onSuccess: (job) => go(`/job/${job.id}`),
  });
  const change = () => void cache.invalidateQueries({ queryKey: ['jobs'] });
  const copy = useMutation({
    mutationFn: (id: string) => take(api.POST('/api/jobs/{id}/copy', { params: { path: { id } } })),
    onSettled: change,
  });
  const archive = useMutation({
    mutationFn: ({ id, archived }: { id: string; archived: boolean }) =>
      take(api.PUT('/api/jobs/{id}/archived', { params: { path: { id } }, body: { archived } })),
    onSettled: change,
  });
  useShortcuts({ n: () => make.mutate() });
  if (jobs.isPending) return <Notice>{t('jobs.loadingTheJobs')}</Notice>;
  if (jobs.isError)
    return (
      <Notice action={<Button onClick={() => void jobs.refetch()}>{t('jobs.tryAgain')}</Button>}>
        {jobs.error.message}
      </Notice>
    );
  const shown = jobs.data.filter((job) => job.archived === aside);
  const put = jobs.data.filter((job) => job.archived).length;
  return (
    <div className="h-full overflow-y-auto px-5 pt-4 pb-8">
      <header className="flex items-center gap-4">
        <h1 className="text-head">{aside ? t('jobs.archivedJobs') : t('jobs.jobs')}</h1>
        <span className="text-ink-2">{t('jobs.aJobIsASetOf')}</span>
        <span className="flex-1" />
        {(put > 0 || aside) && (
          <Button onClick={() => setAside(!aside)}>
            {aside ? t('jobs.currentJobs') : t('jobs.archivedPut', { put })}
          </Button>
        )}
        <Button kind="main" onClick={() => make.mutate()}>
          {t('jobs.newJob')} <Key>N</Key>
        </Button>
      </header>
      {make.isError && (
        <p role="alert" className="mt-3 text-breaks">
          {make.error.message}
        </p>
      )}
      {shown.length === 0 ? (
        <p className="mt-16 text-center text-ink-2">
          {aside ? t('jobs.noJobIsArchived') : t('jobs.noJobsYetAddOneOr')}
        </p>
      ) : (
        <ul className="mt-4 flex flex-col border-t border-line bg-sheet">
          {shown.map((job) => (
            <JobLine
              key={job.id}
              job={job}
              onCopy={() => copy.mutate(job.id)}
              onArchive={() => archive.mutate({ id: job.id, archived: !job.archived })}
            />
          ))}
        </ul>
      )}
    </div>
  );
}

function JobLine({ job, onCopy, onArchive }: { job: JobSummary; onCopy: () => void; onArchive: () => void }) {
  const progress = job.progress;
  const left = progress ? progress.files - progress.done - progress.failed : 0;
  // Set aside by the program: it is named, and everything else goes on.
  if (job.fault)
    return (
      <li className="border-b border-line px-4 py-3">
        <span className="block truncate text-head font-semibold">{job.name}</span>
        <span className="block text-breaks">{job.fault}</span>
      </li>
    );
  return (
    <li className="grid grid-cols-[minmax(180px,1fr)_300px_minmax(170px,230px)_auto] items-center gap-6 border-b border-line px-4 py-3">
      <Link href={`/job/${job.id}`} className="group min-w-0">
        <span className="block truncate text-head font-semibold group-hover:underline">{job.name}</span>
        <span className="block text-ink-2">
          {t('jobs.picturesFor', { count: job.pictures, slots: t('jobs.slots', { count: job.slots }) })}
        </span>
      </Link>
      <span className="flex h-12 gap-1 overflow-hidden" aria-hidden>
        {job.first.map((one) => (
          <img
            key={one.id}
            src={addresses.preview(one.id, one.shown, 480)}
            alt=""
            className="h-12 w-auto max-w-24 object-cover"
          />
        ))}
      </span>
      <span>
        {progress && progress.files > 0 ? (
          <>
            <span className="block">
              {left > 0
                ? t('jobs.doneOfFilesRun', {
                    done: progress.done,
                    files: files(progress.files),
                    run: job.run === 'running' ? '' : t('jobs.paused'),
                  })
                : `${files(progress.done)}, ${weight(progress.bytes)}`}
            </span>
            <span className="block text-ink-2">
              {job.toReview > 0
                ? t('jobs.looksToReview', { looks: job.toReview })
                : t('jobs.nothingToReview')}
            </span>
          </>
        ) : (
          <span className="text-ink-2">{t('jobs.noFilesYet')}</span>
        )}
      </span>
      <span className="flex gap-1.5">
        <Button onClick={onCopy} aria-label={t('jobs.copyName', { name: job.name })}>
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
