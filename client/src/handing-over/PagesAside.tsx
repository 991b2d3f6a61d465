import { Button, Key } from '../design/Button';

/** How addresses begin, which pictures want a text, and copying. */
export function PagesAside({
  base,
  onBase,
  missing,
  said,
  onNextMissing,
  onCopyAll,
  onCopy,
}: {
  base: string;
  onBase: (base: string) => void;
  /** How many pictures do not say what they show. */
  missing: number;
  said: string | null;
  onNextMissing: () => void;
  onCopyAll: () => void;
  /** Null while there is nothing to copy. */
  onCopy: (() => void) | null;
}) {
  return (
    <aside
      className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
      aria-label="The pages"
    >
      <section className="border-b border-line px-5 py-4">
        <label className="block">
          <span className="text-ink-2">Base URL</span>
          <input
            className="mt-0.5 h-7 w-full rounded-md border border-line bg-sheet px-2 placeholder:text-ink-2"
            value={base}
            placeholder="beside the page"
            onChange={(event) => onBase(event.target.value)}
            spellCheck={false}
          />
        </label>
        <p className="mt-1 text-[12px] text-ink-2">https://your.site/pictures, or /pictures</p>
      </section>
      <section className="border-b border-line px-5 py-3" aria-label="Alternative text">
        {missing === 0 ? (
          <p>Every picture says what it shows.</p>
        ) : (
          <>
            <p>
              <b className="font-semibold" data-testid="no-text">
                {missing}
              </b>{' '}
              {missing === 1 ? 'picture does not say what it shows.' : 'pictures do not say what they show.'}
            </p>
            <Button className="mt-2 w-full" onClick={onNextMissing}>
              Next without a text <Key>E</Key>
            </Button>
          </>
        )}
      </section>
      <section className="mt-auto flex flex-col gap-2 border-t border-line px-5 py-3" aria-label="Copy">
        {said && (
          <p role="status" data-testid="copied">
            {said}
          </p>
        )}
        <Button onClick={onCopyAll}>
          Copy the whole job <Key>⇧ C</Key>
        </Button>
        <Button kind="main" onClick={onCopy ?? undefined} disabled={onCopy === null}>
          Copy for this picture <Key>C</Key>
        </Button>
      </section>
    </aside>
  );
}
