import { RichText } from '../texts/RichText';
import { Button, Key } from '../design/Button';
import { t } from '../texts/texts';

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
      aria-label={t('handingOver.thePages')}
    >
      <section className="border-b border-line px-5 py-4">
        <label className="block">
          <span className="text-ink-2">{t('handingOver.baseURL')}</span>
          <input
            className="mt-0.5 h-7 w-full rounded-md border border-line bg-sheet px-2 placeholder:text-ink-2"
            value={base}
            placeholder={t('handingOver.besideThePage')}
            onChange={(event) => onBase(event.target.value)}
            spellCheck={false}
          />
        </label>
        <p className="mt-1 text-small text-ink-2">{t('handingOver.httpsYourSitePicturesOrPictures')}</p>
      </section>
      <section className="border-b border-line px-5 py-3" aria-label={t('handingOver.alternativeText2')}>
        {missing === 0 ? (
          <p>{t('handingOver.everyPictureHasAnAlternativeText')}</p>
        ) : (
          <>
            <p>
              <RichText
                text="handingOver.noText"
                values={{ count: missing }}
                elements={{ b: <b className="font-semibold" data-testid="no-text" /> }}
              />
            </p>
            <Button className="mt-2 w-full" onClick={onNextMissing}>
              {t('handingOver.nextWithoutText')} <Key>E</Key>
            </Button>
          </>
        )}
      </section>
      <section
        className="mt-auto flex flex-col gap-2 border-t border-line px-5 py-3"
        aria-label={t('handingOver.copy')}
      >
        {said && (
          <p role="status" data-testid="copied">
            {said}
          </p>
        )}
        <Button onClick={onCopyAll}>
          {t('handingOver.copyAllMarkup')} <Key>⇧ C</Key>
        </Button>
        <Button kind="main" onClick={onCopy ?? undefined} disabled={onCopy === null}>
          {t('handingOver.copyForThisPicture')} <Key>C</Key>
        </Button>
      </section>
    </aside>
  );
}
