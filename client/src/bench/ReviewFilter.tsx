import type { ReactNode } from 'react';
import type { JobPicture, ReasonCode } from '../api/client';
import { byGravity, reasonWord } from '../domain/reasons';
import { t } from '../texts/texts';

/** What is worked off on the wall: one reason, or all that are to review. */
export type Reason = ReasonCode | 'any';

export interface ReviewCounts {
  all: number;
  cells: number;
  byReason: ReadonlyMap<ReasonCode, number>;
}

/** How many cells still are to review, by reason; picking one leaves the bench for the wall. */
export function ReviewFilter({
  counts,
  reason,
  reading,
  onReason,
  children,
}: {
  counts: ReviewCounts;
  reason: Reason | null;
  reading: boolean;
  onReason: (reason: Reason | null) => void;
  children?: ReactNode;
}) {
  return (
    <>
      <h2 className="mr-1.5" data-testid="looks">
        {counts.cells === 0
          ? t('bench.nothingToReview')
          : t('bench.cellsOfAllToReview', { cells: counts.cells, all: counts.all })}
        {reading && <span className="font-normal text-ink-2">{t('bench.theRestIsLoading')}</span>}
      </h2>
      {counts.cells > 0 && (
        <>
          <ReasonButton
            name={t('bench.all')}
            on={reason === 'any'}
            act={() => onReason(reason === 'any' ? null : 'any')}
          />
          {[...counts.byReason.keys()].toSorted(byGravity).map((code) => (
            <ReasonButton
              key={code}
              name={reasonWord(code)}
              count={counts.byReason.get(code)}
              on={reason === code}
              act={() => onReason(reason === code ? null : code)}
            />
          ))}
          {children}
        </>
      )}
    </>
  );
}

function ReasonButton({
  name,
  count,
  on,
  act,
}: {
  name: string;
  count?: number;
  on: boolean;
  act: () => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={act}
      className={`h-7 border-b-2 px-2 ${on ? 'border-accent font-semibold' : 'border-transparent text-ink-2 hover:text-ink'}`}
    >
      {name} {count !== undefined && <b className="font-semibold text-ink">{count}</b>}
    </button>
  );
}

export function countToReview(
  cells: Iterable<{ picture: string; slot: string; toReview: ReasonCode[] }>,
  head: { pictures: JobPicture[]; slots: { address: string }[] },
): ReviewCounts {
  const pictures = new Set(head.pictures.map((one) => one.picture.id));
  const slots = new Set(head.slots.map((one) => one.address));
  const byReason = new Map<ReasonCode, number>();
  let [all, count] = [0, 0];
  for (const cell of cells) {
    if (!pictures.has(cell.picture) || !slots.has(cell.slot)) continue;
    all++;
    if (cell.toReview.length > 0) count++;
    for (const look of cell.toReview) byReason.set(look, (byReason.get(look) ?? 0) + 1);
  }
  return { all, cells: count, byReason };
}
