import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useLocation } from 'wouter';
import { api, take } from '../api/client';
import type { components } from '../api/schema';
import { Button } from '../design/Button';
import { t } from '../texts/texts';
import { Gate, GateFault, GateField } from './Gate';
import { roleName } from './roles';

type Purpose = components['schemas']['LinkPurpose'];

/** What a link is for: an account, a new password, or one job to look at. Its secret stands behind the "#" and is sent in no address. */
export function LinkScreen({ place }: { place: string }) {
  const [secret] = useState(() => location.hash.slice(1));
  const purpose = useQuery({
    queryKey: ['link', secret],
    queryFn: ({ signal }) => take(api.POST('/api/links/purpose', { signal, body: { secret } })),
    retry: false,
  });
  const [, go] = useLocation();
  if (purpose.isPending) return <Gate title={t('accounts.checkingTheLink')}>{null}</Gate>;
  if (purpose.isError)
    return (
      <Gate title={t('accounts.signIn')}>
        <GateFault fault={purpose.error} />
        <Button onClick={() => go('/')}>{t('accounts.goToSignIn')}</Button>
      </Gate>
    );
  if (place === '/guest') return <ComeAsGuest secret={secret} name={purpose.data.name} />;
  return place === '/new-password' ? (
    <NewPassword secret={secret} name={purpose.data.signInName ?? ''} />
  ) : (
    <MakeAccount secret={secret} purpose={purpose.data} />
  );
}

/** Whoever has come in by a link is somebody else than before: everything is asked anew. */
function useComeIn() {
  const cache = useQueryClient();
  const [, go] = useLocation();
  return (to: string) => {
    go(to, { replace: true });
    void cache.resetQueries();
  };
}

function MakeAccount({ secret, purpose }: { secret: string; purpose: Purpose }) {
  const comeIn = useComeIn();
  const [name, setName] = useState(purpose.name);
  const [signInName, setSignInName] = useState('');
  const [password, setPassword] = useState('');
  const make = useMutation({
    mutationFn: () =>
      take(api.POST('/api/accounts', { body: { secret, signInName: signInName.trim(), name, password } })),
    onSuccess: () => comeIn('/'),
  });
  const owner = purpose.role === 'owner';
  return (
    <Gate
      title={owner ? t('accounts.becomeOwner') : t('accounts.makeYourAccount')}
      onSubmit={() => make.mutate()}
    >
      <p className="text-ink-2">
        {owner || purpose.role === null
          ? t('accounts.ownersDecide')
          : t('accounts.youAreInvitedAs', { role: roleName(purpose.role) })}
      </p>
      <GateField name={t('accounts.yourName')} value={name} onSet={setName} autoComplete="name" first />
      <GateField
        name={t('accounts.signInName')}
        value={signInName}
        onSet={setSignInName}
        autoComplete="username"
      />
      <GateField
        name={t('accounts.password')}
        type="password"
        hint={t('accounts.passwordRule')}
        value={password}
        onSet={setPassword}
        autoComplete="new-password"
      />
      <GateFault fault={make.error} />
      <Button kind="main" type="submit" className="h-9!" disabled={make.isPending}>
        {owner ? t('accounts.becomeOwner') : t('accounts.makeAccount')}
      </Button>
    </Gate>
  );
}

function NewPassword({ secret, name }: { secret: string; name: string }) {
  const comeIn = useComeIn();
  const [password, setPassword] = useState('');
  const set = useMutation({
    mutationFn: () => take(api.POST('/api/accounts/password', { body: { secret, password } })),
  });
  if (set.isSuccess)
    return (
      <Gate title={t('accounts.passwordIsSet')} onSubmit={() => comeIn('/')}>
        <Button kind="main" type="submit">
          {t('accounts.goToSignIn')}
        </Button>
      </Gate>
    );
  return (
    <Gate title={t('accounts.setANewPasswordFor', { name })} onSubmit={() => set.mutate()}>
      <GateField
        name={t('accounts.newPassword')}
        type="password"
        hint={t('accounts.passwordRule')}
        value={password}
        onSet={setPassword}
        autoComplete="new-password"
        first
      />
      <GateFault fault={set.error} />
      <Button kind="main" type="submit" className="h-9!" disabled={set.isPending}>
        {t('accounts.setPassword')}
      </Button>
    </Gate>
  );
}

function ComeAsGuest({ secret, name: given }: { secret: string; name: string }) {
  const comeIn = useComeIn();
  const [name, setName] = useState(given);
  const come = useMutation({
    mutationFn: () => take(api.POST('/api/guests', { body: { secret, name } })),
    onSuccess: () => comeIn('/'),
  });
  return (
    <Gate title={t('accounts.picturesForYou')} onSubmit={() => come.mutate()}>
      <GateField
        name={t('accounts.howAreYouCalled')}
        value={name}
        onSet={setName}
        autoComplete="name"
        first
      />
      <GateFault fault={come.error} />
      <Button kind="main" type="submit" className="h-9!" disabled={come.isPending}>
        {t('accounts.lookAtThePictures')}
      </Button>
    </Gate>
  );
}
