import { useCopy } from '../design/useCopy';
import { t } from '../texts/texts';

/** A colour with its figure; taken by a click, copied by C. */
export function Colour({
  hex,
  name,
  hint,
  chosen = false,
  onTake,
}: {
  /** Null for the one that is found. */
  hex: string | null;
  name: string;
  hint?: string;
  chosen?: boolean;
  onTake?: () => void;
}) {
  const { said, copy, forget } = useCopy();
  return (
    <button
      type="button"
      aria-pressed={onTake ? chosen : undefined}
      aria-label={hex ? `${hex}, ${name}` : name}
      title={hint ?? (hex ? t('overlay.hexPressCToCopy', { hex }) : t('overlay.theTextColourThatNeedsThe'))}
      onClick={onTake ?? (() => hex && copy(hex, hex))}
      onPointerEnter={(event) =>
        hex && document.activeElement?.tagName !== 'TEXTAREA' && event.currentTarget.focus()
      }
      onPointerLeave={forget}
      onBlur={forget}
      onKeyDown={(event) => {
        if (event.key.toLowerCase() !== 'c' || event.ctrlKey || event.metaKey) return;
        event.preventDefault();
        event.stopPropagation();
        if (hex) copy(hex, hex);
      }}
      className="flex h-7 min-w-0 items-center gap-1.5 rounded-md border border-line px-1 text-small aria-pressed:bg-sheet-2 aria-pressed:outline-2 aria-pressed:-outline-offset-1 aria-pressed:outline-accent"
    >
      <span
        className={`h-4 w-4 shrink-0 rounded-sm border border-ink-2/60 ${hex ? '' : 'grid place-items-center text-note'}`}
        style={hex ? { background: hex } : undefined}
      >
        {hex ? '' : 'A'}
      </span>
      <span className="wrap-anywhere">{said ? t('overlay.copied') : name}</span>
    </button>
  );
}
