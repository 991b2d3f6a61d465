import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState, type FormEvent, type ReactNode } from 'react';
import { api, take } from '../api/client';
import type { components } from '../api/schema';
import { Button } from '../design/Button';
import { t } from '../texts/texts';
import { GateFault, GateField } from './Gate';

type Beginning = components['schemas']['TwoStepBeginning'];

/** The second step of signing in: set up with an app, switched off with the password. */
export function SecondStep({ isOn }: { isOn: boolean }) {
  const [codes, setCodes] = useState<readonly string[] | null>(null);
  const begin = useMutation({ mutationFn: () => take(api.POST('/api/me/two-step')) });
  if (codes) return <Recovery codes={codes} onClose={() => setCodes(null)} />;
  if (isOn) return <SwitchOff />;
  if (begin.data) return <Confirm beginning={begin.data} onDone={setCodes} onCancel={() => begin.reset()} />;
  return (
    <Part>
      <p>{t('accounts.secondStepIsOff')}</p>
      <GateFault fault={begin.error} />
      <div>
        <Button onClick={() => begin.mutate()} disabled={begin.isPending}>
          {t('accounts.setUpSecondStep')}
        </Button>
      </div>
    </Part>
  );
}

function Part({ children, onSubmit }: { children: ReactNode; onSubmit?: () => void }) {
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onSubmit?.();
  };
  return (
    <form
      aria-label={t('accounts.theSecondStep')}
      onSubmit={submit}
      className="flex flex-col gap-3 border border-line bg-sheet px-5 py-4"
    >
      <h2 className="font-semibold">{t('accounts.theSecondStep')}</h2>
      {children}
    </form>
  );
}

function Confirm({
  beginning,
  onDone,
  onCancel,
}: {
  beginning: Beginning;
  onDone: (codes: readonly string[]) => void;
  onCancel: () => void;
}) {
  const cache = useQueryClient();
  const [code, setCode] = useState('');
  const confirm = useMutation({
    mutationFn: () => take(api.POST('/api/me/two-step/confirm', { body: { code } })),
    onSuccess: (result) => {
      onDone(result.codes);
      void cache.invalidateQueries({ queryKey: ['me'] });
    },
  });
  return (
    <Part onSubmit={() => confirm.mutate()}>
      <p>{t('accounts.scanThis')}</p>
      <div className="flex flex-wrap items-start gap-4">
        <img
          alt={t('accounts.qrCode')}
          src={`data:image/svg+xml;utf8,${encodeURIComponent(beginning.picture)}`}
          className="size-40 bg-white"
        />
        <p className="min-w-40 flex-1">
          <span className="block text-ink-2">{t('accounts.key')}</span>
          <code className="wrap-anywhere select-all">{beginning.key}</code>
        </p>
      </div>
      <GateField
        name={t('accounts.sixDigits')}
        value={code}
        onSet={setCode}
        inputMode="numeric"
        autoComplete="one-time-code"
        first
      />
      <GateFault fault={confirm.error} />
      <div className="flex gap-2">
        <Button kind="main" type="submit" disabled={code.trim() === '' || confirm.isPending}>
          {t('accounts.switchOn')}
        </Button>
        <Button onClick={onCancel}>{t('accounts.cancel')}</Button>
      </div>
    </Part>
  );
}

function Recovery({ codes, onClose }: { codes: readonly string[]; onClose: () => void }) {
  return (
    <Part>
      <p role="status">{t('accounts.keepTheCodes')}</p>
      <ul className="grid grid-cols-2 gap-x-6 gap-y-1" aria-label={t('accounts.recoveryCodes')}>
        {codes.map((code) => (
          <li key={code}>
            <code className="select-all">{code}</code>
          </li>
        ))}
      </ul>
      <div>
        <Button onClick={onClose}>{t('common.close')}</Button>
      </div>
    </Part>
  );
}

function SwitchOff() {
  const cache = useQueryClient();
  const [password, setPassword] = useState('');
  const end = useMutation({
    mutationFn: () => take(api.POST('/api/me/two-step/end', { body: { password } })),
    onSuccess: () => void cache.invalidateQueries({ queryKey: ['me'] }),
  });
  return (
    <Part onSubmit={() => end.mutate()}>
      <p>{t('accounts.secondStepIsOn')}</p>
      <GateField
        name={t('accounts.password')}
        type="password"
        value={password}
        onSet={setPassword}
        autoComplete="current-password"
      />
      <GateFault fault={end.error} />
      <div>
        <Button type="submit" disabled={password === '' || end.isPending}>
          {t('accounts.switchOff')}
        </Button>
      </div>
    </Part>
  );
}
