import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { RichText } from '../texts/RichText';
import { addresses, api, type PictureFolder, take } from '../api/client';
import { Button, MainLink } from '../design/Button';
import { count, weight } from '../design/figures';
import { ProgressBar } from '../design/ProgressBar';
import { t } from '../texts/texts';
import { type Draft, draftOf, FolderSettings, ruleOf } from './FolderSettings';
import { Forecast } from './Forecast';
import { Originals } from './Originals';
import { stateWords } from './state';

/** Preview and optimising, and how both are paused and stopped. */
function useFolderWork(id: string) {
  const cache = useQueryClient();
  const path = { params: { path: { id: id } } };
  const settled = () => void cache.invalidateQueries({ queryKey: ['folders'] });
  const trying = useMutation({
    mutationFn: (draft: Draft) =>
      take(api.POST('/api/folders/{id}/preview', { ...path, body: ruleOf(draft) })),
    onSettled: settled,
  });
  const mending = useMutation({
    mutationFn: (draft: Draft) =>
      take(api.POST('/api/folders/{id}/optimise', { ...path, body: ruleOf(draft) })),
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
  return { trying, mending, pause, stop };
}

/** The settings of a folder, the estimate, what was done, and the next step. */
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
  const { rule, outcome, state } = folder;
  const form = useForm<Draft>({ defaultValues: draftOf(rule) });
  const { trying, mending, pause, stop } = useFolderWork(folder.id);
  const busy = state !== 'ready' && state !== 'paused';
  // Of a folder that was sent the next step is to take it home.
  const isHome = folder.isSent && folder.mended && !busy;
  const fault = trying.error?.message ?? mending.error?.message ?? trouble ?? folder.trouble;
  return (
    <aside
      className="row-span-2 flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
      aria-label={t('folders.optimise')}
    >
      <FolderSettings form={form} disabled={busy} />
      <Forecast folder={folder} />
      <DoneSoFar outcome={outcome} />
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
        {state !== 'ready' && <UnderWay folder={folder} />}
        {isHome && (
          <MainLink href={addresses.folder(folder.id)} download>
            {t('folders.downloadAsZIP')}
          </MainLink>
        )}
        {busy ? (
          <div className="grid grid-cols-2 gap-1.5">
            <Button onClick={() => pause.mutate()} disabled={state !== 'optimising' || pause.isPending}>
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

function DoneSoFar({ outcome }: { outcome: PictureFolder['outcome'] }) {
  if (outcome.looked === 0) return null;
  return (
    <section className="border-b border-line px-5 py-3" aria-label={t('folders.doneSoFar')}>
      <h2>{t('folders.doneSoFar')}</h2>
      <p className="mt-1">
        <RichText
          text="folders.lighterSoFar"
          values={{
            mended: count(outcome.mended),
            looked: count(outcome.looked),
            before: weight(outcome.before),
            after: weight(outcome.after),
          }}
          elements={{ b: <b /> }}
        />
      </p>
      {outcome.troubles > 0 && (
        <p className="mt-1 text-breaks">
          {t('folders.troublesCouldNotBeReadOr', { troubles: count(outcome.troubles) })}
        </p>
      )}
    </section>
  );
}

function UnderWay({ folder }: { folder: PictureFolder }) {
  const { state } = folder;
  return (
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
          {state === 'optimising' && (
            <p className="text-ink-2">
              {t('folders.savedSavedSoFar', { saved: weight(folder.progress.saved) })}
            </p>
          )}
        </>
      )}
    </div>
  );
}
