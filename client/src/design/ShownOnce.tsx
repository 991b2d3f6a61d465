import { Button } from './Button';
import { useCopy } from './useCopy';
import { t } from '../texts/texts';

/** A secret that is shown once: to be copied, then closed. */
export function ShownOnce({ says, value, onClose }: { says: string; value: string; onClose: () => void }) {
  const { said, copy } = useCopy();
  return (
    <section
      role="status"
      className="mt-3 border border-l-4 border-line border-l-accent bg-sheet px-4 py-3"
      data-testid="shown-once"
    >
      <p>{says}</p>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <code className="min-w-0 flex-1 wrap-anywhere border border-line bg-sheet-2 px-2 py-1.5 select-all">
          {value}
        </code>
        <Button kind="main" onClick={() => copy(t('accounts.shownOnce'), value)}>
          {t('accounts.copy')}
        </Button>
        <Button onClick={onClose}>{t('common.close')}</Button>
      </div>
      {said && <p className="mt-1.5 text-ink-2">{said}</p>}
    </section>
  );
}
