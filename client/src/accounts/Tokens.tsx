import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, take } from '../api/client';
import type { components } from '../api/schema';
import { Button } from '../design/Button';
import { moment } from '../texts/numbers';
import { t } from '../texts/texts';
import { GateFault } from './Gate';
import { ShownOnce } from '../design/ShownOnce';

type Scope = components['schemas']['TokenScope'];
type Token = components['schemas']['AccessTokenView'];

const scopes: readonly { scope: Scope; name: string; does: string }[] = [
  { scope: 'read', name: t('accounts.scopeRead'), does: t('accounts.scopeReadDoes') },
  { scope: 'command', name: t('accounts.scopeCommand'), does: t('accounts.scopeCommandDoes') },
  { scope: 'publish', name: t('accounts.scopePublish'), does: t('accounts.scopePublishDoes') },
];

/** One's tokens for programs: made with scopes, shown once, revoked. */
export function Tokens() {
  const cache = useQueryClient();
  const [made, setMade] = useState<string | null>(null);
  const tokens = useQuery({
    queryKey: ['tokens'],
    queryFn: ({ signal }) => take(api.GET('/api/me/tokens', { signal })),
  });
  const again = () => void cache.invalidateQueries({ queryKey: ['tokens'] });
  const revoke = useMutation({
    mutationFn: (id: string) => take(api.DELETE('/api/me/tokens/{id}', { params: { path: { id } } })),
    onSettled: again,
  });
  return (
    <section className="mt-5 border border-line bg-sheet px-5 py-4" aria-label={t('accounts.tokens')}>
      <h2 className="font-semibold">{t('accounts.tokens')}</h2>
      <p className="mt-1 text-ink-2">{t('accounts.tokensExplained')}</p>
      <NewToken
        onMade={(token) => {
          setMade(token);
          again();
        }}
      />
      {made !== null && (
        <ShownOnce says={t('accounts.copyTheToken')} value={made} onClose={() => setMade(null)} />
      )}
      {tokens.data?.length === 0 && <p className="mt-3">{t('accounts.noTokens')}</p>}
      {tokens.data && tokens.data.length > 0 && (
        <ul className="mt-3 border-t border-line">
          {tokens.data.map((token) => (
            <TokenLine key={token.id} token={token} onRevoke={() => revoke.mutate(token.id)} />
          ))}
        </ul>
      )}
      <GateFault fault={tokens.error ?? revoke.error} />
    </section>
  );
}

function TokenLine({ token, onRevoke }: { token: Token; onRevoke: () => void }) {
  return (
    <li className="flex flex-wrap items-center gap-x-4 border-b border-line py-1.5">
      <span className="min-w-32 flex-1 font-semibold wrap-anywhere">{token.name}</span>
      <span>
        {scopes
          .filter(({ scope }) => token.scopes.includes(scope))
          .map(({ name }) => name)
          .join(', ')}
      </span>
      <span className="text-ink-2">
        {token.usedAt === null
          ? t('accounts.neverUsed')
          : t('accounts.usedLast', { at: moment(token.usedAt) })}
        {', '}
        {t('accounts.expires', { at: moment(token.expiresAt) })}
      </span>
      <Button className="h-7!" onClick={onRevoke}>
        {t('accounts.revoke')}
      </Button>
    </li>
  );
}

function NewToken({ onMade }: { onMade: (token: string) => void }) {
  const [name, setName] = useState('');
  const [chosen, setChosen] = useState<readonly Scope[]>(['read']);
  const [days, setDays] = useState('90');
  const make = useMutation({
    mutationFn: () =>
      take(api.POST('/api/me/tokens', { body: { name, scopes: [...chosen], days: Number(days) } })),
    onSuccess: ({ token }) => {
      setName('');
      onMade(token);
    },
  });
  const box = 'mt-1 h-8 rounded-md border border-line bg-sheet px-2 hover:border-ink-2';
  return (
    <form
      className="mt-3"
      onSubmit={(event) => {
        event.preventDefault();
        make.mutate();
      }}
    >
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <label className="flex min-w-48 flex-1 flex-col">
          <span>{t('accounts.tokenName')}</span>
          <input value={name} onChange={(event) => setName(event.target.value)} className={box} />
        </label>
        <fieldset className="flex gap-4 pb-1.5">
          <legend className="mb-1.5">{t('accounts.scopes')}</legend>
          {scopes.map(({ scope, name: shown, does }) => (
            <label key={scope} className="flex items-center gap-1.5" title={does}>
              <input
                type="checkbox"
                className="size-4 accent-(--pm-accent)"
                checked={chosen.includes(scope)}
                onChange={(event) =>
                  setChosen(event.target.checked ? [...chosen, scope] : chosen.filter((one) => one !== scope))
                }
              />
              {shown}
            </label>
          ))}
        </fieldset>
        <label className="flex w-20 flex-col">
          <span>{t('accounts.days')}</span>
          <input
            inputMode="numeric"
            value={days}
            onChange={(event) => setDays(event.target.value)}
            className={`${box} text-right`}
          />
        </label>
        <Button type="submit" disabled={name.trim() === '' || make.isPending}>
          {t('accounts.makeToken')}
        </Button>
      </div>
      <GateFault fault={make.error} />
    </form>
  );
}
