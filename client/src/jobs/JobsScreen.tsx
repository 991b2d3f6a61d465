import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useLocation } from 'wouter';
import { api, take } from '../api/client';
import { useJobs } from '../api/queries';
import { useShortcuts } from '../design/useShortcuts';
import { Button, Key } from '../design/Button';
import { FramesDrawing } from '../design/Drawings';
import { EmptyState } from '../design/EmptyState';
import { Notice } from '../design/Notice';
import { t } from '../texts/texts';
import { JobLine } from './JobLine';
import { inOrder, type JobOrder } from './jobOrder';

/** All jobs; making a new one is the next step. */
export function JobsScreen() {
  const jobs = useJobs();
  const [, go] = useLocation();
  const cache = useQueryClient();
  const [aside, setAside] = useState(false);
  const [words, setWords] = useState('');
  const [order, setOrder] = useState<JobOrder>('newest');
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
  const all = jobs.data.filter((job) => job.archived === aside);
  const shown = inOrder(all, order, words);
  const put = jobs.data.filter((job) => job.archived).length;
  const nothing = shown.length === 0 && words === '' && !aside;
  return (
    <div className="h-full overflow-y-auto px-5 pt-4 pb-8">
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-head">{aside ? t('jobs.archivedJobs') : t('jobs.jobs')}</h1>
        <span className="text-ink-2">{t('jobs.aJobIsASetOf')}</span>
        <span className="flex-1" />
        {all.length > 1 && <Finding {...{ words, setWords, order, setOrder }} />}
        {(put > 0 || aside) && (
          <Button onClick={() => setAside(!aside)}>
            {aside ? t('jobs.currentJobs') : t('jobs.archivedPut', { put })}
          </Button>
        )}
        {!nothing && <NewJob onMake={() => make.mutate()} />}
      </header>
      {make.isError && (
        <p role="alert" className="mt-3 text-breaks">
          {make.error.message}
        </p>
      )}
      {shown.length === 0 ? (
        <NoJobs words={words} nothing={nothing} onMake={() => make.mutate()} />
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

/** Searching the jobs by name, and their order. */
function Finding({
  words,
  setWords,
  order,
  setOrder,
}: {
  words: string;
  setWords: (words: string) => void;
  order: JobOrder;
  setOrder: (order: JobOrder) => void;
}) {
  return (
    <>
      <input
        type="search"
        value={words}
        onChange={(event) => setWords(event.target.value)}
        aria-label={t('jobs.searchJobs')}
        placeholder={t('jobs.searchJobs')}
        className="h-8 w-44 rounded-md border border-line bg-sheet px-2 placeholder:text-ink-2"
      />
      <select
        value={order}
        onChange={(event) => setOrder(event.target.value as JobOrder)}
        aria-label={t('jobs.order')}
        className="h-8 rounded-md border border-line bg-sheet px-2"
      >
        <option value="newest">{t('jobs.newestFirst')}</option>
        <option value="to-review">{t('jobs.mostToReviewFirst')}</option>
        <option value="name">{t('jobs.byName')}</option>
      </select>
    </>
  );
}

const NewJob = ({ onMake }: { onMake: () => void }) => (
  <Button needs="edit" kind="main" onClick={onMake}>
    {t('jobs.newJob')} <Key>N</Key>
  </Button>
);

function NoJobs({ words, nothing, onMake }: { words: string; nothing: boolean; onMake: () => void }) {
  if (!nothing)
    return (
      <p className="mt-16 text-center text-ink-2">
        {words !== '' ? t('jobs.noJobIsCalledSo', { words }) : t('jobs.noJobIsArchived')}
      </p>
    );
  return (
    <EmptyState
      drawing={<FramesDrawing />}
      title={t('jobs.onePictureEveryPlace')}
      steps={[t('jobs.firstAddPictures'), t('jobs.thenTickTheSlots'), t('jobs.thenReviewAndHandOver')]}
      action={<NewJob onMake={onMake} />}
    />
  );
}
