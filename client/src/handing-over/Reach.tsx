import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, type Receiver, take } from '../api/client';
import { Button } from '../design/Button';

/** Whether a receiver can be reached; a host over SSH is known by its key, which is seen, compared and accepted once. */
export function Reach({ receiver }: { receiver: Receiver }) {
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
    onSettled: () => void cache.invalidateQueries({ queryKey: ['sendings'] }),
  });
  const seen = trial.data?.hostKey;
  return (
    <div className="col-span-2">
      {receiver.rule.way === 'sftp' && (
        <>
          <p className="text-ink-2">Key of the host</p>
          <p className="break-all">{receiver.rule.hostKey ?? 'none was accepted yet'}</p>
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
          {trial.isPending ? 'Knocking' : 'See whether it answers'}
        </Button>
        {seen && (
          <Button onClick={() => accept.mutate(seen)} disabled={accept.isPending}>
            This is its key
          </Button>
        )}
      </div>
    </div>
  );
}
