import { type ReactNode } from 'react';
import { Link } from 'wouter';
import { t } from '../texts/texts';
import { ShortcutsHelp } from './ShortcutsHelp';
import { SurroundSwitch } from './SurroundSwitch';

/** The name, the parts of the application, and what went wrong with what was dropped. */
export function TopBar({ inJob, fault }: { inJob: boolean; fault: string | null }) {
  return (
    <header className="flex items-center gap-6 border-b border-line bg-sheet px-5">
      <Link href="/" className="flex items-center gap-2.5 text-head font-bold">
        <svg viewBox="0 0 32 20" width="30" height="19" aria-hidden className="text-accent">
          <path d="M3 1v18M29 1v18M3 10h8M21 10h8" stroke="currentColor" strokeWidth="2.4" fill="none" />
          <path d="M13 10h6" stroke="currentColor" strokeWidth="2.4" strokeDasharray="1.6 1.6" fill="none" />
        </svg>
        Pantomet
      </Link>
      <nav aria-label={t('app.main')} className="flex h-full items-stretch gap-1">
        <Tab href="/" on={inJob || location.pathname === '/'}>
          {t('app.jobs')}
        </Tab>
        <Tab href="/pictures" on={location.pathname === '/pictures'}>
          {t('app.pictures')}
        </Tab>
        <Tab href="/destinations" on={location.pathname.startsWith('/destinations')}>
          {t('app.destinations')}
        </Tab>
        <Tab href="/page-checks" on={location.pathname.startsWith('/page-checks')}>
          {t('app.pageChecks')}
        </Tab>
        <Tab href="/folders" on={location.pathname.startsWith('/folders')}>
          {t('app.folders')}
        </Tab>
      </nav>
      <span className="flex-1">
        {fault && (
          <span role="alert" className="text-breaks">
            {fault}
          </span>
        )}
      </span>
      <SurroundSwitch />
      <ShortcutsHelp />
    </header>
  );
}

function Tab({ href, on, children }: { href: string; on: boolean; children: ReactNode }) {
  return (
    <Link
      href={href}
      aria-current={on ? 'page' : undefined}
      className={`flex items-center border-b-2 px-3 ${on ? 'border-accent font-semibold' : 'border-transparent text-ink-2 hover:text-ink'}`}
    >
      {children}
    </Link>
  );
}
