import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { fontsQuery } from '../api/queries';
import { useAddSideFile } from '../api/useAddSideFile';
import { FileButton } from '../design/FileButton';
import type { TitleRule } from '../domain/overlay';
import { usual } from '../domain/ruleKeys';
import { t } from '../texts/texts';
import { familyOf, useFonts } from './fonts';

export function FontList({
  words,
  title,
  onTitle,
  onPoint,
}: {
  words: string;
  title: TitleRule;
  onTitle: (change: Partial<TitleRule>) => void;
  onPoint: (font: string | null) => void;
}) {
  const fonts = useQuery(fontsQuery).data;
  const families = useMemo(() => [...new Set((fonts ?? []).map((font) => font.family))], [fonts]);
  const weight = title.weight ?? 600;
  useFonts(families, weight);
  const chosen = title.font ?? usual<string>('dress.title.font');
  const add = useAddSideFile((font) => onTitle({ font }));
  return (
    <ul
      className="mt-1.5 grid grid-cols-2 border-t border-l border-line"
      aria-label={t('overlay.fonts')}
      onPointerLeave={() => onPoint(null)}
    >
      {families.map((family) => (
        <li key={family} className="border-r border-b border-line">
          <button
            type="button"
            aria-pressed={family === chosen}
            onPointerEnter={() => onPoint(family === chosen ? null : family)}
            onClick={() => {
              onPoint(null);
              onTitle({ font: family });
            }}
            className="block w-full px-2 py-0.5 text-left aria-pressed:bg-sheet-2 aria-pressed:outline-2 aria-pressed:-outline-offset-2 aria-pressed:outline-accent"
          >
            <span
              className="block wrap-anywhere text-head leading-6"
              dir="auto"
              style={{ fontFamily: `"${familyOf(family)}"`, fontWeight: weight }}
            >
              {words.trim() || family}
            </span>
            <span className="block text-note leading-3 text-ink-2">{family}</span>
          </button>
        </li>
      ))}
      <li className="grid place-items-center border-r border-b border-line p-1">
        <FileButton
          name={t('overlay.addAFont')}
          accept=".ttf,.otf"
          className="w-full"
          onFile={(file) => add.mutate({ name: file.name, content: file })}
        />
        {add.error && (
          <p role="alert" className="mt-1 text-small text-breaks">
            {add.error.message}
          </p>
        )}
      </li>
    </ul>
  );
}
