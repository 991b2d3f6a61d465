import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { fontsQuery } from '../api/queries';
import { Button } from '../design/Button';
import { typedNumber } from '../design/figures';
import { useDraft } from '../design/useDraft';
import type { TitleRule } from '../domain/overlay';
import { ruleKey, usual } from '../domain/ruleKeys';
import { t } from '../texts/texts';
import { FontList } from './FontList';

const aligns = [
  ['left', t('overlay.left2')],
  ['centre', t('overlay.centre')],
  ['right', t('overlay.right2')],
] as const;

const sizes = ruleKey('dress.title.size');

/** The words and how they are set; they are shown in every font there is. */
export function TitlePart({
  words,
  title,
  set,
  onWords,
  onTitle,
  onRemove,
  onPoint,
}: {
  words: string;
  title: TitleRule | undefined;
  /** True where the slot is of a set width, so that letters have a size. */
  set: boolean;
  onWords: (words: string) => void;
  onTitle: (change: Partial<TitleRule>) => void;
  onRemove: () => void;
  onPoint: (font: string | null) => void;
}) {
  const field = useRef<HTMLTextAreaElement>(null);
  useEffect(() => field.current?.focus(), []);
  if (!set) return <p className="text-ink-2">{t('overlay.aTitleNeedsASlotWith')}</p>;
  return (
    <section aria-label={t('overlay.title')}>
      <label className="block">
        <span className="flex items-baseline text-small text-ink-2">
          <span className="flex-1">{t('overlay.title')}</span>
          <span>{t('overlay.shiftEnterStartsANewLine')}</span>
        </span>
        <textarea
          ref={field}
          rows={2}
          maxLength={300}
          value={words}
          dir="auto"
          placeholder={t('overlay.textOverThisPicture')}
          onChange={(event) => onWords(event.target.value)}
          className="mt-0.5 block w-full resize-none rounded-md border border-line bg-sheet px-2 py-1"
          data-testid="over-words"
        />
      </label>
      {title && (
        <>
          <FontList words={words} title={title} onTitle={onTitle} onPoint={onPoint} />
          <div className="mt-1.5 flex items-end gap-2">
            <SizeField value={title.size} onSet={(size) => onTitle({ size })} />
            <WeightField title={title} onTitle={onTitle} />
            <div className="flex" role="group" aria-label={t('overlay.alignment')}>
              {aligns.map(([key, name]) => (
                <button
                  key={key}
                  type="button"
                  aria-pressed={(title.align ?? 'left') === key}
                  onClick={() => onTitle({ align: key })}
                  className="h-7 border border-l-0 border-line px-2 first:rounded-l-md first:border-l last:rounded-r-md aria-pressed:bg-sheet-2 aria-pressed:font-semibold"
                >
                  {name}
                </button>
              ))}
            </div>
            <span className="flex-1" />
            <Button className="h-7! px-2!" onClick={onRemove} title={t('overlay.showNoTitleOnThisPicture')}>
              {t('overlay.noTitle')}
            </Button>
          </div>
        </>
      )}
    </section>
  );
}

function SizeField({ value, onSet }: { value: number; onSet: (size: number) => void }) {
  const { wrong, field } = useDraft(
    String(value),
    (text) => onSet(typedNumber(text)),
    (text) => typedNumber(text) >= sizes.least! && typedNumber(text) <= sizes.most!,
  );
  return (
    <label className="block w-[68px]">
      <span className="block text-small text-ink-2">{t('overlay.sizePx')}</span>
      <input
        inputMode="decimal"
        aria-invalid={wrong}
        title={wrong ? t('overlay.aNumberFrom4To2000') : undefined}
        className={`h-7 w-full rounded-md border bg-sheet px-2 text-right ${wrong ? 'border-breaks' : 'border-line'}`}
        {...field}
      />
    </label>
  );
}

function WeightField({
  title,
  onTitle,
}: {
  title: TitleRule;
  onTitle: (change: Partial<TitleRule>) => void;
}) {
  const fonts = useQuery(fontsQuery).data ?? [];
  const weights = fonts
    .filter((font) => font.family === (title.font ?? usual<string>('dress.title.font')))
    .map((font) => font.weight);
  const nearest = weights.toSorted(
    (a, b) => Math.abs(a - (title.weight ?? 600)) - Math.abs(b - (title.weight ?? 600)),
  )[0];
  return (
    <label className="block w-[72px]">
      <span className="block text-small text-ink-2">{t('overlay.weight')}</span>
      <select
        className="h-7 w-full rounded-md border border-line bg-sheet px-1"
        value={nearest ?? title.weight ?? 600}
        onChange={(event) => onTitle({ weight: Number(event.target.value) })}
      >
        {weights.map((weight) => (
          <option key={weight}>{weight}</option>
        ))}
      </select>
    </label>
  );
}
