import { useMutation, useQuery } from '@tanstack/react-query';
import { useLocation } from 'wouter';
import { addresses, api, take } from '../api/client';
import { Beam } from '../design/Beam';
import { Button, Key, MainLink } from '../design/Button';
import { files, trim, weight } from '../design/figures';
import { Notice } from '../design/Notice';
import { useShortcuts } from '../design/useShortcuts';
import { JobBar } from '../jobs/JobBar';
import { useHead, useJob, useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';
import { Asks, Folders, NotGoing } from './BundleParts';
import { HandOverTabs } from './HandOverTabs';
import { NameRules, PictureNames } from './Names';

/** Names, folders and the bundle; what is not fit to go, and why. */
export function HandingOverScreen() {
  const store = useJobStore();
  const head = useHead();
  const [, go] = useLocation();
  const sequence = useJob((job) => job.sequence);
  const plan = useQuery({
    queryKey: ['hand-over', store.id, sequence],
    queryFn: ({ signal }) =>
      take(api.GET('/api/jobs/{id}/hand-over', { signal, params: { path: { id: store.id } } })),
    placeholderData: (previous) => previous,
    gcTime: 5_000,
  });
  const folder = useMutation({
    mutationFn: () => take(api.POST('/api/jobs/{id}/folder', { params: { path: { id: store.id } } })),
  });
  useShortcuts({
    d: () => document.querySelector<HTMLAnchorElement>('a[data-download]')?.click(),
    b: () => go(`/job/${store.id}`),
  });
  const data = plan.data;
  const pictures = new Map(head.pictures.map((one) => [one.picture.id, one]));
  const waiting = data?.files.filter((file) => file.state === 'waiting') ?? [];
  const held = data?.files.filter((file) => file.state === 'held') ?? [];
  const missing = data?.files.filter((file) => file.state === 'missing') ?? [];
  const ready = data !== undefined && data.going > 0 && data.asks.length === 0;
  return (
    <div className="grid h-full min-h-0 grid-rows-[auto_auto_1fr]">
      <div>
        <JobBar stage="handing-over" />
      </div>
      <HandOverTabs part="bundle" />
      {plan.isError ? (
        <Notice>{plan.error.message}</Notice>
      ) : !data ? (
        <Notice>{t('handingOver.preparingTheBundle')}</Notice>
      ) : (
        <div className="grid min-h-0 grid-cols-[1fr_348px]">
          <div className="min-h-0 overflow-y-auto px-5 py-4">
            {data.asks.length > 0 && <Asks pictures={data.asks.flatMap((id) => pictures.get(id) ?? [])} />}
            <NotGoing
              title={t('handingOver.notDeliveredOverALimit')}
              files={held}
              pictures={pictures}
              act={({ picture, slot, id }) =>
                void store.send([{ do: 'allow-anyway', picture, slot, files: [id] }])
              }
            />
            <NotGoing title={t('handingOver.missing')} files={missing} pictures={pictures} />
            <Folders files={data.files} />
            <PictureNames asks={new Set(data.asks)} />
          </div>
          <aside
            className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
            aria-label={t('handingOver.theBundle')}
          >
            <section className="border-b border-line px-5 py-4">
              <h2 className="text-head break-all">{t('handingOver.nameZip', { name: data.name })}</h2>
              <p className="mt-1 text-figure leading-tight font-semibold" data-testid="bundle-weight">
                {weight(data.bytes)}
              </p>
              <p className="mb-1.5 text-ink-2">{t('handingOver.filesAndTheReport', { count: data.going })}</p>
              <Beam bytes={data.bytes} label={t('handingOver.weightOfTheBundle')} />
              {data.going > 0 && (
                <p className="mt-3">
                  {t('handingOver.originalBytesTimesLighterThanTheOriginals', {
                    originalBytes: trim(data.originalBytes / Math.max(1, data.bytes), 1),
                    originalBytes2: weight(data.originalBytes),
                  })}
                </p>
              )}
            </section>
            <section className="border-b border-line px-5 py-3" aria-label={t('handingOver.notInTheBundle')}>
              <Line
                count={waiting.length}
                one={t('handingOver.fileIsNotMadeYet')}
                many={t('handingOver.filesAreNotMadeYet')}
              />
              <Line
                count={held.length}
                one={t('handingOver.fileBreaksALimitAndIs')}
                many={t('handingOver.filesBreakALimitAndAre')}
              />
              <Line
                count={missing.length}
                one={t('handingOver.fileCannotBeMade')}
                many={t('handingOver.filesCannotBeMade')}
              />
              <Line
                count={data.asks.length}
                one={t('handingOver.pictureHasNoNameYet')}
                many={t('handingOver.picturesHaveNoNameYet')}
              />
              {waiting.length + held.length + missing.length + data.asks.length === 0 && (
                <p>{t('handingOver.allFilesAreInTheBundle')}</p>
              )}
            </section>
            <NameRules />
            <section
              className="sticky bottom-0 mt-auto flex flex-col gap-2 border-t border-line bg-sheet px-5 py-3"
              aria-label={t('handingOver.handOver')}
            >
              {folder.isError && (
                <p role="alert" className="text-breaks">
                  {folder.error.message}
                </p>
              )}
              {folder.data && (
                <p data-testid="folder" className="break-all">
                  {t('handingOver.filesAreInFolder', {
                    count: folder.data.files,
                    folder: folder.data.folder,
                  })}
                </p>
              )}
              <div className="grid grid-cols-3 gap-1.5">
                <Button
                  disabled={!ready || folder.isPending}
                  onClick={() => folder.mutate()}
                  title={t('handingOver.writeTheSameFilesToA')}
                >
                  {t('handingOver.writeToFolder')}
                </Button>
                <PlainLink href={addresses.report(store.id, 'csv')}>{t('handingOver.reportCSV')}</PlainLink>
                <PlainLink href={addresses.report(store.id, 'json')}>{t('handingOver.reportJSON')}</PlainLink>
              </div>
              {ready ? (
                <MainLink data-download href={addresses.bundle(store.id)} download className="w-full">
                  {t('handingOver.downloadWaiting', {
                    waiting:
                      waiting.length > 0
                        ? t('handingOver.goingSoFar', { going: files(data.going) })
                        : t('handingOver.theBundle2'),
                  })}{' '}
                  <Key>D</Key>
                </MainLink>
              ) : (
                <Button kind="main" disabled className="w-full">
                  {t('handingOver.downloadTheBundle')}
                </Button>
              )}
            </section>
          </aside>
        </div>
      )}
    </div>
  );
}

function PlainLink({ href, children }: { href: string; children: string }) {
  return (
    <a
      href={href}
      download
      className="inline-flex h-8 items-center justify-center rounded-md border border-line bg-sheet px-2 font-medium whitespace-nowrap hover:border-ink-2"
    >
      {children}
    </a>
  );
}

function Line({ count, one, many }: { count: number; one: string; many: string }) {
  if (count === 0) return null;
  return (
    <p className="py-0.5">
      <b className="inline-block min-w-8 pr-2 text-right font-semibold">{count}</b>
      {count === 1 ? one : many}
    </p>
  );
}
