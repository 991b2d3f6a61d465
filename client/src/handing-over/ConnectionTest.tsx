import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, type Receiver, take } from '../api/client';
import { Button } from '../design/Button';
import { t } from '../texts/texts';

/** Whether a receiver can be reached; a host over SSH is known by its key, which is seen, compared and accepted once. */
export function ConnectionTest({ receiver }: { receiver: Receiver }) {
  const cache = useQueryClient();
  const trial = useMutation({
    mutationFn: () => take(api.POST('/api/receivers/{id}/try', { params: { path: { id: receiver.id } } })),
  });
  const accept = useMutation({
    mutationFn: (hostKey: string) =>
      take(
        api.PUT('/api/receivers/{id}', {
          params: { path: { id: receiver.id } },
          body: { rule: { ...receiver.rule, hostKey }, secret: null },
        }),
      ),
    onSuccess: () => trial.reset(),
    onSettled: () => void cache.invalidateQueries({ queryKey: ['deliveries'] }),
  });
  const seen = trial.data?.hostKey;
  return (
    <div className="col-span-2">
      {receiver.rule.way === 'sftp' && (
        <>
          <p className="text-ink-2">{t('handingOver.hostKey')}</p>
          <p className="break-all">{receiver.rule.hostKey ?? t('handingOver.noneTrustedYet')}</p>
        </>
      )}
      {trial.data && <p className={trial.data.reached ? '' : 'text-breaks'}>{trial.data.sentence}</p>}
      {(trial.isError || accept.isError) && (
        <p role="alert" className="text-breaks">
          {trial.error?.message ?? accept.error?.message}
        </p>
      )}
      <div className="mt-1 flex gap-2">
        <Button onClick={() => trial.mutate()} disabled={trial.isPending}>
          {trial.isPending ? t('handingOver.connecting') : t('handingOver.testConnection')}
        </Button>
        {seen && (
          <Button onClick={() => accept.mutate(seen)} disabled={accept.isPending}>
            {t('handingOver.trustThisKey')}
          </Button>
        )}
      </div>
    </div>
  );
}
