import { typedNumber } from '../design/figures';
import { useDraft } from '../design/useDraft';
import { t } from '../texts/texts';

/** One exact figure in picture pixels. It is taken over on Enter or when the field is left. */
export function FigureField({
  name,
  value,
  most,
  onSet,
}: {
  name: string;
  value: number;
  most: number;
  onSet: (value: number) => void;
}) {
  const { wrong, field } = useDraft(
    (Math.round(value * 10) / 10).toString(),
    (text) => onSet(typedNumber(text)),
    (text) => typedNumber(text) >= 0 && typedNumber(text) <= most,
  );
  return (
    <label className="flex flex-col gap-0.5">
      <span className="text-ink-2">{t('framing.namePx', { name })}</span>
      <span
        className={`flex items-center rounded-md border bg-sheet ${wrong ? 'border-breaks' : 'border-line'}`}
      >
        <input
          inputMode="decimal"
          className="w-full min-w-0 bg-transparent px-1.5 py-1 text-right read-only:text-ink-2"
          aria-invalid={wrong}
          title={wrong ? t('framing.aNumberFrom0ToMost', { most }) : undefined}
          onFocus={(event) => event.target.select()}
          {...field}
        />
      </span>
    </label>
  );
}
