import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { Trans } from 'react-i18next';
import { addresses, api, type FolderRule, type PictureFolder, take } from '../api/client';
import { Button, MainLink } from '../design/Button';
import { count, trim, weight } from '../design/figures';
import { ProgressBar } from '../design/ProgressBar';
import { t } from '../texts/texts';
import { figure } from './figure';
import { Forecast } from './Forecast';
import { Originals } from './Originals';
import { stateWords } from './state';

interface Draft {
  side: string;
  weight: string;
  likeness: string;
  share: string;
}

function ruleOf(draft: Draft): FolderRule {
  const [side, kilobytes] = [figure(draft.side), figure(draft.weight)];
  return {
    maxSide: side === null ? null : Math.round(side),
    maxBytes: kilobytes === null ? null : Math.round(kilobytes * 1000),
    likeness: figure(draft.likeness) ?? 0.995,
    atLeast: (figure(draft.share) ?? 10) / 100,
  };
}

/** What the pictures are lightened to, what that comes to, and what was done. */
export function FolderPlan({
  folder,
  chosen,
  onBack,
  onLetGo,
  trouble,
}: {
  folder: PictureFolder;
  chosen: ReadonlySet<string>;
  onBack: (paths: string[] | null) => void;
  onLetGo: () => void;
  trouble: string | undefined;
}) {
  const cache = useQueryClient();
  const { rule, outcome, state } = folder;
  const form = useForm<Draft>({
    defaultValues: {
      side: rule.maxSide?.toString() ?? '',
      weight: rule.maxBytes === null || rule.maxBytes === undefined ? '' : trim(rule.maxBytes / 1000, 1),
      likeness: `${rule.likeness}`,
      share: trim((rule.atLeast ?? 0.1) * 100, 1),
    },
  });
  const path = { params: { path: { id: folder.id } } };
  const settled = () => void cache.invalidateQueries({ queryKey: ['folders'] });
  const trying = useMutation({
    mutationFn: (draft: Draft) => take(api.POST('/api/folders/{id}/try', { ...path, body: ruleOf(draft) })),
    onSettled: settled,
  });
  const mending = useMutation({
    mutationFn: (draft: Draft) => take(api.POST('/api/folders/{id}/mend', { ...path, body: ruleOf(draft) })),
    onSettled: settled,
  });
  const pause = useMutation({
    mutationFn: () => take(api.POST('/api/folders/{id}/pause', path)),
    onSettled: settled,
  });
  const stop = useMutation({
    mutationFn: () => take(api.POST('/api/folders/{id}/stop', path)),
    onSettled: settled,
  });
  const busy = state !== 'ready' && state !== 'paused';
  // Of a folder that was sent the next step is to take it home.
  const isHome = folder.isSent && folder.mended && !busy;
  const fault = trying.error?.message ?? mending.error?.message ?? trouble ?? folder.trouble;
  return (
    <aside
      className="row-span-2 flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
      aria-label={t('folders.optimise')}
    >
      <form id="rule" className="border-b border-line px-5 py-4" onSubmit={(event) => event.preventDefault()}>
        <h2>{t('folders.settings')}</h2>
        <div className="mt-2 grid grid-cols-[1fr_84px_34px] items-center gap-x-2 gap-y-1.5">
          <Field
            label={t('folders.longerSideAtMost')}
            unit="px"
            placeholder={t('folders.all')}
            {...form.register('side')}
            disabled={busy}
          />
          <Field
            label={t('folders.weightAtMost')}
            unit="kB"
            placeholder={t('folders.any')}
            {...form.register('weight')}
            disabled={busy}
          />
          <Field
            label={t('folders.likenessAtLeast')}
            unit=""
            {...form.register('likeness')}
            disabled={busy}
          />
          <Field
            label={t('folders.replaceOnlyIfItSaves')}
            unit="%"
            {...form.register('share')}
            disabled={busy}
          />
        </div>
        <p className="mt-2 text-ink-2">{t('folders.namesAndTypesStayTheSame')}</p>
      </form>
      <Forecast folder={folder} />
      {outcome.looked > 0 && (
        <section className="border-b border-line px-5 py-3" aria-label={t('folders.doneSoFar')}>
          <h2>{t('folders.doneSoFar')}</h2>
          <p className="mt-1">
            <Trans
              i18nKey="folders.lighterSoFar"
              values={{
                mended: count(outcome.mended),
                looked: count(outcome.looked),
                before: weight(outcome.before),
                after: weight(outcome.after),
              }}
              components={{ b: <b /> }}
            />
          </p>
          {outcome.troubles > 0 && (
            <p className="mt-1 text-breaks">
              {t('folders.troublesCouldNotBeReadOr', { troubles: count(outcome.troubles) })}
            </p>
          )}
        </section>
      )}
      {outcome.kept > 0 && (
        <Originals kept={outcome.kept} chosen={chosen} disabled={busy} onBack={onBack} onLetGo={onLetGo} />
      )}
      <section
        className="sticky bottom-0 mt-auto flex flex-col gap-2 border-t border-line bg-sheet px-5 py-3"
        aria-label={t('folders.next')}
      >
        {fault && (
          <p role="alert" className="text-breaks">
            {fault}
          </p>
        )}
        {state !== 'ready' && (
          <div>
            <p>{stateWords(folder)}</p>
            {folder.progress && (
              <>
                <ProgressBar
                  label={t('folders.picturesDone')}
                  done={folder.progress.done}
                  of={folder.progress.of}
                  held={state === 'paused'}
                  className="mt-1 w-full"
                />
                {state === 'mending' && (
                  <p className="text-ink-2">
                    {t('folders.savedSavedSoFar', { saved: weight(folder.progress.saved) })}
                  </p>
                )}
              </>
            )}
          </div>
        )}
        {isHome && (
          <MainLink href={addresses.folder(folder.id)} download>
            {t('folders.downloadAsZIP')}
          </MainLink>
        )}
        {busy ? (
          <div className="grid grid-cols-2 gap-1.5">
            <Button onClick={() => pause.mutate()} disabled={state !== 'mending' || pause.isPending}>
              {t('folders.pause')}
            </Button>
            <Button onClick={() => stop.mutate()} disabled={stop.isPending}>
              {t('folders.stop')}
            </Button>
          </div>
        ) : (
          <>
            <Button
              onClick={() => void form.handleSubmit((draft) => trying.mutate(draft))()}
              disabled={trying.isPending}
            >
              {t('folders.previewNothingIsChanged')}
            </Button>
            <Button
              kind={isHome ? undefined : 'main'}
              onClick={() => void form.handleSubmit((draft) => mending.mutate(draft))()}
              disabled={mending.isPending}
            >
              {state === 'paused' ? t('folders.resume') : t('folders.optimise')}
            </Button>
          </>
        )}
      </section>
    </aside>
  );
}

function Field({ label, unit, ...input }: { label: string; unit: string } & React.ComponentProps<'input'>) {
  return (
    <label className="contents">
      <span>{label}</span>
      <input
        {...input}
        inputMode="decimal"
        className="h-8 w-full rounded-md border border-line bg-sheet px-2 text-right hover:border-ink-2 disabled:opacity-60"
      />
      <span className="text-ink-2">{unit}</span>
    </label>
  );
}
