import { useState } from 'react';
import { addresses, type PageCheck } from '../api/client';
import { count, weight } from '../design/figures';
import { ProgressBar } from '../design/ProgressBar';
import { progressWords } from './progress';
import { t } from '../texts/texts';

type Measured = NonNullable<PageCheck['progress']>['screens'][number];

/** The screens of a page while it is measured: each is shown with its figures as soon as they are known. */
export function Measuring({ check }: { check: PageCheck }) {
  const { viewports, densities, progress } = check;
  const screens = progress?.screens ?? [];
  // Another measurement of the same page has other pictures.
  const [began] = useState(() => `${Date.now()}`);
  return (
    <div className="min-h-0 overflow-y-auto px-5 py-4">
      {progress && (
        <ProgressBar
          label={progressWords(check)}
          done={progress.done}
          of={progress.of}
          className="max-w-md"
        />
      )}
      <ul className="mt-4 grid grid-cols-[repeat(auto-fill,minmax(min(230px,100%),1fr))] gap-4">
        {viewports.map((viewport) => (
          <li key={viewport} className="border border-line bg-sheet">
            <Shot check={check} viewport={viewport} known={screens} version={began} />
            <div className="border-t border-line px-3 py-2">
              <h2 className="font-semibold">{t('pageCheck.viewportPx', { viewport: count(viewport) })}</h2>
              <ul className="mt-1">
                {densities.map((density) => (
                  <Figures
                    key={density}
                    density={density}
                    screen={screens.find((one) => one.viewport === viewport && one.density === density)}
                  />
                ))}
              </ul>
            </div>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** What the page looks like there, once it was seen at its first density. */
function Shot({
  check,
  viewport,
  known,
  version,
}: {
  check: PageCheck;
  viewport: number;
  known: readonly Measured[];
  version: string;
}) {
  const seen = known.some((one) => one.viewport === viewport && one.density === check.densities[0]);
  return seen ? (
    <img
      src={addresses.pageShot(check.id, viewport, version)}
      alt={t('pageCheck.thePageOnAScreenOf', { viewport })}
      className="h-72 w-full object-cover object-top"
    />
  ) : (
    <span className="grid h-72 place-items-center text-ink-2">{t('pageCheck.notMeasuredYet')}</span>
  );
}

function Figures({ density, screen }: { density: number; screen: Measured | undefined }) {
  return (
    <li className="grid grid-cols-[28px_1fr] gap-2 text-ink-2">
      <span>{`${density}x`}</span>
      {screen ? (
        <span>
          {t('pageCheck.screenLoads', {
            weight: weight(screen.bytes),
            pictures: t('common.pictures', { count: screen.images }),
          })}
        </span>
      ) : (
        <span>{t('pageCheck.notMeasuredYet')}</span>
      )}
    </li>
  );
}
