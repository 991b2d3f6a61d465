import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useLocation } from 'wouter';
import { api, type PictureFolder, take } from '../api/client';
import { useFolder } from '../api/queries';
import { Button } from '../design/Button';
import { Notice } from '../design/Notice';
import { FolderFigures, type Kind } from './FolderFigures';
import { FolderPictures } from './FolderPictures';
import { FolderPlan } from './FolderPlan';
import { stateWords } from './state';
import { t } from '../texts/texts';

/** One folder: what it comes to, its pictures, and what is to be done with them. */
export function FolderScreen({ id }: { id: string }) {
  const loaded = useFolder(id);
  if (loaded.isPending) return <Notice>{t('folders.loadingTheFolder')}</Notice>;
  if (loaded.isError)
    return (
      <Notice
        action={
          <Link href="/folders" className="text-accent underline">
            {t('folders.goToFolders')}
          </Link>
        }
      >
        {loaded.error.message}
      </Notice>
    );
  return <Folder folder={loaded.data} />;
}

function Folder({ folder }: { folder: PictureFolder }) {
  const cache = useQueryClient();
  const [, go] = useLocation();
  const [kind, setKind] = useKind(folder);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const path = { params: { path: { id: folder.id } } };
  const settled = () => void cache.invalidateQueries({ queryKey: ['folders'] });
  const scan = useMutation({
    mutationFn: () => take(api.POST('/api/folders/{id}/scan', path)),
    onSettled: settled,
  });
  const stop = useMutation({
    mutationFn: () => take(api.POST('/api/folders/{id}/stop', path)),
    onSettled: settled,
  });
  const back = useMutation({
    mutationFn: (paths: string[] | null) =>
      take(api.POST('/api/folders/{id}/restore', { ...path, body: { paths } })),
    onSuccess: () => setChosen(new Set()),
    onSettled: settled,
  });
  const remove = useMutation({
    mutationFn: () => take(api.DELETE('/api/folders/{id}', path)),
    onSuccess: () => go('/folders'),
    onSettled: settled,
  });
  if (!folder.figures)
    return (
      <Notice
        action={
          folder.state === 'scanning' ? (
            <Button onClick={() => stop.mutate()}>{t('folders.stop')}</Button>
          ) : (
            <Button onClick={() => scan.mutate()}>{t('folders.scanAgain')}</Button>
          )
        }
      >
        <span className="block font-semibold">{folder.folder}</span>
        {folder.figures === null && folder.state === 'ready' && folder.trouble === null
          ? t('folders.theScanDidNotFinish')
          : stateWords(folder)}
      </Notice>
    );
  const busy = folder.state !== 'ready' && folder.state !== 'paused';
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)_348px] grid-rows-[auto_auto_minmax(0,1fr)] max-md:block max-md:overflow-y-auto">
      <Head
        folder={folder}
        busy={busy}
        onScan={() => scan.mutate()}
        onRemove={remove.isPending ? null : () => remove.mutate()}
      />
      <FolderFigures folder={folder} kind={kind} onKind={setKind} />
      <FolderPlan
        folder={folder}
        chosen={chosen}
        onBack={(paths) => back.mutate(paths)}
        onLetGo={() => remove.mutate()}
        trouble={back.error?.message ?? remove.error?.message}
      />
      <FolderPictures
        key={kind}
        folder={folder}
        kind={kind}
        chosen={chosen}
        onChosen={setChosen}
        onBack={busy ? null : (one) => back.mutate([one])}
      />
    </div>
  );
}

/** Which pictures are listed: what a preview or a run has just made is shown by itself, the worst first. */
function useKind(folder: PictureFolder) {
  const [kind, setKind] = useState<Kind>('all');
  const [state, setState] = useState(folder.state);
  if (state !== folder.state) {
    setState(folder.state);
    const made = folder.state === 'ready' && folder.trouble === null;
    if (made && state === 'previewing' && folder.trial) setKind('previewed');
    if (made && state === 'optimising' && folder.outcome.mended > 0) setKind('mended');
    if (state === 'restoring' && kind === 'mended' && folder.outcome.mended === 0) setKind('all');
  }
  return [kind, setKind] as const;
}

function Head({
  folder,
  busy,
  onScan,
  onRemove,
}: {
  folder: PictureFolder;
  busy: boolean;
  onScan: () => void;
  /** Null while it is being removed. */
  onRemove: (() => void) | null;
}) {
  return (
    <header className="col-span-2 flex items-center gap-5 border-b border-line bg-sheet px-5 py-2">
      <Link href="/folders" className="text-ink-2 hover:text-ink hover:underline">
        {t('folders.folders')}
      </Link>
      <h1 className="min-w-0 flex-1 wrap-anywhere text-head" title={folder.folder}>
        {folder.folder}
      </h1>
      <Button onClick={onScan} disabled={busy}>
        {t('folders.scanAgain')}
      </Button>
      <Button
        onClick={onRemove ?? undefined}
        disabled={busy || !onRemove || folder.outcome.kept > 0}
        title={
          folder.outcome.kept > 0
            ? t('folders.originalsOfThisFolderAreKept')
            : t('folders.theFolderItselfIsNotChanged')
        }
      >
        {t('folders.remove')}
      </Button>
    </header>
  );
}
