import type { PageReport } from '../api/client';
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
  const choice = 'h-8 border px-2 whitespace-nowrap';
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-line bg-sheet-2 px-5 py-2">
      <div role="radiogroup" aria-label="Screen" className="flex flex-wrap">
        {screens.map((one, i) => (
          <button
            key={`${one.viewport} ${one.density}`}
            type="button"
            role="radio"
            aria-checked={i === at}
            aria-label={`${one.viewport} px at ${one.density}x`}
            onClick={() => onAt(i)}
            className={`${choice} -ml-px first:ml-0 ${i === at ? 'relative border-accent bg-accent text-on-accent' : 'border-line bg-sheet hover:border-ink-2'}`}
          >
            {count(one.viewport)} · {one.density}x
          </button>
        ))}
      </div>
      <p className="min-w-0" data-testid="screen-totals">
        <b>{weight(screen.bytes)}</b> of pictures, <b>{weight(screen.possible)}</b> would do
        <span className="text-ink-2">
          {' '}
          · {weight(screen.other)} besides · {trim(screen.seconds, 1)} s, then{' '}
          {trim(screen.secondsPossible, 1)} s at {trim(rate, 1)} Mbit/s
        </span>
      </p>
    </div>
  );
}
