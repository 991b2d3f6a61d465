import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, type Asked, type Dressing, take } from '../api/client';
import { Button } from '../design/Button';
import { type OverlayRule, written } from '../domain/overlay';
import { t } from '../texts/texts';

const listed = {
  queryKey: ['styles'],
  queryFn: ({ signal }: Asked) => take(api.GET('/api/styles', { signal })),
};

/** Styles with names: one is applied here, or this one is saved. */
export function SavedStyles({
  dress,
  bare,
  onPut,
}: {
  dress: OverlayRule;
  bare: boolean;
  onPut: (dress: OverlayRule) => void;
}) {
  const cache = useQueryClient();
  const all = useQuery(listed).data ?? [];
  const [name, setName] = useState('');
  const took = (now: Dressing[]) => {
    cache.setQueryData(listed.queryKey, now);
    setName('');
  };
  const keep = useMutation({
    mutationFn: () =>
      take(
        api.PUT('/api/styles/{name}', {
          params: { path: { name: name.trim() } },
          body: { dress: written(dress) },
        }),
      ),
    onSuccess: took,
  });
  const drop = useMutation({
    mutationFn: (gone: string) =>
      take(api.DELETE('/api/styles/{name}', { params: { path: { name: gone } } })),
    onSuccess: took,
  });
  const fault = keep.error ?? drop.error;
  return (
    <section className="mt-3 border-t border-line pt-2" aria-label={t('overlay.savedStyles')}>
      <p className="text-small text-ink-2">{t('overlay.savedStyles')}</p>
      {all.length === 0 && bare && <p className="mt-1">{t('overlay.noSavedStyles')}</p>}
      {all.map((one) => (
        <p key={one.name} className="mt-1 flex items-center gap-1">
          <Button
            className="h-7! min-w-0 flex-1 justify-start! px-2!"
            aria-pressed={written(JSON.parse(one.dress) as OverlayRule) === written(dress)}
            onClick={() => onPut(JSON.parse(one.dress) as OverlayRule)}
            title={t('overlay.applyThisStyle')}
          >
            <span className="wrap-anywhere">{one.name}</span>
          </Button>
          <Button
            className="h-7! px-2!"
            onClick={() => drop.mutate(one.name)}
            title={t('overlay.removeNameSlotsThatUseIt', { name: one.name })}
          >
            {t('overlay.remove')}
          </Button>
        </p>
      ))}
      {!bare && <SaveStyle name={name} onName={setName} onSave={() => keep.mutate()} />}
      {fault && (
        <p role="alert" className="mt-1 text-breaks">
          {fault.message}
        </p>
      )}
    </section>
  );
}

function SaveStyle({
  name,
  onName,
  onSave,
}: {
  name: string;
  onName: (name: string) => void;
  onSave: () => void;
}) {
  return (
    <form
      className="mt-1 flex items-center gap-1"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim()) onSave();
      }}
    >
      <input
        onKeyDown={(event) => event.key === 'Enter' && event.stopPropagation()}
        aria-label={t('overlay.nameOfTheStyle')}
        placeholder={t('overlay.name')}
        maxLength={80}
        value={name}
        onChange={(event) => onName(event.target.value)}
        className="h-7 min-w-0 flex-1 rounded-md border border-line bg-sheet px-2 placeholder:text-ink-2"
      />
      <Button type="submit" className="h-7! px-2!" disabled={!name.trim()}>
        {t('overlay.saveStyle')}
      </Button>
    </form>
  );
}
