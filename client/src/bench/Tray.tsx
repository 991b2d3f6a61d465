import { addresses } from '../api/client';
import { type Chosen } from '../jobs/actions';
import { useJobStore } from '../jobs/useJob';
import { KeyButton, QuietKey } from '../design/Button';
import { t } from '../texts/texts';
import { OneCell } from './OneCell';
import { useTraySteps } from './useTraySteps';

/** What is chosen on the bench: why it is as it is, and what can be done about it now, the next step first. */
export function Tray({
  chosen,
  focusAt,
}: {
  chosen: readonly Chosen[];
  focusAt: { x: number; y: number } | null;
}) {
  const one = chosen.length === 1 ? chosen[0]! : null;
  const looks = chosen.filter(({ cell }) => cell.toReview.length > 0).length;
  const store = useJobStore();
  const pictures = [...new Set(chosen.map(({ picture }) => picture.picture.id))];
  const { next, others } = useTraySteps(chosen, focusAt);
  return (
    <section
      aria-label={t('bench.chosenCells')}
      className="@container h-[84px] border-t border-line bg-sheet px-5 py-2 max-[1100px]:h-[148px]"
    >
      <div className="flex h-full gap-6 max-[1100px]:flex-col max-[1100px]:gap-1.5">
        <div className="min-h-0 min-w-0 flex-1">
          {one ? (
            <OneCell one={one} />
          ) : (
            <>
              <h2>{t('bench.chosenCellsChosen', { chosen: chosen.length })}</h2>
              <p className="mt-1 text-ink-2">
                {looks > 0 ? t('bench.ofThemToReview', { looks }) : t('bench.noneToReview')}{' '}
                {t('bench.appliesToAll')}
              </p>
              <p>
                <a
                  href={addresses.contactSheet(store.id, pictures)}
                  download
                  className="text-accent underline underline-offset-2"
                >
                  {t('bench.contactSheetOf', { count: pictures.length })}
                </a>
              </p>
            </>
          )}
        </div>
        <div className="flex max-w-[650px] shrink-0 items-center gap-3 max-[1100px]:max-w-none">
          <div className="flex max-w-[470px] flex-wrap content-center justify-end gap-x-0.5 gap-y-1 max-[1100px]:max-w-none max-[1100px]:flex-1 max-[1100px]:justify-start">
            {others.map((step) => (
              <QuietKey key={step.k} {...step} />
            ))}
          </div>
          {next && <KeyButton main className="h-9! min-w-36" {...next} />}
        </div>
      </div>
    </section>
  );
}
