import { Link } from 'wouter';
import type { CellAnswer as Said } from '../api/client';
import { sentence } from '../design/figures';
import { useJobStore } from './useJob';
import { list } from '../texts/numbers';
import { t } from '../texts/texts';

/** What receivers said of the files of a cell: those that were not taken first, the others in a line. */
export function ReceiverAnswers({ said }: { said: readonly Said[] }) {
  const store = useJobStore();
  const unwanted = said.filter((one) => one.standing !== 'accepted');
  const taken = [...new Set(said.filter((one) => one.standing === 'accepted').map((one) => one.receiver))];
  return (
    <>
      {unwanted.map((one, at) => (
        <p key={`${one.receiverId} ${at}`} className="mt-0.5">
          <Link
            href={`/job/${store.id}/handing-over/receivers/${one.receiverId}`}
            className="text-accent underline underline-offset-2"
          >
            {one.receiver}
          </Link>{' '}
          {one.standing === 'refused' ? t('jobs.refusedTheFile') : t('jobs.didNotReceiveTheFile')}{' '}
          {one.said.map(sentence).join(' ')}
        </p>
      ))}
      {taken.length > 0 && (
        <p className="mt-0.5 text-ink-2">{t('jobs.acceptedByTaken', { taken: list(taken) })}</p>
      )}
    </>
  );
}
