import { RichText } from '../texts/RichText';
import type { PageReport } from '../api/client';
import { Choice } from '../design/Choice';
import { count, trim, weight } from '../design/figures';
import { t } from '../texts/texts';

/** Which screen is looked at, and what the page weighs on it. */
export function ScreenChoice({
  report,
  at,
  onAt,
}: {
  report: PageReport;
  at: number;
  onAt: (at: number) => void;
}) {
  const { screens, rate } = report.totals;
  const screen = screens[at]!;
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-line bg-sheet-2 px-5 py-2">
      <Choice
        label={t('pageCheck.screen')}
        chosen={at}
        onChoose={onAt}
        options={screens.map(
          (one, i) =>
            [
              i,
              `${count(one.viewport)} · ${one.density}x`,
              t('pageCheck.viewportPxAtDensityX', { viewport: one.viewport, density: one.density }),
            ] as const,
        )}
      />
      <p className="min-w-0" data-testid="screen-totals">
        <RichText
          text="pageCheck.pictureBytes"
          values={{ loaded: weight(screen.bytes), enough: weight(screen.possible) }}
          elements={{ b: <b /> }}
        />{' '}
        <span className="text-ink-2">
          {t('pageCheck.otherOfOtherFilesSecondsS', {
            other: weight(screen.other),
            seconds: trim(screen.seconds, 1),
            secondsPossible: trim(screen.secondsPossible, 1),
            rate: trim(rate, 1),
          })}
        </span>
      </p>
    </div>
  );
}
