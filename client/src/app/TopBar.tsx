import { Link } from 'wouter';
import { PartMenu, PartTabs } from './Parts';
import { ShortcutsHelp } from './ShortcutsHelp';
import { SurroundSwitch } from './SurroundSwitch';

/**
 * The one head over all screens: the name, the parts of the application, and what went wrong with what was dropped. A job has the room between
 * for itself; the parts are a menu there.
 */
export function TopBar({
  inJob,
  fault,
  onPlace,
}: {
  inJob: boolean;
  fault: string | null;
  /** Told of the room that a job has in the head. */
  onPlace: (place: HTMLElement | null) => void;
}) {
  return (
    <header
      className={`flex min-w-0 items-center border-b border-line bg-sheet px-5 ${inJob ? 'gap-2' : 'gap-6'}`}
    >
      <Link href="/" className="flex shrink-0 items-center gap-2.5 text-head font-bold" aria-label="Pantomet">
        <svg viewBox="0 0 32 20" width="30" height="19" aria-hidden className="text-accent">
          <path d="M3 1v18M29 1v18M3 10h8M21 10h8" stroke="currentColor" strokeWidth="2.4" fill="none" />
          <path d="M13 10h6" stroke="currentColor" strokeWidth="2.4" strokeDasharray="1.6 1.6" fill="none" />
        </svg>
        {!inJob && 'Pantomet'}
      </Link>
      {inJob ? <PartMenu /> : <PartTabs />}
      <div
        ref={onPlace}
        className={`@container flex h-full min-w-0 items-center gap-3 ${inJob ? 'flex-1' : 'hidden'}`}
      />
      {(fault || !inJob) && (
        <span className="min-w-0 flex-1">
          {fault && (
            <span role="alert" className="text-breaks">
              {fault}
            </span>
          )}
        </span>
      )}
      <div className="flex shrink-0 items-center gap-1">
        <SurroundSwitch small={inJob} />
        <ShortcutsHelp small={inJob} />
      </div>
    </header>
  );
}
