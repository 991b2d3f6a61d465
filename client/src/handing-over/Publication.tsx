import type { PublicationView } from '../api/client';
import { Button, Key } from '../design/Button';
import { count, weight } from '../design/figures';

/** Whether the job is live, how often it was fetched, and making it live or taking it back. */
export function Publication({
  publication,
  changes,
  fixed,
  said,
  failed,
  busy,
  onFixed,
  onPublish,
  onWithdraw,
  onCopyAll,
}: {
  publication: PublicationView;
  /** How many places would change. */
  changes: number;
  /** True for addresses of this very version. */
  fixed: boolean;
  said: string | null;
  failed: boolean;
  busy: boolean;
  onFixed: (fixed: boolean) => void;
  onPublish: () => void;
  onWithdraw: () => void;
  onCopyAll: () => void;
}) {
  const published = publication.key !== null;
  return (
    <aside
      className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
      aria-label="The publication"
    >
      <section className="border-b border-line px-5 py-4">
        {published ? (
          <>
            <h2 className="break-all">/live/{publication.key}/</h2>
            <p className="mt-1 text-ink-2">
              Live since{' '}
              {new Date(publication.at!).toLocaleString(undefined, {
                dateStyle: 'medium',
                timeStyle: 'short',
              })}
              . What was live before a change answers for {publication.oldAnswersDays} more days under its own
              address.
            </p>
          </>
        ) : (
          <>
            <h2>Not live</h2>
            <p className="mt-1 text-ink-2">
              Make the job live, and every picture gets an address on this server that pages can use: the type
              and the width follow who asks.
            </p>
          </>
        )}
      </section>
      {published && (
        <section className="border-b border-line px-5 py-3" aria-label="Addresses">
          <label className="flex items-start gap-2">
            <input
              type="checkbox"
              className="mt-0.5 h-4 w-4 accent-(--pm-accent)"
              checked={fixed}
              onChange={(event) => onFixed(event.target.checked)}
            />
            <span>
              Addresses of this version
              <span className="block text-[12px] text-ink-2">
                {fixed
                  ? 'They never change, and are kept for a year.'
                  : 'Now: those that lead to the newest. A change shows within a minute.'}
              </span>
            </span>
          </label>
          <p className="mt-3 text-ink-2" data-testid="fetches">
            Fetched {count(publication.places.reduce((sum, place) => sum + place.fetches, 0))} times,{' '}
            {weight(publication.places.reduce((sum, place) => sum + place.bytes, 0))};{' '}
            {count(publication.places.reduce((sum, place) => sum + place.unchanged, 0))} times still the same.
          </p>
        </section>
      )}
      <section className="mt-auto flex flex-col gap-2 border-t border-line px-5 py-3" aria-label="Publish">
        {said && (
          <p
            role={failed ? 'alert' : 'status'}
            className={failed ? 'text-breaks' : undefined}
            data-testid="copied"
          >
            {said}
          </p>
        )}
        {published && (
          <>
            <Button onClick={onWithdraw} disabled={busy}>
              Withdraw
            </Button>
            <Button onClick={onCopyAll}>
              Copy the whole job <Key>⇧ C</Key>
            </Button>
          </>
        )}
        <Button kind="main" onClick={onPublish} disabled={busy || (published && changes === 0)}>
          {!published
            ? 'Make the job live'
            : changes === 0
              ? 'All of it is live'
              : `Make ${changes === 1 ? 'the change' : `${changes} changes`} live`}{' '}
          <Key>P</Key>
        </Button>
      </section>
    </aside>
  );
}
