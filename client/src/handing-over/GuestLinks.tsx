import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, take } from '../api/client';
import { type LinkView, useMe } from '../api/me';
import { Button } from '../design/Button';
import { Sheet } from '../design/Sheet';
import { ShownOnce } from '../design/ShownOnce';
import { useJobStore } from '../jobs/useJob';
import { moment } from '../texts/numbers';
import { t } from '../texts/texts';

/** Links by which somebody without an account sees this job, comments and accepts; nothing where nobody signs in. */
export function GuestLinks() {
  const me = useMe().data;
  if (me?.state !== 'signedIn' || !me.rights.includes('publish')) return null;
  return (
    <Sheet title={t('handingOver.guests')} trigger={<Button>{t('handingOver.showToAGuest')}</Button>}>
      <Links />
    </Sheet>
  );
}

function Links() {
  const { id } = useJobStore();
  const cache = useQueryClient();
  const [name, setName] = useState('');
  const params = { path: { id } };
  const links = useQuery({
    queryKey: ['guests', id],
    queryFn: ({ signal }) => take(api.GET('/api/jobs/{id}/guests', { signal, params })),
    staleTime: 0,
  });
  const again = () => void cache.invalidateQueries({ queryKey: ['guests', id] });
  const make = useMutation({
    mutationFn: () => take(api.POST('/api/jobs/{id}/guests', { params, body: { name, days: 14 } })),
    onSuccess: () => setName(''),
    onSettled: again,
  });
  const revoke = useMutation({
    mutationFn: (link: string) =>
      take(api.DELETE('/api/jobs/{id}/guests/{link}', { params: { path: { id, link } } })),
    onSettled: again,
  });
  const fault = links.error ?? make.error ?? revoke.error;
  return (
    <>
      <p className="mt-1 text-ink-2">{t('handingOver.guestsExplained')}</p>
      <form
        className="mt-3 flex items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          make.mutate();
        }}
      >
        <label className="flex flex-1 flex-col gap-1">
          <span>{t('handingOver.forWhom')}</span>
          <input
            value={name}
            onChange={(event) => setName(event.target.value)}
            className="h-8 rounded-md border border-line bg-sheet px-2 hover:border-ink-2"
          />
        </label>
        <Button kind="main" type="submit" disabled={name.trim() === '' || make.isPending}>
          {t('handingOver.makeLink')}
        </Button>
      </form>
      {make.data && (
        <ShownOnce
          says={t('handingOver.linkForGuest', { name: make.data.link.name })}
          value={make.data.address}
          onClose={() => make.reset()}
        />
      )}
      {links.data && links.data.length > 0 && (
        <Given links={links.data} onRevoke={(link) => revoke.mutate(link)} />
      )}
      {fault && (
        <p role="alert" className="mt-2 text-breaks">
          {fault.message}
        </p>
      )}
    </>
  );
}

/** The links that work, and whether they were opened. */
function Given({ links, onRevoke }: { links: readonly LinkView[]; onRevoke: (link: string) => void }) {
  return (
    <ul className="mt-3 border-t border-line" aria-label={t('handingOver.guests')}>
      {links.map((link) => (
        <li key={link.id} className="flex items-center gap-3 border-b border-line py-1.5">
          <span className="min-w-0 flex-1 wrap-anywhere">
            {link.name}
            <span className="block text-small text-ink-2">
              {link.usedAt === null
                ? t('handingOver.notOpenedYet', { until: moment(link.expiresAt) })
                : t('handingOver.openedLast', {
                    at: moment(link.usedAt),
                    until: moment(link.expiresAt),
                  })}
            </span>
          </span>
          <Button className="h-7!" onClick={() => onRevoke(link.id)}>
            {t('handingOver.revoke')}
          </Button>
        </li>
      ))}
    </ul>
  );
}
