import { t } from '../texts/texts';
import type { RowOrder } from './rowOrder';
import type { BenchRows } from './useBenchRows';

/** Which pictures the bench shows, by typing, and in which order. */
export function RowFilter({ rows, wide = false }: { rows: BenchRows['filter']; wide?: boolean }) {
  const field = `h-6 ${wide ? 'w-44' : 'w-full'} rounded-sm border border-line bg-sheet px-1.5 text-small`;
  return (
    <>
      <input
        type="search"
        value={rows.words}
        onChange={(event) => rows.setWords(event.target.value)}
        aria-label={t('bench.filterPictures')}
        placeholder={t('common.pictures', { count: rows.all })}
        className={`${field} placeholder:text-ink-2`}
      />
      <select
        value={rows.order}
        onChange={(event) => rows.setOrder(event.target.value as RowOrder)}
        aria-label={t('bench.orderOfPictures')}
        className={`${field} text-ink-2`}
      >
        <option value="added">{t('bench.asAdded')}</option>
        <option value="to-review">{t('bench.mostToReview')}</option>
        <option value="name">{t('bench.byName')}</option>
      </select>
    </>
  );
}
