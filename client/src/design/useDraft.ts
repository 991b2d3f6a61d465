import { type InputHTMLAttributes, useState } from 'react';
import { useLackOf } from './rights';

/**
 * A field whose text is taken over on Enter or when it is left, and given back on Escape: until then nothing but the field knows of it.
 * What is not accepted is not taken over. Whoever may not edit can read it only, and is told why.
 */
export function useDraft(
  value: string,
  onTake: (text: string) => void,
  accepts: (text: string) => boolean = () => true,
): {
  wrong: boolean;
  field: Pick<
    InputHTMLAttributes<HTMLInputElement>,
    'value' | 'onChange' | 'onBlur' | 'onKeyDown' | 'readOnly' | 'title'
  >;
} {
  const [draft, setDraft] = useState<string | null>(null);
  const lack = useLackOf('edit');
  const wrong = draft !== null && !accepts(draft.trim());
  return {
    wrong,
    field: {
      ...(lack === null ? {} : { readOnly: true, title: lack }),
      value: draft ?? value,
      onChange: (event) => setDraft(event.target.value),
      onBlur: () => {
        if (draft !== null && !wrong && draft.trim() !== value) onTake(draft.trim());
        setDraft(null);
      },
      onKeyDown: (event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') setDraft(null);
      },
    },
  };
}
