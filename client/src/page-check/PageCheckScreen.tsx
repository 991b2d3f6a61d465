import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useLocation } from 'wouter';
import { api, type PageCheck, type PageReport, take } from '../api/client';
import { usePageCheck } from '../api/queries';
import { useKeys } from '../app/useKeys';
import { Button, Key } from '../design/Button';
import { Notice } from '../design/Notice';
import { ImageList } from './ImageList';
import { PageStage } from './PageStage';
import { progressWords } from './progress';
import { ScreenChoice } from './ScreenChoice';
import { TwoPictures } from './TwoPictures';

/** One page: the page itself, and its pictures in the order of what is to be gained. */
export function PageCheckScreen({ id }: { id: string }) {
  const loaded = usePageCheck(id);
  const cache = useQueryClient();
  const again = useMutation({
    mutationFn: () => take(api.POST('/api/page-checks/{id}/start', { params: { path: { id } } })),
    onSettled: () => void cache.invalidateQueries({ queryKey: ['page-checks'] }),
  });
  const stop = useMutation({
    mutationFn: () => take(api.POST('/api/page-checks/{id}/stop', { params: { path: { id } } })),
    onSettled: () => void cache.invalidateQueries({ queryKey: ['page-checks'] }),
  });
  if (loaded.isPending) return <Notice>Looking for the page.</Notice>;
  if (loaded.isError)
    return (
      <Notice
        action={
          <Link href="/page-checks" className="text-accent underline">
            Go to the page checks
          </Link>
        }
      >
        {loaded.error.message}
      </Notice>
    );
  const { check, report } = loaded.data;
  if (!report)
    return (
      <Notice
        action={
          check.state === 'waiting' ? (
            <Button onClick={() => stop.mutate()}>Stop</Button>
          ) : (
            <Button onClick={() => again.mutate()}>Measure it again</Button>
          )
        }
      >
        <span className="block font-semibold">{check.name}</span>
        {progressWords(check)}
      </Notice>
    );
  return (
    <Measured key={report.totals.seconds} check={check} report={report} onAgain={() => again.mutate()} />
  );
}

/** The screen that is looked at first: a laptop's, or what comes nearest. */
function usualScreen({ totals: { screens } }: PageReport): number {
  const far = screens.map((screen) => Math.abs(screen.viewport - 1280));
  return far.indexOf(Math.min(...far));
}

function Measured({ check, report, onAgain }: { check: PageCheck; report: PageReport; onAgain: () => void }) {
  const [at, setAt] = useState(() => usualScreen(report));
  const screen = report.totals.screens[at]!;
  const [chosen, setChosen] = useState<number | null>(report.images.length > 0 ? 0 : null);
  const [comparing, setComparing] = useState(false);
  const [, goTo] = useLocation();
  const job = useMutation({
    mutationFn: () => take(api.POST('/api/page-checks/{id}/job', { params: { path: { id: check.id } } })),
    onSuccess: ({ id }) => goTo(`/job/${id}`),
  });
  const image = chosen === null ? null : report.images[chosen]!;
  const go = (by: number) =>
    setChosen((now) => Math.min(report.images.length - 1, Math.max(0, (now ?? -by) + by)));
  useKeys({
    arrowdown: () => go(1),
    arrowup: () => go(-1),
    c: () => setComparing(!comparing),
    escape: () => setComparing(false),
  });
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)_390px] grid-rows-[auto_minmax(0,1fr)]">
      <header className="col-span-2 flex items-center gap-5 border-b border-line bg-sheet px-5 py-2">
        <Link href="/page-checks" className="text-ink-2 hover:text-ink hover:underline">
          Page checks
        </Link>
        <h1 className="min-w-0 flex-1 truncate text-base">{check.name}</h1>
        <Button onClick={() => setComparing(!comparing)} disabled={image === null} aria-pressed={comparing}>
          {comparing ? 'Back to the page' : 'What would do, beside it'} <Key>C</Key>
        </Button>
        <Button onClick={onAgain}>Measure it again</Button>
        <Button
          kind="main"
          onClick={() => job.mutate()}
          disabled={job.isPending}
          title="Its pictures come into the library, each kind of place becomes a slot, and every picture keeps the part that the page shows"
        >
          Make a job of it
        </Button>
        {job.isError && (
          <span role="alert" className="text-breaks">
            {job.error.message}
          </span>
        )}
      </header>
      <section className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)]">
        <ScreenChoice report={report} at={at} onAt={setAt} />
        {comparing && image ? (
          <TwoPictures
            key={`${chosen} ${at}`}
            check={check}
            image={image}
            screen={screen}
            version={`${report.totals.seconds}`}
          />
        ) : (
          <PageStage check={check} report={report} screen={screen} chosen={chosen} onChoose={setChosen} />
        )}
      </section>
      <ImageList report={report} screen={screen} chosen={chosen} onChoose={setChosen} />
    </div>
  );
}
