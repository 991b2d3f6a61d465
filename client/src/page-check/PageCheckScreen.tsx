import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { Link, useLocation } from 'wouter';
import { api, type PageCheck, type PageElement, type PageReport, take } from '../api/client';
import { usePageCheck, usePageElements } from '../api/queries';
import { useShortcuts } from '../design/useShortcuts';
import { Button, Key } from '../design/Button';
import { Notice } from '../design/Notice';
import { ImageList } from './ImageList';
import { Measuring } from './Measuring';
import { PageStage } from './PageStage';
import { Ruler } from './Ruler';
import { RulerPanel } from './RulerPanel';
import { progressWords } from './progress';
import { ScreenChoice } from './ScreenChoice';
import { TwoPictures } from './TwoPictures';
import { t } from '../texts/texts';

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
  if (loaded.isPending) return <Notice>{t('pageCheck.loadingThePage')}</Notice>;
  if (loaded.isError)
    return (
      <Notice
        action={
          <Link href="/page-checks" className="text-accent underline">
            {t('pageCheck.goToPageChecks')}
          </Link>
        }
      >
        {loaded.error.message}
      </Notice>
    );
  const { check, report } = loaded.data;
  if (!report && check.state === 'waiting')
    return (
      <div className="grid h-full grid-rows-[auto_minmax(0,1fr)]">
        <header className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-line bg-sheet px-5 py-2">
          <Link href="/page-checks" className="text-ink-2 hover:text-ink hover:underline">
            {t('pageCheck.pageChecks')}
          </Link>
          <h1 className="min-w-0 wrap-anywhere text-head">{check.name}</h1>
          <p className="flex-1 text-ink-2" role="status">
            {progressWords(check)}
          </p>
          <Button onClick={() => stop.mutate()}>{t('pageCheck.stop')}</Button>
        </header>
        <Measuring check={check} />
      </div>
    );
  if (!report)
    return (
      <Notice action={<Button onClick={() => again.mutate()}>{t('pageCheck.measureAgain')}</Button>}>
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
  const [ruling, setRuling] = useState(false);
  const [kept, setKept] = useState<PageElement | null>(null);
  const version = `${report.totals.seconds}`;
  const elements = usePageElements(check.id, screen.viewport, version, ruling);
  const image = chosen === null ? null : report.images[chosen]!;
  const go = (by: number) =>
    setChosen((now) => Math.min(report.images.length - 1, Math.max(0, (now ?? -by) + by)));
  useShortcuts({
    arrowdown: () => go(1),
    arrowup: () => go(-1),
    c: () => setComparing(!comparing),
    r: () => setRuling(!ruling),
    escape: () => (comparing ? setComparing(false) : setRuling(false)),
  });
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)_390px] grid-rows-[auto_minmax(0,1fr)] max-md:block max-md:overflow-y-auto">
      <CheckBar check={check} onAgain={onAgain}>
        <Button onClick={() => setRuling(!ruling)} aria-pressed={ruling}>
          {ruling ? t('pageCheck.backToThePage') : t('pageCheck.ruler')} <Key>R</Key>
        </Button>
        <Button
          onClick={() => setComparing(!comparing)}
          disabled={image === null || ruling}
          aria-pressed={comparing}
        >
          {comparing && !ruling ? t('pageCheck.backToThePage') : t('pageCheck.compareWithWhatWouldBeEnough')}{' '}
          <Key>C</Key>
        </Button>
      </CheckBar>
      <section className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)]">
        <ScreenChoice
          report={report}
          at={at}
          onAt={(next) => {
            setAt(next);
            setKept(null);
          }}
        />
        {comparing && image && !ruling ? (
          <TwoPictures
            key={`${chosen} ${at}`}
            check={check}
            image={image}
            screen={screen}
            version={version}
          />
        ) : (
          <PageStage
            check={check}
            report={report}
            screen={screen}
            chosen={chosen}
            onChoose={setChosen}
            ruler={
              ruling && elements.data
                ? (scale) => <Ruler elements={elements.data} scale={scale} kept={kept} onKeep={setKept} />
                : null
            }
          />
        )}
      </section>
      {ruling ? (
        <RulerPanel element={kept} viewport={screen.viewport} />
      ) : (
        <ImageList report={report} screen={screen} chosen={chosen} onChoose={setChosen} />
      )}
    </div>
  );
}

/** What page it is, and what can be done with it. */
function CheckBar({
  check,
  onAgain,
  children,
}: {
  check: PageCheck;
  onAgain: () => void;
  /** Ways to look at it. */
  children: ReactNode;
}) {
  const [, goTo] = useLocation();
  const job = useMutation({
    mutationFn: () => take(api.POST('/api/page-checks/{id}/job', { params: { path: { id: check.id } } })),
    onSuccess: ({ id }) => goTo(`/job/${id}`),
  });
  return (
    <header className="col-span-2 flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-line bg-sheet px-5 py-2">
      <Link href="/page-checks" className="text-ink-2 hover:text-ink hover:underline">
        {t('pageCheck.pageChecks')}
      </Link>
      <h1 className="min-w-0 flex-1 wrap-anywhere text-head">{check.name}</h1>
      {children}
      <Button needs="checkPages" onClick={onAgain}>
        {t('pageCheck.measureAgain')}
      </Button>
      <Button
        kind="main"
        onClick={() => job.mutate()}
        disabled={job.isPending}
        title={t('pageCheck.addsItsPicturesToTheLibrary')}
      >
        {t('pageCheck.makeAJob')}
      </Button>
      {job.isError && (
        <span role="alert" className="text-breaks">
          {job.error.message}
        </span>
      )}
    </header>
  );
}
