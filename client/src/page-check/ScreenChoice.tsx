import type { PageReport } from '../api/client';
import { Choice } from '../design/Choice';
import { count, trim, weight } from '../design/figures';

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
        label="Screen"
        chosen={at}
        onChoose={onAt}
        options={screens.map(
          (one, i) =>
            [i, `${count(one.viewport)} · ${one.density}x`, `${one.viewport} px at ${one.density}x`] as const,
        )}
      />
      <p className="min-w-0" data-testid="screen-totals">
        <b>{weight(screen.bytes)}</b> of pictures loaded, <b>{weight(screen.possible)}</b> would be enough
        <span className="text-ink-2">
          {' '}
          · {weight(screen.other)} besides · {trim(screen.seconds, 1)} s, then{' '}
          {trim(screen.secondsPossible, 1)} s at {trim(rate, 1)} Mbit/s
        </span>
      </p>
    </div>
  );
}
