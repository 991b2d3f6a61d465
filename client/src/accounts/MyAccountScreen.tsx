import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, take } from '../api/client';
import { useMe } from '../api/me';
import { Button } from '../design/Button';
import { Notice } from '../design/Notice';
import { t } from '../texts/texts';
import { GateField, GateFault } from './Gate';
import { roleDoes, roleName } from './roles';
import { Tokens } from './Tokens';
import { SecondStep } from './SecondStep';

/** One's own account: password, second step, tokens, and the way out of everywhere. */
export function MyAccountScreen() {
  const cache = useQueryClient();
  const me = useMe().data;
  const out = useMutation({
    mutationFn: () => take(api.POST('/api/me/sign-out-everywhere')),
    onSettled: () => void cache.resetQueries(),
  });
  if (!me) return null;
  if (me.state !== 'signedIn' || me.role === null) return <Notice>{t('accounts.nobodySignsIn')}</Notice>;
  return (
    <div className="h-full overflow-y-auto px-5 pt-4 pb-8">
      <div className="mx-auto max-w-[980px]">
        <h1 className="text-head font-semibold">{me.name}</h1>
        <p className="mt-1 text-ink-2">
          {me.signInName}. {roleName(me.role)}: {roleDoes(me.role)}.
        </p>
        <div className="mt-4 grid grid-cols-2 gap-5 max-md:grid-cols-1">
          <ChangePassword />
          <SecondStep isOn={me.twoStep} />
        </div>
        <Tokens />
        <section className="mt-5 border border-line bg-sheet px-5 py-4">
          <h2 className="font-semibold">{t('accounts.signOutEverywhere')}</h2>
          <p className="mt-1 text-ink-2">{t('accounts.signOutEverywhereEnds')}</p>
          <Button className="mt-3" onClick={() => out.mutate()} disabled={out.isPending}>
            {t('accounts.signOutEverywhere')}
          </Button>
          <GateFault fault={out.error} />
        </section>
      </div>
    </div>
  );
}

function ChangePassword() {
  const [current, setCurrent] = useState('');
  const [next, setNext] = useState('');
  const change = useMutation({
    mutationFn: () => take(api.PUT('/api/me/password', { body: { current, new: next } })),
    onSuccess: () => {
      setCurrent('');
      setNext('');
    },
  });
  return (
    <form
      aria-label={t('accounts.changePassword')}
      className="flex flex-col gap-3 border border-line bg-sheet px-5 py-4"
      onSubmit={(event) => {
        event.preventDefault();
        change.mutate();
      }}
    >
      <h2 className="font-semibold">{t('accounts.changePassword')}</h2>
      <GateField
        name={t('accounts.currentPassword')}
        type="password"
        value={current}
        onSet={setCurrent}
        autoComplete="current-password"
      />
      <GateField
        name={t('accounts.newPassword')}
        type="password"
        hint={t('accounts.passwordRule')}
        value={next}
        onSet={setNext}
        autoComplete="new-password"
      />
      <GateFault fault={change.error} />
      {change.isSuccess && next === '' && <p role="status">{t('accounts.passwordChanged')}</p>}
      <div>
        <Button type="submit" disabled={current === '' || next === '' || change.isPending}>
          {t('accounts.changePassword')}
        </Button>
      </div>
    </form>
  );
}
