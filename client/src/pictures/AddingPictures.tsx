import { Button } from '../design/Button';
import { weight } from '../design/figures';
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

/** What is being added, and what came of it. */
export function AddingPictures({
  arrivals,
  onStop,
  onClear,
}: {
  arrivals: Arrival[];
  onStop: () => void;
  onClear: () => void;
}) {
  if (arrivals.length === 0) return null;
  const open = arrivals.filter((one) => !isFinished(one));
  // When all is done only what did not simply arrive is still worth a line.
  const told = open.length > 0 ? arrivals : arrivals.filter((one) => one.state !== 'kept' || one.words);
  const refused = arrivals.filter((one) => one.state === 'refused').length;
  return (
    <section
      aria-label={t('pictures.addingPictures')}
      className="flex max-h-52 flex-col border-t border-line bg-sheet"
    >
      <header className="flex items-center gap-3 px-4 py-2">
        <h2 aria-live="polite">
          {open.length > 0
            ? t('pictures.adding', {
                done: arrivals.length - open.length,
                all: arrivals.length,
              })
            : t('pictures.addedOf', {
                done: arrivals.length - refused,
                all: arrivals.length,
                refused: refused > 0 ? t('pictures.refusedRefused', { refused }) : '',
              })}
        </h2>
        <span className="flex-1" />
        {open.length > 0 ? (
          <Button onClick={onStop}>{t('pictures.stop')}</Button>
        ) : (
          <Button onClick={onClear}>{t('pictures.closeTheList')}</Button>
        )}
      </header>
      <ul className={`overflow-y-auto px-4 ${told.length > 0 ? 'pb-3' : ''}`}>
        {[...told].reverse().map((one) => (
          <li
            key={one.key}
            className="grid grid-cols-[minmax(120px,260px)_90px_120px_1fr] items-center gap-3 py-0.5"
          >
            <span className="truncate" title={one.name}>
              {one.name}
            </span>
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
        ))}
      </ul>
    </section>
  );
}
