import type { PictureFolder } from '../api/client';
import { count, size, weight } from '../design/figures';
import { t } from '../texts/texts';

/** Which pictures of a folder are listed. */
export type Kind =
  | 'all'
  | 'over'
  | 'near'
  | 'onSide'
  | 'located'
  | 'misnamed'
  | 'moving'
  | 'troubles'
  | 'previewed'
  | 'mended';

/** What a folder comes to; each figure lists the pictures that it counts. */
export function FolderFigures({
  folder,
  kind,
  onKind,
}: {
  folder: PictureFolder;
  kind: Kind;
  onKind: (kind: Kind) => void;
}) {
  const figures = folder.figures!;
  const all: readonly (readonly [Kind, string, number])[] = [
    ['all', t('folders.pictures'), figures.count],
    ['over', t('folders.from1MB'), figures.over],
    ['near', t('folders.near1MB'), figures.near],
    ['onSide', t('folders.rotatedByTag'), figures.onSide],
    ['located', t('folders.withALocation'), figures.located],
    ['misnamed', t('folders.withAWrongFileExtension'), figures.misnamed],
    ['moving', t('folders.animations'), figures.moving],
    ['troubles', t('folders.unreadable'), folder.outcome.inTrouble],
    ['previewed', t('folders.previewed'), folder.trial?.pictures.length ?? 0],
    ['mended', t('folders.lighterNow'), folder.outcome.mended],
  ];
  return (
    <section aria-label={t('folders.figures')} className="border-b border-line bg-sheet-2 px-5 pt-3 pb-2">
      <p>
        <b className="text-figure leading-tight">{weight(figures.bytes)}</b>
        <span className="text-ink-2">
          {figures.heaviest && (
            <>
              {t('folders.heaviest', {
                path: figures.heaviest,
                bytes: weight(figures.heaviestBytes),
              })}
            </>
          )}
          {figures.largest && (
            <>
              {t('folders.largest', {
                path: figures.largest,
                pixels: size(figures.largestWidth, figures.largestHeight),
              })}
            </>
          )}
        </span>
      </p>
      <div role="radiogroup" aria-label={t('folders.filter')} className="mt-2 flex flex-wrap gap-x-1 gap-y-1">
        {all
          .filter(([one, , number]) => number > 0 || one === kind || one === 'all')
          .map(([one, words, number]) => (
            <button
              key={one}
              type="button"
              role="radio"
              aria-checked={one === kind}
              onClick={() => onKind(one)}
              className={`h-8 rounded-md border px-2 whitespace-nowrap ${one === kind ? 'border-accent bg-accent text-on-accent' : 'border-line bg-sheet hover:border-ink-2'}`}
            >
              <b>{count(number)}</b> {words}
            </button>
          ))}
      </div>
    </section>
  );
}
