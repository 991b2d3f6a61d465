import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, take } from '../api/client';
import { useMay } from '../api/me';
import { Button } from '../design/Button';
import { Sheet } from '../design/Sheet';
import { actorName } from '../jobs/actors';
import { CommentList } from '../jobs/CommentList';
import { useComments } from '../jobs/useComments';
import { moment } from '../texts/numbers';
import { t } from '../texts/texts';

const link = 'text-accent underline underline-offset-2';

/** What was said about the file in hand, and who did what with its picture. */
export function SaidAndDone({ job, picture, slot }: { job: string; picture: string; slot: string }) {
  const comments = useComments(job).data ?? [];
  const mine = comments.filter((one) => one.picture === picture && one.slot === slot);
  const canResolve = useMay('edit');
  return (
    <span className="flex shrink-0 gap-3">
      <Sheet
        title={t('framing.comments')}
        trigger={
          <button type="button" className={link}>
            {mine.length === 0 ? t('framing.comments') : t('framing.commentsCount', { count: mine.length })}
          </button>
        }
      >
        <div className="mt-2">
          <CommentList job={job} picture={picture} slot={slot} comments={mine} canResolve={canResolve} />
        </div>
      </Sheet>
      <PictureHistory job={job} picture={picture} />
    </span>
  );
}

function PictureHistory({ job, picture }: { job: string; picture: string }) {
  const [open, setOpen] = useState(false);
  return (
    <Sheet
      title={t('framing.history')}
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button type="button" className={link}>
          {t('framing.history')}
        </button>
      }
    >
      {open && <Entries job={job} picture={picture} />}
    </Sheet>
  );
}

/** The history as sentences, the newest first, each with the way back to it. */
function Entries({ job, picture }: { job: string; picture: string }) {
  const cache = useQueryClient();
  const params = { path: { id: job, picture } };
  const history = useQuery({
    queryKey: ['history', job, picture],
    queryFn: ({ signal }) => take(api.GET('/api/jobs/{id}/pictures/{picture}/history', { signal, params })),
    staleTime: 0,
  });
  const back = useMutation({
    mutationFn: (entry: number) =>
      take(api.POST('/api/jobs/{id}/pictures/{picture}/return', { params, body: { entry } })),
    onSettled: () => void cache.invalidateQueries({ queryKey: ['history', job, picture] }),
  });
  const fault = history.error ?? back.error;
  return (
    <>
      {history.data?.length === 0 && <p className="mt-2">{t('framing.nothingWasDone')}</p>}
      <ol className="mt-2 border-t border-line" aria-label={t('framing.history')}>
        {history.data?.map((entry) => (
          <li key={entry.id} className="flex items-center gap-3 border-b border-line py-1.5">
            <span className="min-w-0 flex-1 wrap-anywhere">
              <b className="font-semibold">{actorName(entry.actor)}</b> {entry.sentences.join(', ')}
              <span className="block text-small text-ink-2">{moment(entry.at)}</span>
            </span>
            {entry.returns && (
              <Button
                className="h-7!"
                disabled={back.isPending}
                onClick={() => back.mutate(Number(entry.id))}
              >
                {t('framing.goBackToHere')}
              </Button>
            )}
          </li>
        ))}
      </ol>
      {fault && (
        <p role="alert" className="mt-2 text-breaks">
          {fault.message}
        </p>
      )}
    </>
  );
}
