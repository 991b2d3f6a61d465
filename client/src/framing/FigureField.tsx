import { useDraft } from '../design/useDraft';

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
  const figure = (text: string) => (text === '' ? NaN : Number(text.replace(',', '.')));
  const { wrong, field } = useDraft(
    (Math.round(value * 10) / 10).toString(),
    (text) => onSet(figure(text)),
    (text) => figure(text) >= 0 && figure(text) <= most,
  );
  return (
    <label className="flex flex-col gap-0.5">
      <span className="text-ink-2">{name}</span>
      <span
        className={`flex items-center rounded-md border bg-sheet ${wrong ? 'border-breaks' : 'border-line'}`}
      >
        <input
          inputMode="decimal"
          className="w-full bg-transparent px-2 py-1 text-right"
          aria-invalid={wrong}
          title={wrong ? `A figure from 0 to ${most}` : undefined}
          onFocus={(event) => event.target.select()}
          {...field}
        />
        <span className="pr-2 text-ink-2">px</span>
      </span>
    </label>
  );
}
