import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, take } from '../api/client';
import { Button } from '../design/Button';
import { t } from '../texts/texts';
import { Gate, GateFault, GateField } from './Gate';

/** Signing in with name and password, and with a code where the account has a second step. */
export function SignInScreen({ noOwner }: { noOwner: boolean }) {
  const cache = useQueryClient();
  const [signInName, setName] = useState('');
  const [password, setPassword] = useState('');
  const [needsCode, setNeedsCode] = useState(false);
  const signIn = useMutation({
    mutationFn: () => take(api.POST('/api/sign-in', { body: { signInName: signInName.trim(), password } })),
    onSuccess: (result) => {
      setPassword('');
      if (result.needsCode) setNeedsCode(true);
      else void cache.resetQueries();
    },
  });
  if (noOwner)
    return (
      <Gate title={t('accounts.noOwnerYet')}>
        <p>{t('accounts.openTheAddress')}</p>
      </Gate>
    );
  if (needsCode) return <SecondStep onBack={() => setNeedsCode(false)} />;
  return (
    <Gate title={t('accounts.signIn')} onSubmit={() => signIn.mutate()}>
      <GateField
        name={t('accounts.signInName')}
        value={signInName}
        onSet={setName}
        autoComplete="username"
        first
      />
      <GateField
        name={t('accounts.password')}
        type="password"
        value={password}
        onSet={setPassword}
        autoComplete="current-password"
      />
      <GateFault fault={signIn.error} />
      <Button
        kind="main"
        type="submit"
        className="h-9!"
        disabled={signInName.trim() === '' || password === '' || signIn.isPending}
      >
        {t('accounts.signIn')}
      </Button>
      <p className="text-small text-ink-2">{t('accounts.forgotten')}</p>
    </Gate>
  );
}

function SecondStep({ onBack }: { onBack: () => void }) {
  const cache = useQueryClient();
  const [code, setCode] = useState('');
  const send = useMutation({
    mutationFn: () => take(api.POST('/api/sign-in/code', { body: { code } })),
    onSuccess: () => void cache.resetQueries(),
  });
  return (
    <Gate title={t('accounts.theSecondStep')} onSubmit={() => send.mutate()}>
      <GateField
        name={t('accounts.code')}
        hint={t('accounts.theAppShowsACode')}
        value={code}
        onSet={setCode}
        autoComplete="one-time-code"
        first
      />
      <GateFault fault={send.error} />
      <Button kind="main" type="submit" className="h-9!" disabled={code.trim() === '' || send.isPending}>
        {t('accounts.continue')}
      </Button>
      <Button onClick={onBack}>{t('accounts.otherAccount')}</Button>
    </Gate>
  );
}
