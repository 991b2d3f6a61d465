import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, take } from '../api/client';
import type { Role } from '../api/me';
import type { components } from '../api/schema';
import { Button } from '../design/Button';
import { Menu, MenuItem } from '../design/Menu';
import { useAhead } from '../design/useAhead';
import { moment } from '../texts/numbers';
import { t } from '../texts/texts';
import { roleName, roles } from './roles';

type Person = components['schemas']['PersonView'];
type Made = components['schemas']['LinkMade'];

/** One person: name, role, when they were here, and what an owner can do about them. */
export function PersonLine({
  person,
  isMe,
  onChanged,
  onLink,
}: {
  person: Person;
  isMe: boolean;
  onChanged: () => Promise<void>;
  onLink: (made: Made) => void;
}) {
  const [sure, setSure] = useState(false);
  const params = { path: { id: person.id } };
  const change = useMutation({ mutationFn: (act: () => Promise<unknown>) => act(), onSettled: onChanged });
  const [shownRole, chooseRole] = useAhead(person.role);
  return (
    <li className="border-b border-line px-4 py-2">
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_auto_auto] items-center gap-x-4 max-md:grid-cols-[minmax(0,1fr)_auto_auto]">
        <div className="min-w-0">
          <p className="font-semibold wrap-anywhere">
            {person.name} {isMe && <span className="font-normal text-ink-2">({t('accounts.you')})</span>}
          </p>
          <p className="wrap-anywhere text-ink-2">{person.signInName}</p>
        </div>
        <Facts person={person} />
        <select
          aria-label={t('accounts.roleOfPerson', { name: person.name })}
          value={shownRole ?? undefined}
          onChange={(event) => {
            const role = event.target.value as Role;
            chooseRole(role, () =>
              change.mutateAsync(() => take(api.PUT('/api/people/{id}/role', { params, body: { role } }))),
            );
          }}
          className="h-8 rounded-md border border-line bg-sheet px-2"
        >
          {roles.map((role) => (
            <option key={role} value={role}>
              {roleName(role)}
            </option>
          ))}
        </select>
        <Menu label={t('accounts.moreFor', { name: person.name })}>
          <MenuItem
            act={() =>
              change.mutate(async () =>
                onLink(await take(api.POST('/api/people/{id}/password-link', { params }))),
              )
            }
          >
            {t('accounts.passwordLink')}
          </MenuItem>
          <MenuItem act={() => change.mutate(() => take(api.POST('/api/people/{id}/sign-out', { params })))}>
            {t('accounts.signPersonOut')}
          </MenuItem>
          <MenuItem act={() => setSure(true)}>{t('accounts.removePerson')}</MenuItem>
        </Menu>
      </div>
      {sure && (
        <p className="mt-2 flex flex-wrap items-center gap-3">
          {t('accounts.removePersonNamed', { name: person.name })}
          <Button onClick={() => change.mutate(() => take(api.DELETE('/api/people/{id}', { params })))}>
            {t('accounts.removePerson')}
          </Button>
          <Button onClick={() => setSure(false)}>{t('accounts.cancel')}</Button>
        </p>
      )}
      {change.isError && (
        <p role="alert" className="mt-1 text-breaks">
          {change.error.message}
        </p>
      )}
    </li>
  );
}

function Facts({ person }: { person: Person }) {
  return (
    <p className="text-ink-2 max-md:hidden">
      {person.signedInAt === null
        ? t('accounts.neverSignedIn')
        : t('accounts.signedInLast', { at: moment(person.signedInAt) })}
      {person.twoStep && `, ${t('accounts.twoStep')}`}
      {person.lockedUntil !== null && (
        <span className="block text-concedes">
          {t('accounts.locked', { at: moment(person.lockedUntil) })}
        </span>
      )}
    </p>
  );
}
