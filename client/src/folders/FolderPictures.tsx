import { useState } from 'react';
import type { PictureFolder, FolderPicture } from '../api/client';
import { folderPart, useFolderPictures } from '../api/queries';
import { Button } from '../design/Button';
import { count, sentence, size, weight } from '../design/figures';
import { Notice } from '../design/Notice';
import { typeName } from '../design/typeNames';
import type { Kind } from './FolderFigures';
import { t } from '../texts/texts';

/** The pictures of a folder, the heaviest first, and what became of each. */
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
    `${outcome.looked} ${outcome.kept} ${folder.figures?.bytes}`,
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
        <thead className="sticky top-0 z-10 bg-sheet text-left text-ink-2 shadow-[0_1px_0_var(--color-line)]">
          <tr>
            <th className="w-11 py-1.5 pl-5">
              <span className="sr-only">{t('folders.chosen')}</span>
            </th>
            <th className="py-1.5 font-normal">{t('folders.picture')}</th>
            <th className="w-28 text-right font-normal">{t('folders.pixels')}</th>
            <th className="w-16 pl-4 font-normal">{t('folders.type')}</th>
            <th className="w-20 text-right font-normal">{t('folders.weight')}</th>
            <th className="w-20 text-right font-normal">{t('folders.now')}</th>
            <th className="w-24 pr-5">
              <span className="sr-only">{t('folders.original')}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {pictures.map((one) => (
            <Line
              key={one.picture.path}
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
            {t('folders.heavier')}
          </Button>
          {t('folders.fromToOf', {
            from: count(from + 1),
            to: count(Math.min(total, from + folderPart)),
            all: count(total),
          })}
          <Button disabled={from + folderPart >= total} onClick={() => setFrom(from + folderPart)}>
            {t('folders.lighter')}
          </Button>
        </p>
      )}
    </div>
  );
}

function Line({
  one: { picture, result },
  chosen,
  onTurn,
  onBack,
}: {
  one: FolderPicture;
  chosen: boolean;
  onTurn: () => void;
  onBack: ((path: string) => void) | null;
}) {
  const mended = result !== null && result.after !== null;
  const told = [
    picture.onSide ? t('folders.rotatedByTag') : '',
    picture.located ? t('folders.containsLocation') : '',
    picture.misnamed ? t('folders.wrongFileExtension') : '',
    picture.moves ? t('folders.animation') : '',
  ].filter(Boolean);
  const said = picture.trouble ?? (mended ? null : (result?.sentence ?? null));
  return (
    <tr className="border-b border-line">
      <td className="pl-5">
        {mended && (
          <input
            type="checkbox"
            checked={chosen}
            onChange={onTurn}
            aria-label={t('folders.choosePath', { path: picture.path })}
            className="align-middle"
          />
        )}
      </td>
      <td className="max-w-0 py-1.5">
        <span className="block wrap-anywhere" title={picture.path}>
          {picture.path}
        </span>
        {(told.length > 0 || said) && (
          <span
            className={`block wrap-anywhere ${picture.trouble ? 'text-breaks' : 'text-ink-2'}`}
            title={said ?? undefined}
          >
            {[told.join(', '), said ? sentence(said) : ''].filter(Boolean).join(' · ')}
          </span>
        )}
      </td>
      <td className="text-right text-ink-2">
        {picture.width > 0 ? size(picture.width, picture.height) : ''}
      </td>
      <td className="pl-4 text-ink-2">{picture.format ? typeName(picture.format) : ''}</td>
      <td className="text-right">{weight(picture.bytes)}</td>
      <td className="text-right font-semibold">{mended ? weight(result.after!) : ''}</td>
      <td className="pr-5 text-right">
        {mended && (
          <button
            type="button"
            disabled={onBack === null}
            onClick={() => onBack?.(picture.path)}
            className="text-accent underline underline-offset-2 disabled:opacity-45"
          >
            {t('folders.restoreOriginal')}
          </button>
        )}
      </td>
    </tr>
  );
}
