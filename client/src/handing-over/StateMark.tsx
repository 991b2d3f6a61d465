import type { PublishedPlace } from '../api/client';

/** Full, half or empty: told apart by shape as well as by words. */
export function StateMark({ state }: { state: PublishedPlace['state'] }) {
  return (
    <svg viewBox="0 0 12 12" width="11" height="11" aria-hidden className="inline -translate-y-px">
      <rect x="1" y="1" width="10" height="10" fill="none" stroke="currentColor" strokeWidth="1.4" />
      {state !== 'fresh' && (
        <rect
          x="1"
          y="1"
          width={state === 'live' ? 10 : 5}
          height="10"
          fill="currentColor"
          className={state === 'live' ? 'text-meets' : 'text-concedes'}
        />
      )}
    </svg>
  );
}
