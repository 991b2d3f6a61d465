import { useMutation, useQueryClient } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { Link, useLocation } from 'wouter';
import { api, take } from '../api/client';
import { useMe } from '../api/me';
import { MenuContent, menuItem, MenuItem } from '../design/Menu';
import { t } from '../texts/texts';

/** Who is signed in, and what is about them; where nobody signs in, the log alone. */
export function AccountMenu({ small }: { /** True where only its sign has room. */ small: boolean }) {
  const me = useMe().data;
  const cache = useQueryClient();
  const [, go] = useLocation();
  const signOut = useMutation({
    mutationFn: () => take(api.POST('/api/me/sign-out')),
    onSettled: () => {
      go('/');
      void cache.resetQueries();
    },
  });
  if (!me) return null;
  if (me.state !== 'signedIn' && me.state !== 'guest')
    return small ? null : (
      <Link href="/log" className="px-2 py-1 text-ink-2 hover:text-ink max-md:hidden">
        {t('accounts.log')}
      </Link>
    );
  const owner = me.rights.includes('administer');
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        aria-label={t('accounts.account')}
        title={me.name ?? undefined}
        className="flex h-7 max-w-48 items-center gap-1.5 rounded-md px-2 hover:bg-sheet-2"
      >
        <svg viewBox="0 0 14 14" width="14" height="14" aria-hidden className="shrink-0 text-ink-2">
          <circle cx="7" cy="4.4" r="2.9" fill="none" stroke="currentColor" strokeWidth="1.4" />
          <path d="M1.6 13a5.4 5.4 0 0 1 10.8 0" fill="none" stroke="currentColor" strokeWidth="1.4" />
        </svg>
        {!small && (
          <span className="truncate max-md:sr-only">
            {me.role === 'viewer' ? t('accounts.nameAsViewer', { name: me.name ?? '' }) : me.name}
          </span>
        )}
      </DropdownMenu.Trigger>
      <MenuContent align="end">
        {me.state === 'signedIn' && (
          <DropdownMenu.Item asChild>
            <Link href="/account" className={menuItem}>
              {t('accounts.myAccount')}
            </Link>
          </DropdownMenu.Item>
        )}
        {owner &&
          (['people', 'log'] as const).map((part) => (
            <DropdownMenu.Item key={part} asChild>
              <Link href={`/${part}`} className={menuItem}>
                {t(`accounts.${part}`)}
              </Link>
            </DropdownMenu.Item>
          ))}
        <MenuItem act={() => signOut.mutate()}>{t('accounts.signOut')}</MenuItem>
      </MenuContent>
    </DropdownMenu.Root>
  );
}
