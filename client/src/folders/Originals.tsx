import { Button } from '../design/Button';
import { Sheet } from '../design/Sheet';
import { t } from '../texts/texts';

/** The originals that are kept, and the ways back for as long as they are. */
export function Originals({
  kept,
  chosen,
  disabled,
  onBack,
  onLetGo,
}: {
  kept: number;
  chosen: ReadonlySet<string>;
  disabled: boolean;
  onBack: (paths: string[] | null) => void;
  onLetGo: () => void;
}) {
  return (
    <section className="border-b border-line px-5 py-3" aria-label={t('folders.originals')}>
      <h2>{t('folders.originalsAreKept', { count: kept })}</h2>
      <div className="mt-2 flex flex-wrap gap-1.5">
        {chosen.size > 0 && (
          <Button disabled={disabled} onClick={() => onBack([...chosen])}>
            {t('folders.restoreSize', { size: chosen.size })}
          </Button>
        )}
        <Button disabled={disabled} onClick={() => onBack(null)}>
          {t('folders.restoreAll')}
        </Button>
        <Sheet
          title={t('folders.deleteTheOriginals')}
          trigger={<Button disabled={disabled}>{t('folders.deleteOriginals')}</Button>}
        >
          <p className="mt-3">{t('folders.theOriginalsAreDeletedAndCan', { count: kept })}</p>
          <Button kind="main" className="mt-4" onClick={onLetGo}>
            {t('folders.deleteOriginals2', { count: kept })}
          </Button>
        </Sheet>
      </div>
    </section>
  );
}
