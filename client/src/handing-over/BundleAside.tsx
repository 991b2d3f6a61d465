import { useMutation } from '@tanstack/react-query';
import { addresses, api, type HandOver, take } from '../api/client';
import { Beam } from '../design/Beam';
import { Button, Key, MainLink } from '../design/Button';
import { files, trim, weight } from '../design/figures';
import { wantsText } from '../domain/decisions';
import { wantsTitle } from '../domain/overlay';
import { useHead, useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';
import { GuestLinks } from './GuestLinks';
import { goToMissing, type TextKind } from './missingTexts';
import { NameRules } from './Names';
import { PlainLink } from './PlainLink';

interface Counts {
  plan: HandOver;
  waiting: number;
  held: number;
  missing: number;
}

/** What the bundle weighs, what is not in it, how its files are named, and taking it. */
export function BundleAside(counts: Counts) {
  return (
    <aside
      className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
      aria-label={t('handingOver.theBundle')}
    >
      <BundleFigures plan={counts.plan} />
      <NotInTheBundle {...counts} />
      <NameRules />
      <TakeBundle {...counts} />
    </aside>
  );
}

function BundleFigures({ plan }: { plan: HandOver }) {
  return (
    <section className="border-b border-line px-5 py-4">
      <h2 className="text-head break-all">{t('handingOver.nameZip', { name: plan.name })}</h2>
      <div className="mt-1 text-figure leading-tight font-semibold" data-testid="bundle-weight">
        {weight(plan.bytes)}
      </div>
      <p className="mb-1.5 text-ink-2">{t('handingOver.filesAndTheReport', { count: plan.going })}</p>
      <Beam bytes={plan.bytes} label={t('handingOver.weightOfTheBundle')} />
      {plan.going > 0 && (
        <p className="mt-3">
          {t('handingOver.originalBytesTimesLighterThanTheOriginals', {
            originalBytes: trim(plan.originalBytes / Math.max(1, plan.bytes), 1),
            originalBytes2: weight(plan.originalBytes),
          })}
        </p>
      )}
    </section>
  );
}

function NotInTheBundle({ plan, waiting, held, missing }: Counts) {
  const { pictures, slots } = useHead();
  const wordless = pictures.filter(wantsText).length;
  const titleless = pictures.filter((one) => wantsTitle(one, slots)).length;
  return (
    <section className="border-b border-line px-5 py-3" aria-label={t('handingOver.notInTheBundle')}>
      <Line
        count={waiting}
        one={t('handingOver.fileIsNotMadeYet')}
        many={t('handingOver.filesAreNotMadeYet')}
      />
      <Line
        count={held}
        one={t('handingOver.fileBreaksALimitAndIs')}
        many={t('handingOver.filesBreakALimitAndAre')}
      />
      <Line
        count={missing}
        one={t('handingOver.fileCannotBeMade')}
        many={t('handingOver.filesCannotBeMade')}
      />
      <Line
        count={plan.asks.length}
        one={t('handingOver.pictureHasNoNameYet')}
        many={t('handingOver.picturesHaveNoNameYet')}
        kind="keywords"
      />
      <Line
        count={wordless}
        one={t('handingOver.pictureHasNoAlternativeText')}
        many={t('handingOver.picturesHaveNoAlternativeText')}
        kind="alternative"
      />
      <Line
        count={titleless}
        one={t('handingOver.pictureHasNoTitle')}
        many={t('handingOver.picturesHaveNoTitle')}
        kind="title"
      />
      {waiting + held + missing + plan.asks.length === 0 && <p>{t('handingOver.allFilesAreInTheBundle')}</p>}
    </section>
  );
}

function TakeBundle({ plan, waiting }: Counts) {
  const store = useJobStore();
  const ready = plan.going > 0 && plan.asks.length === 0;
  const folder = useMutation({
    mutationFn: () => take(api.POST('/api/jobs/{id}/folder', { params: { path: { id: store.id } } })),
  });
  return (
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
      <GuestLinks />
      <div className="grid grid-cols-2 gap-1.5">
        <PlainLink href={addresses.contactSheet(store.id)} title={t('handingOver.onePageWithEveryFileFor')}>
          {t('handingOver.contactSheet')}
        </PlainLink>
        <Button
          needs="useFolders"
          disabled={!ready || folder.isPending}
          onClick={() => folder.mutate()}
          title={t('handingOver.writeTheSameFilesToA')}
        >
          {t('handingOver.writeToFolder')}
        </Button>
        <PlainLink href={addresses.report(store.id, 'csv')}>{t('handingOver.reportCSV')}</PlainLink>
        <PlainLink href={addresses.report(store.id, 'json')}>{t('handingOver.reportJSON')}</PlainLink>
        <PlainLink
          href={addresses.exported(store.id)}
          title={t('handingOver.originalsRulesMarksDecisions')}
          className="col-span-2"
        >
          {t('handingOver.exportTheJob')}
        </PlainLink>
      </div>
      {ready ? (
        <MainLink data-download href={addresses.bundle(store.id)} download className="w-full">
          {t('handingOver.downloadWaiting', {
            waiting:
              waiting > 0
                ? t('handingOver.goingSoFar', { going: files(plan.going) })
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
  );
}

function Line({ count, one, many, kind }: { count: number; one: string; many: string; kind?: TextKind }) {
  if (count === 0) return null;
  return (
    <p className="flex items-baseline gap-2 py-0.5">
      <span className="min-w-0 flex-1">
        <b className="inline-block min-w-8 pr-2 text-right font-semibold">{count}</b>{' '}
        {count === 1 ? one : many}
      </span>
      {kind && (
        <button
          type="button"
          onClick={() => goToMissing(kind)}
          aria-label={t('handingOver.writeTheNext', { what: count === 1 ? one : many })}
          className="shrink-0 text-accent underline underline-offset-2"
        >
          {t('handingOver.write')}
        </button>
      )}
    </p>
  );
}
