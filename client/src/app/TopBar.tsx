import { Link } from 'wouter';
import { AccountMenu } from '../accounts/AccountMenu';
import { ProductSign } from '../design/ProductSign';
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
      className={`flex min-h-11 min-w-0 items-center border-b border-line bg-sheet px-5 max-md:flex-wrap max-md:px-3 ${inJob ? 'gap-2' : 'gap-6 max-[900px]:gap-2'}`}
    >
      <Link href="/" className="flex shrink-0 items-center gap-2.5 text-head font-bold" aria-label="Pantomet">
        <ProductSign />
        {!inJob && 'Pantomet'}
      </Link>
      {/* Where the window is narrow, the parts are a menu everywhere. */}
      {!inJob && (
        <div className="h-[43px] max-[900px]:hidden">
          <PartTabs />
        </div>
      )}
      <div className={inJob ? '' : 'min-[901px]:hidden'}>
        <PartMenu />
      </div>
      <div
        ref={onPlace}
        className={`@container flex min-h-[43px] min-w-0 items-center gap-3 ${inJob ? 'flex-1 max-md:order-last max-md:basis-full' : 'hidden'}`}
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
      <div className="ml-auto flex shrink-0 items-center gap-1">
        <AccountMenu small={inJob} />
        <SurroundSwitch small={inJob} />
        <ShortcutsHelp small={inJob} />
      </div>
    </header>
  );
}
