import { useEffect, useState } from 'react';
import { Button } from '../design/Button';
import { weight } from '../design/figures';
import { ProgressBar } from '../design/ProgressBar';
import { type Arrival, isFinished } from './intake';
import { t } from '../texts/texts';

const stateWords: Record<Arrival['state'], string> = {
  waiting: t('pictures.waiting'),
  delivery: t('pictures.beingSent'),
  checking: t('pictures.beingChecked'),
  kept: t('pictures.added'),
  already: t('pictures.alreadyInTheLibrary'),
  refused: t('pictures.refused'),
  stopped: t('pictures.stopped'),
};

/** When all simply arrived, the strip leaves by itself after this, in milliseconds. */
const leavesAfter = 6000;

/** What is being added, and what came of it: one line, and the list of files when it is asked for. */
export function AddingPictures({
  arrivals,
  onStop,
  onClear,
}: {
  arrivals: Arrival[];
  onStop: () => void;
  onClear: () => void;
}) {
  const [listed, setListed] = useState(false);
  const open = arrivals.filter((one) => !isFinished(one)).length;
  // When all is done only what did not simply arrive is still worth a line.
  const told = open > 0 ? arrivals : arrivals.filter((one) => one.state !== 'kept' || one.words);
  const isWell = arrivals.length > 0 && open === 0 && told.length === 0;
  useEffect(() => {
    if (!isWell) return;
    const timer = setTimeout(onClear, leavesAfter);
    return () => clearTimeout(timer);
  }, [isWell, onClear]);
  if (arrivals.length === 0) return null;
  return (
    <section aria-label={t('pictures.addingPictures')} className="border-t border-line bg-sheet">
      <header className="flex min-h-9 items-center gap-3 px-5 py-1">
        <Summary arrivals={arrivals} open={open} told={told} />
        <span className="flex-1" />
        {told.length > 0 && (
          <Button className="h-7!" aria-expanded={listed} onClick={() => setListed(!listed)}>
            {listed ? t('pictures.hideFiles') : t('pictures.showFiles')}
          </Button>
        )}
        <Button className="h-7!" onClick={open > 0 ? onStop : onClear}>
          {open > 0 ? t('pictures.stop') : t('pictures.close')}
        </Button>
      </header>
      {listed && told.length > 0 && (
        <ul className="max-h-44 overflow-y-auto border-t border-line px-5 py-2">
          {[...told].reverse().map((one) => (
            <ArrivalLine key={one.key} one={one} />
          ))}
        </ul>
      )}
    </section>
  );
}

/** How far it is; the last thing that somebody should know is said at once. */
function Summary({ arrivals, open, told }: { arrivals: Arrival[]; open: number; told: Arrival[] }) {
  const refused = arrivals.filter((one) => one.state === 'refused').length;
  const done = arrivals.length - open;
  const worth = told.findLast((one) => isFinished(one) && one.words);
  return (
    <>
      <h2 aria-live="polite" className="shrink-0">
        {open > 0
          ? t('pictures.adding', { done, all: arrivals.length })
          : t('pictures.addedOf', {
              done: arrivals.length - refused,
              all: arrivals.length,
              refused: refused > 0 ? t('pictures.refusedRefused', { refused }) : '',
            })}
      </h2>
      {open > 0 && (
        <ProgressBar
          label={t('pictures.addingPictures')}
          done={done}
          of={arrivals.length}
          className="w-32 shrink-0"
        />
      )}
      {worth?.words && (
        <p className={worth.state === 'refused' ? 'text-breaks' : 'text-ink-2'}>
          {worth.name}: {worth.words}
        </p>
      )}
    </>
  );
}

function ArrivalLine({ one }: { one: Arrival }) {
  return (
    <li className="grid grid-cols-[minmax(120px,260px)_90px_120px_1fr] items-center gap-3 max-md:grid-cols-[minmax(0,1fr)_auto] py-0.5">
      <span className="wrap-anywhere">{one.name}</span>
      <span className="text-right text-ink-2">{weight(one.bytes)}</span>
      <span className="relative h-1.5 overflow-hidden bg-sheet-2" aria-hidden>
        {one.state === 'checking' ? (
          <span className="working-bar absolute inset-y-0 w-1/4 bg-accent" />
        ) : (
          <span
            className={`absolute inset-y-0 left-0 ${one.state === 'refused' ? 'bg-breaks' : 'bg-accent'}`}
            style={{ width: `${isFinished(one) ? 100 : (100 * one.sent) / Math.max(1, one.bytes)}%` }}
          />
        )}
      </span>
      <span className={one.state === 'refused' ? 'text-breaks' : 'text-ink-2'}>
        {one.words ?? stateWords[one.state]}
      </span>
    </li>
  );
}
