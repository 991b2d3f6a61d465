import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, take } from '../api/client';
import { type LinkView, type Role, useMe } from '../api/me';
import type { components } from '../api/schema';
import { Button } from '../design/Button';
import { Notice } from '../design/Notice';
import { moment } from '../texts/numbers';
import { t } from '../texts/texts';
import { LinkMade } from './LinkMade';
import { PersonLine } from './PersonLine';
import { Reach } from './Reach';
import { roleDoes, roleName, roles } from './roles';

type Made = components['schemas']['LinkMade'];

/** Who may do what: people, invitations, and who reaches into the machine. */
export function PeopleScreen() {
  const cache = useQueryClient();
  const me = useMe().data;
  const [made, setMade] = useState<Made | null>(null);
  const view = useQuery({
    queryKey: ['people'],
    queryFn: ({ signal }) => take(api.GET('/api/people', { signal })),
    staleTime: 0,
  });
  const again = () => cache.invalidateQueries({ queryKey: ['people'] });
  if (view.isPending) return <Notice>{t('accounts.loading')}</Notice>;
  if (view.isError) return <Notice>{view.error.message}</Notice>;
  const { people, links, access } = view.data;
  return (
    <div className="h-full overflow-y-auto px-5 pt-4 pb-8">
      <div className="mx-auto max-w-[980px]">
        <h1 className="text-head font-semibold">{t('accounts.people')}</h1>
        {me?.state === 'local' && <p className="mt-2 max-w-prose">{t('accounts.nobodySignsIn')}</p>}
        {me?.state === 'signedIn' && (
          <Invite
            onMade={(link) => {
              setMade(link);
              void again();
            }}
          />
        )}
        {made && <LinkMade key={made.link.id} made={made} onClose={() => setMade(null)} />}
        {people.length > 0 && (
          <ul className="mt-4 border-t border-line bg-sheet" aria-label={t('accounts.people')}>
            {people.map((person) => (
              <PersonLine
                key={person.id}
                person={person}
                isMe={person.id === me?.id}
                onChanged={again}
                onLink={setMade}
              />
            ))}
          </ul>
        )}
        {links.length > 0 && <Links links={links} onChanged={again} />}
        <Reach access={access} onChanged={again} />
      </div>
    </div>
  );
}

function Invite({ onMade }: { onMade: (made: Made) => void }) {
  const [name, setName] = useState('');
  const [role, setRole] = useState<Role>('editor');
  const invite = useMutation({
    mutationFn: () => take(api.POST('/api/people/invitations', { body: { name, role, days: 7 } })),
    onSuccess: (made) => {
      setName('');
      onMade(made);
    },
  });
  return (
    <form
      aria-label={t('accounts.inviteSomebody')}
      className="mt-3 border border-line bg-sheet px-4 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        invite.mutate();
      }}
    >
      <div className="flex flex-wrap items-end gap-4">
        <label className="flex min-w-48 flex-1 flex-col gap-1">
          <span>{t('accounts.name')}</span>
          <input
            value={name}
            onChange={(event) => setName(event.target.value)}
            className="h-8 rounded-md border border-line bg-sheet px-2 hover:border-ink-2"
          />
        </label>
        <label className="flex flex-col gap-1">
          <span>{t('accounts.role')}</span>
          <select
            value={role}
            onChange={(event) => setRole(event.target.value as Role)}
            className="h-8 rounded-md border border-line bg-sheet px-2"
          >
            {roles.map((one) => (
              <option key={one} value={one}>
                {roleName(one)}
              </option>
            ))}
          </select>
        </label>
        <Button kind="main" type="submit" disabled={name.trim() === '' || invite.isPending}>
          {t('accounts.invite')}
        </Button>
      </div>
      <p className="mt-2 text-ink-2">
        {roleName(role)}: {roleDoes(role)}
      </p>
      {invite.isError && (
        <p role="alert" className="mt-2 text-breaks">
          {invite.error.message}
        </p>
      )}
    </form>
  );
}

/** Links that still work; what is behind them was shown once. */
function Links({ links, onChanged }: { links: readonly LinkView[]; onChanged: () => void }) {
  const revoke = useMutation({
    mutationFn: (id: string) =>
      take(api.DELETE('/api/people/invitations/{id}', { params: { path: { id } } })),
    onSettled: onChanged,
  });
  return (
    <section className="mt-5" aria-label={t('accounts.openInvitations')}>
      <h2 className="font-semibold">{t('accounts.openInvitations')}</h2>
      <ul className="mt-1.5 border-t border-line bg-sheet">
        {links.map((one) => (
          <li key={one.id} className="flex items-center gap-4 border-b border-line px-4 py-2">
            <span className="min-w-0 flex-1 wrap-anywhere">
              {one.kind === 'password'
                ? t('accounts.passwordLinkOf', { name: one.name, by: one.createdBy })
                : t('accounts.invitationTo', {
                    name: one.name,
                    role: roleName(one.role),
                    by: one.createdBy,
                  })}
            </span>
            <span className="text-ink-2">{t('accounts.expires', { at: moment(one.expiresAt) })}</span>
            <Button className="h-7!" onClick={() => revoke.mutate(one.id)}>
              {t('accounts.revoke')}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
