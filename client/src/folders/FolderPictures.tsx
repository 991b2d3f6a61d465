import { useState } from 'react';
import type { PictureFolder } from '../api/client';
import { folderPart, useFolderPictures } from '../api/queries';
import { Button } from '../design/Button';
import { count } from '../design/figures';
import { Notice } from '../design/Notice';
import type { Kind } from './FolderFigures';
import { FolderPictureLine } from './FolderPictureLine';
import { t } from '../texts/texts';

/** The pictures of a folder, small, and what became of each or would: the least alike first where files were made, else the heaviest. */
export function FolderPictures({
  folder,
  kind,
  chosen,
  onChosen,
  onBack,
}: {
  folder: PictureFolder;
  kind: Kind;
  chosen: ReadonlySet<string>;
  onChosen: (chosen: ReadonlySet<string>) => void;
  /** Puts one back; null while that cannot be asked for. */
  onBack: ((path: string) => void) | null;
}) {
  const [from, setFrom] = useState(0);
  const { outcome } = folder;
  const page = useFolderPictures(
    folder.id,
    kind,
    from,
    `${outcome.looked} ${outcome.kept} ${folder.figures?.bytes} ${JSON.stringify(folder.trial?.forecast)}`,
  );
  if (page.isPending) return <Notice>{t('folders.loadingTheList')}</Notice>;
  if (page.isError) return <Notice>{page.error.message}</Notice>;
  const { total, pictures } = page.data;
  const turn = (path: string) => {
    const next = new Set(chosen);
    if (!next.delete(path)) next.add(path);
    onChosen(next);
  };
  return (
    <div className="min-h-0 overflow-y-auto" data-testid="folder-pictures">
      <table className="w-full border-collapse bg-sheet">
        <Heads />
        <tbody>
          {pictures.map((one) => (
            <FolderPictureLine
              key={one.picture.path}
              folder={folder.id}
              one={one}
              chosen={chosen.has(one.picture.path)}
              onTurn={() => turn(one.picture.path)}
              onBack={onBack}
            />
          ))}
        </tbody>
      </table>
      {total > folderPart && (
        <p className="flex items-center gap-3 px-5 py-3 text-ink-2">
          <Button disabled={from === 0} onClick={() => setFrom(from - folderPart)}>
            {t('folders.previousPart')}
          </Button>
          {t('folders.fromToOf', {
            from: count(from + 1),
            to: count(Math.min(total, from + folderPart)),
            all: count(total),
          })}
          <Button disabled={from + folderPart >= total} onClick={() => setFrom(from + folderPart)}>
            {t('folders.nextPart')}
          </Button>
        </p>
      )}
    </div>
  );
}

function Heads() {
  return (
    <thead className="sticky top-0 z-10 bg-sheet text-left text-ink-2 shadow-[0_1px_0_var(--color-line)]">
      <tr>
        <th className="w-11 py-1.5 pl-5">
          <span className="sr-only">{t('folders.chosen')}</span>
        </th>
        <th colSpan={2} className="py-1.5 font-normal">
          {t('folders.picture')}
        </th>
        <th className="w-28 text-right font-normal">{t('folders.pixels')}</th>
        <th className="w-16 pl-4 font-normal">{t('folders.type')}</th>
        <th className="w-20 text-right font-normal">{t('folders.before')}</th>
        <th className="w-20 text-right font-normal">{t('folders.after')}</th>
        <th className="w-32 pl-4 font-normal">{t('folders.likeness')}</th>
        <th className="w-24 pr-5">
          <span className="sr-only">{t('folders.original')}</span>
        </th>
      </tr>
    </thead>
  );
}
