import { useInfiniteQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'wouter';
import { api, take } from '../api/client';
import { useJobs } from '../api/queries';
import type { components } from '../api/schema';
import { Button } from '../design/Button';
import { Notice } from '../design/Notice';
import { actorName } from '../jobs/actors';
import { moment } from '../texts/numbers';
import { t } from '../texts/texts';

type Entry = components['schemas']['ActivityEntry'];

/** Who did what, the newest first; of one job only where one is chosen. */
export function LogScreen() {
  const [job, setJob] = useState('');
  const jobs = useJobs();
  const log = useInfiniteQuery({
    queryKey: ['activity', job],
    queryFn: ({ signal, pageParam }) =>
      take(
        api.GET('/api/activity', {
          signal,
          params: { query: { before: pageParam ?? undefined, job: job === '' ? undefined : job } },
        }),
      ),
    initialPageParam: null as string | null,
    getNextPageParam: (last) => last.next,
    staleTime: 0,
  });
  if (log.isPending) return <Notice>{t('accounts.loading')}</Notice>;
  if (log.isError) return <Notice>{log.error.message}</Notice>;
  const entries = log.data.pages.flatMap((page) => page.entries);
  return (
    <div className="h-full overflow-y-auto px-5 pt-4 pb-8">
      <div className="mx-auto max-w-[980px]">
        <header className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <h1 className="text-head font-semibold">{t('accounts.log')}</h1>
          <span className="flex-1 text-ink-2">{t('accounts.logExplained')}</span>
          <label className="flex items-center gap-2">
            <span>{t('accounts.ofJob')}</span>
            <select
              value={job}
              onChange={(event) => setJob(event.target.value)}
              className="h-8 max-w-56 rounded-md border border-line bg-sheet px-2"
            >
              <option value="">{t('accounts.allJobs')}</option>
              {jobs.data?.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </select>
          </label>
        </header>
        {entries.length === 0 ? (
          <p className="mt-6">{t('accounts.nothingYet')}</p>
        ) : (
          <ol className="mt-3 border-t border-line bg-sheet" aria-label={t('accounts.log')}>
            {entries.map((entry, at) => (
              <Line key={`${entry.at}-${at}`} entry={entry} shownJob={job} />
            ))}
          </ol>
        )}
        {log.hasNextPage && (
          <Button className="mt-3" onClick={() => void log.fetchNextPage()} disabled={log.isFetching}>
            {t('accounts.loadMore')}
          </Button>
        )}
      </div>
    </div>
  );
}

function Line({ entry, shownJob }: { entry: Entry; shownJob: string }) {
  return (
    <li className="grid grid-cols-[150px_minmax(0,1fr)_auto] gap-x-4 border-b border-line px-4 py-1.5 max-md:grid-cols-1">
      <time dateTime={entry.at} className="text-ink-2">
        {moment(entry.at)}
      </time>
      <span className="min-w-0 wrap-anywhere">
        <b className="font-semibold">{actorName(entry.actor)}</b> {entry.sentence}
        {entry.job !== null && entry.jobName !== null && shownJob === '' && (
          <>
            {', '}
            {t('accounts.inJob')}{' '}
            <Link href={`/job/${entry.job}`} className="text-accent underline underline-offset-2">
              {entry.jobName}
            </Link>
          </>
        )}
      </span>
      {entry.from !== '' && <span className="text-ink-2">{t('accounts.from', { address: entry.from })}</span>}
    </li>
  );
}
