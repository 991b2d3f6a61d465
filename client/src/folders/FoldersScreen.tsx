import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link, useLocation } from 'wouter';
import { api, type PictureFolder, take } from '../api/client';
import { useFolders } from '../api/queries';
import { Button } from '../design/Button';
import { count, weight } from '../design/figures';
import { RichText } from '../texts/RichText';
import { LighterDrawing } from '../design/Drawings';
import { EmptyState } from '../design/EmptyState';
import { Notice } from '../design/Notice';
import { stateWords } from './state';
import type { useFolderIntake } from './useFolderIntake';
import { t } from '../texts/texts';

/** Folders of the server's machine whose pictures are optimised; another one is the next step. */
export function FoldersScreen({ intake }: { intake: ReturnType<typeof useFolderIntake> }) {
  const list = useFolders();
  if (list.isPending) return <Notice>{t('folders.loadingTheFolders')}</Notice>;
  if (list.isError)
    return (
      <Notice action={<Button onClick={() => void list.refetch()}>{t('folders.tryAgain')}</Button>}>
        {list.error.message}
      </Notice>
    );
  const { allowed, folders } = list.data;
  return (
    <div className="h-full overflow-y-auto px-5 pt-4 pb-8">
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-head">{t('folders.folders')}</h1>
        <span className="text-ink-2">{t('folders.thePicturesOfAFolderAre')}</span>
      </header>
      <section aria-label={t('folders.addAFolder')} className="mt-4 border border-line bg-sheet px-4 py-3">
        {allowed.length > 0 ? (
          <AddFolder allowed={allowed} />
        ) : (
          <p className="text-ink-2">
            <RichText text="folders.noneAllowed" values={{}} elements={{ code: <code /> }} />
          </p>
        )}
        <SendFolder intake={intake} />
      </section>
      {folders.length === 0 ? (
        <EmptyState
          drawing={<LighterDrawing />}
          title={t('folders.theSamePicturesLighter')}
          steps={[t('folders.firstScan'), t('folders.thenPreview'), t('folders.thenOptimise')]}
        />
      ) : (
        <ul className="mt-4 flex flex-col border-t border-line bg-sheet">
          {folders.map((one) => (
            <FolderLine key={one.id} folder={one} />
          ))}
        </ul>
      )}
    </div>
  );
}

function AddFolder({ allowed }: { allowed: readonly string[] }) {
  const [, go] = useLocation();
  const cache = useQueryClient();
  const [folder, setFolder] = useState(allowed[0] ?? '');
  const add = useMutation({
    mutationFn: () => take(api.POST('/api/folders', { body: { folder } })),
    onSuccess: ({ id }) => {
      void cache.invalidateQueries({ queryKey: ['folders'] });
      go(`/folders/${id}`);
    },
  });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        add.mutate();
      }}
    >
      <div className="flex flex-wrap items-end gap-4">
        <label className="flex min-w-48 flex-1 flex-col gap-1">
          <span>{t('folders.folderOnThisMachine')}</span>
          <input
            value={folder}
            onChange={(event) => setFolder(event.target.value)}
            list="allowed-folders"
            className="h-8 rounded-md border border-line bg-sheet px-2 hover:border-ink-2"
          />
          <datalist id="allowed-folders">
            {allowed.map((one) => (
              <option key={one} value={one} />
            ))}
          </datalist>
        </label>
        <Button needs="useFolders" kind="main" type="submit" disabled={folder.trim() === '' || add.isPending}>
          {t('folders.scan')}
        </Button>
      </div>
      <p className="mt-2 text-ink-2">
        {t('folders.insideAllowedTheScanChangesNothing', { allowed: allowed.join(', ') })}
      </p>
      {add.isError && (
        <p role="alert" className="mt-2 text-breaks">
          {add.error.message}
        </p>
      )}
    </form>
  );
}

/** A folder of somebody else's machine: it is sent, and taken home when it is optimised. */
function SendFolder({ intake }: { intake: ReturnType<typeof useFolderIntake> }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <div className="mt-3 flex flex-wrap items-center gap-3 border-t border-line pt-3">
      <span className="text-ink-2">{t('folders.orUploadACopyOfA')}</span>
      <Button needs="useFolders" onClick={() => input.current?.click()} disabled={intake.sent !== null}>
        {t('folders.chooseAFolder')}
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        multiple
        aria-label={t('folders.chooseAFolderOfPictures')}
        {...{ webkitdirectory: '' }}
        onChange={(event) => {
          void intake.add([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      {intake.sent && (
        <span role="status">
          {t('folders.nameDoneOfOfFilesUploaded', {
            name: intake.sent.name,
            done: intake.sent.done,
            of: intake.sent.of,
          })}
        </span>
      )}
      {intake.fault && (
        <span role="alert" className="text-breaks">
          {intake.fault}
        </span>
      )}
    </div>
  );
}

function FolderLine({ folder }: { folder: PictureFolder }) {
  const { figures } = folder;
  return (
    <li className="border-b border-line">
      <Link
        href={`/folders/${folder.id}`}
        className="grid grid-cols-[minmax(0,2fr)_150px_minmax(0,2fr)] items-baseline gap-x-4 max-md:grid-cols-[minmax(0,1fr)] px-4 py-2.5 hover:bg-sheet-2"
      >
        <span className="wrap-anywhere text-head font-semibold">{folder.folder}</span>
        <span className="text-ink-2">
          {figures
            ? t('folders.nPicturesBytes', { n: count(figures.count), bytes: weight(figures.bytes) })
            : ''}
        </span>
        <span className="wrap-anywhere text-ink-2">{stateWords(folder)}</span>
      </Link>
    </li>
  );
}
