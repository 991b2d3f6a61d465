import type { PictureFolder } from '../api/client';
import { count, size, weight } from '../design/figures';

/** Which pictures of a folder are listed. */
export type Kind =
  'all' | 'over' | 'near' | 'onSide' | 'located' | 'misnamed' | 'moving' | 'troubles' | 'mended';

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
    ['all', 'pictures', figures.count],
    ['over', 'from 1 MB', figures.over],
    ['near', 'near 1 MB', figures.near],
    ['onSide', 'on their side', figures.onSide],
    ['located', 'with a place', figures.located],
    ['misnamed', 'with a wrong file extension', figures.misnamed],
    ['moving', 'moving', figures.moving],
    ['troubles', 'in trouble', folder.outcome.inTrouble],
    ['mended', 'lighter now', folder.outcome.mended],
  ];
  return (
    <section aria-label="Figures" className="border-b border-line bg-sheet-2 px-5 pt-3 pb-2">
      <p>
        <b className="text-[22px] leading-tight">{weight(figures.bytes)}</b>
        <span className="text-ink-2">
          {figures.heaviest && (
            <>
              {' '}
              · heaviest {figures.heaviest}, {weight(figures.heaviestBytes)}
            </>
          )}
          {figures.largest && (
            <>
              {' '}
              · largest {figures.largest}, {size(figures.largestWidth, figures.largestHeight)}
            </>
          )}
        </span>
      </p>
      <div role="radiogroup" aria-label="Listed" className="mt-2 flex flex-wrap gap-x-1 gap-y-1">
        {all.map(([one, words, number]) => (
          <button
            key={one}
            type="button"
            role="radio"
            aria-checked={one === kind}
            disabled={number === 0 && one !== kind}
            onClick={() => onKind(one)}
            className={`h-8 rounded-md border px-2 whitespace-nowrap disabled:opacity-45 ${one === kind ? 'border-accent bg-accent text-on-accent' : 'border-line bg-sheet enabled:hover:border-ink-2'}`}
          >
            <b>{count(number)}</b> {words}
          </button>
        ))}
      </div>
    </section>
  );
}
