import { useMutation, useQuery } from '@tanstack/react-query';
import { Link, useLocation } from 'wouter';
import { addresses, api, type HandOverFile, type JobPicture, take } from '../api/client';
import { useShortcuts } from '../design/useShortcuts';
import { Beam } from '../design/Beam';
import { Button, Key, MainLink } from '../design/Button';
import { files, sentence, trim, weight } from '../design/figures';
import { Notice } from '../design/Notice';
import { VerdictMark } from '../design/VerdictMark';
import { JobBar } from '../jobs/JobBar';
import { useHead, useJob, useJobStore } from '../jobs/useJob';
import { HandOverTabs } from './HandOverTabs';
import { NameRules, PictureNames } from './Names';
import { t } from '../texts/texts';

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
                void store.send([{ do: 'let-through', picture, slot, files: [id] }])
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

/** Pictures that have only a camera's number: asked once, for all. */
function Asks({ pictures }: { pictures: readonly JobPicture[] }) {
  const store = useJobStore();
  const head = useHead();
  return (
    <section
      className="mb-5 border-l-4 border-concedes bg-sheet px-4 py-3"
      aria-label={t('handingOver.keywordsAreMissing')}
    >
      <h2>{t('handingOver.picturesHaveOnlyACamerasNumber', { count: pictures.length })}</h2>
      <p className="mt-0.5 text-ink-2">
        {t('handingOver.enterKeywordsBelowOrNumberThe', { name: head.name, name2: head.name })}
      </p>
      <Button kind="main" className="mt-2" onClick={() => void store.name({ numbered: true })}>
        {t('handingOver.numberThemUnderTheJobsName')}
      </Button>
    </section>
  );
}

function NotGoing({
  title,
  files,
  pictures,
  act,
}: {
  title: string;
  files: readonly HandOverFile[];
  pictures: ReadonlyMap<string, JobPicture>;
  act?: (file: HandOverFile) => void;
}) {
  const store = useJobStore();
  const head = useHead();
  if (files.length === 0) return null;
  const slots = new Map(head.slots.map((slot) => [slot.address, slot]));
  return (
    <section className="mb-5" aria-label={title}>
      <h2>{title}</h2>
      <ul className="mt-1 border-t border-line bg-sheet">
        {files.slice(0, 200).map((file) => {
          const picture = pictures.get(file.picture);
          return (
            <li
              key={`${file.picture}${file.slot}${file.id}${file.descriptor}`}
              className="flex items-center gap-3 border-b border-line px-3 py-1.5"
            >
              <VerdictMark verdict={file.verdict} />
              <span className="w-56 shrink-0 truncate">
                <Link
                  href={`/job/${store.id}/framing/${file.picture}?slot=${file.slot}`}
                  className="text-accent underline underline-offset-2"
                >
                  {picture?.words ?? picture?.picture.name}
                </Link>
                , {slots.get(file.slot)?.slot.name} {file.descriptor}
              </span>
              <span className="min-w-0 flex-1">
                {file.reasons
                  .filter((reason) => reason.code !== 'suggested')
                  .map((reason) => sentence(reason.message))
                  .join(' ')}
              </span>
              {act && <Button onClick={() => act(file)}>{t('handingOver.allowAnyway')}</Button>}
            </li>
          );
        })}
      </ul>
      {files.length > 200 && (
        <p className="mt-1 text-ink-2">
          {t('handingOver.andFilesMoreTheReportLists', { files: files.length - 200 })}
        </p>
      )}
    </section>
  );
}

/** The bundle as it will lie on a disk: a folder for each destination. */
function Folders({ files }: { files: readonly HandOverFile[] }) {
  const going = files.filter((file) => file.state === 'goes');
  const byFolder = Map.groupBy(going, (file) => file.path!.split('/')[0]!);
  if (byFolder.size === 0) return null;
  return (
    <section className="mb-5" aria-label={t('handingOver.folders')}>
      <h2>{t('handingOver.folders')}</h2>
      <div className="mt-1 border-t border-line bg-sheet">
        {[...byFolder].map(([folder, mine]) => (
          <details key={folder} className="border-b border-line">
            <summary className="flex cursor-pointer items-center gap-4 px-3 py-1.5 hover:bg-sheet-2">
              <span className="w-64 shrink-0 truncate font-medium">{folder}/</span>
              <span className="w-20 text-ink-2">{t('common.files', { count: mine.length })}</span>
              <span className="text-ink-2">
                {weight(mine.reduce((sum, file) => sum + (file.bytes ?? 0), 0))}
              </span>
            </summary>
            <ul className="px-3 pb-2">
              {mine.map((file) => (
                <li key={file.path} className="flex gap-4 py-0.5 pl-4">
                  <span className="min-w-0 flex-1 truncate">{file.path!.slice(folder.length + 1)}</span>
                  <span className="w-28 text-right text-ink-2">
                    {file.width} × {file.height}
                  </span>
                  <span className="w-20 text-right text-ink-2">{weight(file.bytes ?? 0)}</span>
                </li>
              ))}
            </ul>
          </details>
        ))}
      </div>
    </section>
  );
}
