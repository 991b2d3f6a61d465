import { useState } from 'react';
import type { FolderPicture } from '../api/client';
import { sentence, size, weight } from '../design/figures';
import { likenessWords } from '../design/likeness';
import { typeName } from '../design/typeNames';
import { t } from '../texts/texts';
import { BeforeAfter } from './BeforeAfter';
import { filesOf, smallOf } from './files';

/** A picture of a folder: small, with its weight before and after, and how alike both are. */
export function FolderPictureLine({
  folder,
  one,
  chosen,
  onTurn,
  onBack,
}: {
  folder: string;
  one: FolderPicture;
  chosen: boolean;
  onTurn: () => void;
  onBack: ((path: string) => void) | null;
}) {
  const { picture, result } = one;
  const mended = result?.after != null;
  const files = filesOf(one);
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
      <td className="w-[84px] py-1">
        <Small folder={folder} one={one} />
      </td>
      <td className="max-w-0 py-1.5">
        <span className="block wrap-anywhere" title={picture.path}>
          {picture.path}
        </span>
        <Said one={one} />
      </td>
      <td className="text-right text-ink-2">
        {picture.width > 0 ? size(picture.width, picture.height) : ''}
      </td>
      <td className="pl-4 text-ink-2">{picture.format ? typeName(picture.format) : ''}</td>
      <td className="text-right">{weight(files?.before.bytes ?? picture.bytes)}</td>
      <td className={`text-right ${mended ? 'font-semibold' : 'text-ink-2'}`}>
        {files ? weight(files.after.bytes) : ''}
      </td>
      <td className="pl-4 text-ink-2">{files && one.likeness ? likenessWords[one.likeness] : ''}</td>
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

/** The picture, small; where two files of it are there, it opens both. */
function Small({ folder, one }: { folder: string; one: FolderPicture }) {
  const [open, setOpen] = useState(false);
  const files = filesOf(one);
  if (one.picture.trouble) return null;
  const image = (
    <img
      src={smallOf(folder, one)}
      alt=""
      loading="lazy"
      draggable={false}
      className="h-[52px] w-[72px] bg-sheet-2 object-contain"
    />
  );
  if (!files) return image;
  return (
    <BeforeAfter
      folder={folder}
      path={one.picture.path}
      files={files}
      open={open}
      onOpen={setOpen}
      trigger={
        <button
          type="button"
          aria-label={t('folders.compareBeforeAndAfter', { path: one.picture.path })}
          title={t('folders.compare')}
          className="block outline-offset-1 hover:outline-2 hover:outline-accent"
        >
          {image}
        </button>
      }
    />
  );
}

/** What is special about a picture, and why it stays as it is. */
function Said({ one: { picture, result, preview } }: { one: FolderPicture }) {
  const told = [
    picture.onSide ? t('folders.rotatedByTag') : '',
    picture.located ? t('folders.containsLocation') : '',
    picture.misnamed ? t('folders.wrongFileExtension') : '',
    picture.moves ? t('folders.animation') : '',
  ].filter(Boolean);
  const known = result ?? preview;
  const said = picture.trouble ?? (known?.after == null ? (known?.sentence ?? null) : null);
  if (told.length === 0 && !said) return null;
  return (
    <span
      className={`block wrap-anywhere ${picture.trouble ? 'text-breaks' : 'text-ink-2'}`}
      title={said ?? undefined}
    >
      {[told.join(', '), said ? sentence(said) : ''].filter(Boolean).join(' · ')}
    </span>
  );
}
