import { useState } from 'react';

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
  const [draft, setDraft] = useState<string | null>(null);
  const parsed = draft === null ? value : Number(draft.replace(',', '.'));
  const wrong =
    draft !== null && (draft.trim() === '' || !Number.isFinite(parsed) || parsed < 0 || parsed > most);
  const take = () => {
    if (draft !== null && !wrong && Math.abs(parsed - value) >= 0.05) onSet(parsed);
    setDraft(null);
  };
  return (
    <label className="flex flex-col gap-0.5">
      <span className="text-ink-2">{name}</span>
      <span
        className={`flex items-center rounded-md border bg-sheet ${wrong ? 'border-breaks' : 'border-line'}`}
      >
        <input
          inputMode="decimal"
          className="w-full bg-transparent px-2 py-1 text-right"
          value={draft ?? (Math.round(value * 10) / 10).toString()}
          aria-invalid={wrong}
          title={wrong ? `A figure from 0 to ${most}` : undefined}
          onFocus={(event) => event.target.select()}
          onChange={(event) => setDraft(event.target.value)}
          onBlur={take}
          onKeyDown={(event) => {
            if (event.key === 'Enter') take();
            if (event.key === 'Escape') setDraft(null);
          }}
        />
        <span className="pr-2 text-ink-2">px</span>
      </span>
    </label>
  );
}
