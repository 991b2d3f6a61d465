import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useLocation } from 'wouter';
import { addresses, api, type RewrittenPage, type PageOfJob, take } from '../api/client';
import { usePageOfJob } from '../api/queries';
import { useShortcuts } from '../design/useShortcuts';
import { Button, Key, MainLink } from '../design/Button';
import { Notice } from '../design/Notice';
import { JobBar } from '../jobs/JobBar';
import { useJobStore } from '../jobs/useJob';
import { HandOverTabs } from './HandOverTabs';
import { RewriteFigures } from './RewriteFigures';
import { RewriteStage, type Seen } from './RewriteStage';
import { t } from '../texts/texts';

/** The page that the job was made of, with the job's files in it, beside what it was. */
export function OriginalPageScreen() {
  const store = useJobStore();
  const cache = useQueryClient();
  const page = usePageOfJob(store.id);
  const asked = { params: { path: { id: store.id } } };
  const settled = () => void cache.invalidateQueries({ queryKey: ['page-of-job', store.id] });
  const mend = useMutation({
    mutationFn: () => take(api.POST('/api/jobs/{id}/page/rewrite', asked)),
    onSettled: settled,
  });
  const stop = useMutation({
    mutationFn: () => take(api.POST('/api/jobs/{id}/page/stop', asked)),
    onSettled: settled,
  });
  return (
    <div className="grid h-full min-h-0 grid-rows-[auto_auto_1fr]">
      <div>
        <JobBar stage="handing-over" />
      </div>
      <HandOverTabs part="old-page" />
      {page.isError ? (
        <Notice>{page.error.message}</Notice>
      ) : page.isPending ? (
        <Notice>{t('handingOver.loadingThePage')}</Notice>
      ) : page.data === null ? (
        <Notice>{t('handingOver.thisJobWasNotMadeFrom')}</Notice>
      ) : page.data.page ? (
        <Mended
          key={page.data.askedAt}
          view={page.data}
          page={page.data.page}
          trouble={mend.error?.message}
          onAgain={() => mend.mutate()}
        />
      ) : (
        <Notice
          action={
            page.data.state === 'waiting' ? (
              <Button onClick={() => stop.mutate()}>{t('handingOver.stop')}</Button>
            ) : (
              <Button kind="main" onClick={() => mend.mutate()} disabled={mend.isPending}>
                {t('handingOver.replaceThePicturesInThePage')}
              </Button>
            )
          }
        >
          <span className="block font-semibold">{page.data.name}</span>
          {progressWords(page.data)}
          {mend.isError && (
            <span role="alert" className="mt-2 block text-breaks">
              {mend.error.message}
            </span>
          )}
        </Notice>
      )}
    </div>
  );
}

function progressWords({ state, trouble, progress, pictures }: PageOfJob): string {
  switch (state) {
    case 'waiting':
      return progress
        ? t('handingOver.measuringThePageBeforeAndAfter', { done: progress.done, of: progress.of })
        : t('handingOver.waiting');
    case 'failed':
      return trouble ?? t('handingOver.thePageCouldNotBeRewritten');
    case 'stopped':
      return t('handingOver.stopped');
    default:
      return t('handingOver.picturesOfThePageAreReplaced', { count: pictures });
  }
}

function Mended({
  view,
  page,
  trouble,
  onAgain,
}: {
  view: PageOfJob;
  page: RewrittenPage;
  trouble: string | undefined;
  onAgain: () => void;
}) {
  const store = useJobStore();
  const [, go] = useLocation();
  // A picture was taken on one screen of each width.
  const screens = page.screens.filter((one) => one.similarity !== null);
  const [viewport, setViewport] = useState(() => screens.at(-2)?.viewport ?? screens[0]?.viewport ?? 0);
  const [seen, setSeen] = useState<Seen>('both');
  useShortcuts({
    d: () => document.querySelector<HTMLAnchorElement>('a[data-download]')?.click(),
    x: () => setSeen((now) => (now === 'both' ? 'difference' : 'both')),
    b: () => go(`/job/${store.id}`),
  });
  return (
    <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_348px] max-md:block max-md:overflow-y-auto">
      <RewriteStage
        job={store.id}
        page={page}
        viewport={viewport}
        onViewport={setViewport}
        seen={seen}
        onSeen={setSeen}
        version={view.askedAt ?? ''}
      />
      <aside
        className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
        aria-label={t('handingOver.thePageWithNewPictures')}
      >
        <RewriteFigures name={view.name} page={page} viewport={viewport} />
        <section
          className="sticky bottom-0 mt-auto flex flex-col gap-2 border-t border-line bg-sheet px-5 py-3"
          aria-label={t('handingOver.handOver')}
        >
          {trouble && (
            <p role="alert" className="text-breaks">
              {trouble}
            </p>
          )}
          <Button onClick={onAgain}>{t('handingOver.repeatWithTheCurrentFiles')}</Button>
          <MainLink data-download href={addresses.rewrittenPage(store.id)} download className="w-full">
            {t('handingOver.downloadThePage')} <Key>D</Key>
          </MainLink>
        </section>
      </aside>
    </div>
  );
}
