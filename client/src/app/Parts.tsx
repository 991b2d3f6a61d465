import { DropdownMenu } from 'radix-ui';
import { Link } from 'wouter';
import { type Right, useMe } from '../api/me';
import { MenuContent, menuItem } from '../design/Menu';
import { t } from '../texts/texts';

/** The parts of the application, some of which a role has or has not. */
const all: readonly { href: string; name: string; right?: Right }[] = [
  { href: '/', name: t('app.jobs') },
  { href: '/pictures', name: t('app.pictures') },
  { href: '/destinations', name: t('app.destinations') },
  { href: '/page-checks', name: t('app.pageChecks'), right: 'checkPages' },
  { href: '/folders', name: t('app.folders'), right: 'useFolders' },
];

const isAt = (href: string) =>
  href === '/' ? location.pathname === '/' : location.pathname.startsWith(href);

function useParts() {
  const rights = useMe().data?.rights ?? [];
  return all.filter(({ right }) => right === undefined || rights.includes(right));
}

/** All parts side by side. */
export function PartTabs() {
  const parts = useParts();
  return (
    <nav aria-label={t('app.main')} className="flex h-full items-stretch gap-1">
      {parts.map(({ href, name }) => (
        <Link
          key={href}
          href={href}
          aria-current={isAt(href) ? 'page' : undefined}
          className={`flex items-center border-b-2 px-3 ${isAt(href) ? 'border-accent font-semibold' : 'border-transparent text-ink-2 hover:text-ink'}`}
        >
          {name}
        </Link>
      ))}
    </nav>
  );
}

/** The parts as a menu, where a job has the head. */
export function PartMenu() {
  const parts = useParts();
  return (
    <nav aria-label={t('app.main')}>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="flex h-7 items-center gap-1.5 rounded-md px-2 text-accent hover:bg-sheet-2">
          {parts.find(({ href }) => isAt(href))?.name ?? t('app.jobs')}
          <svg viewBox="0 0 8 6" width="8" height="6" aria-hidden>
            <path d="M1 1.5 4 4.5 7 1.5" stroke="currentColor" strokeWidth="1.4" fill="none" />
          </svg>
        </DropdownMenu.Trigger>
        <MenuContent align="start">
          {parts.map(({ href, name }) => (
            <DropdownMenu.Item key={href} asChild>
              <Link href={href} className={menuItem}>
                {name}
              </Link>
            </DropdownMenu.Item>
          ))}
        </MenuContent>
      </DropdownMenu.Root>
    </nav>
  );
}
