import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Link, useLocation } from 'wouter';
import { api, type ReceiverDelivery, take } from '../api/client';
import { useReceiverDeliveries } from '../api/queries';
import { useShortcuts } from '../design/useShortcuts';
import { Button, Key } from '../design/Button';
import { files, weight } from '../design/figures';
import { Notice } from '../design/Notice';
import { ProgressBar } from '../design/ProgressBar';
import { JobBar } from '../jobs/JobBar';
import { useJob, useJobStore } from '../jobs/useJob';
import { HandOverTabs } from './HandOverTabs';
import { ReceiverSheet } from './ReceiverSheet';
import { counts, hostOf, summary, wayWords } from './deliveries';
import { DeliveredFiles } from './DeliveredFiles';
import { t } from '../texts/texts';

/** The places that the files are handed to: what each said of every file, and what it shows of it. */
export function ReceiversScreen({ receiver }: { receiver: string | undefined }) {
  const store = useJobStore();
  const [, go] = useLocation();
  const sequence = useJob((job) => job.sequence);
  const deliveries = useReceiverDeliveries(store.id, sequence);
  useShortcuts({ b: () => go(`/job/${store.id}`) });
  const all = deliveries.data ?? [];
  const chosen =
    all.find((one) => one.receiver.id === receiver) ?? all.find((one) => one.files.length > 0) ?? all[0];
  return (
    <div className="grid h-full min-h-0 grid-rows-[auto_auto_minmax(0,1fr)]">
      <div>
        <JobBar stage="handing-over" />
      </div>
      <HandOverTabs part="receivers" />
      {deliveries.isError ? (
        <Notice>{deliveries.error.message}</Notice>
      ) : !deliveries.data ? (
        <Notice>{t('handingOver.loadingReceivers')}</Notice>
      ) : chosen ? (
        <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_348px] max-md:block max-md:overflow-y-auto">
          <DeliveredFiles key={chosen.receiver.id} delivery={chosen} />
          <aside
            className="flex min-h-0 flex-col border-l border-line bg-sheet"
            aria-label={t('handingOver.receivers')}
          >
            <div className="min-h-0 flex-1 overflow-y-auto">
              <header className="flex items-center gap-2 border-b border-line py-2 pr-3 pl-5">
                <h2 className="flex-1 text-head">{t('handingOver.receivers')}</h2>
                <ReceiverSheet
                  trigger={<Button needs="useReceivers">{t('handingOver.addReceiver')}</Button>}
                />
              </header>
              <ul aria-label={t('handingOver.allReceivers')}>
                {all.map((one) => (
                  <ReceiverLine key={one.receiver.id} delivery={one} chosen={one === chosen} />
                ))}
              </ul>
            </div>
            <HandOver key={chosen.receiver.id} delivery={chosen} />
          </aside>
        </div>
      ) : (
        <Notice
          action={
            <ReceiverSheet
              trigger={
                <Button needs="useReceivers" kind="main">
                  {t('handingOver.addAReceiver')}
                </Button>
              }
            />
          }
        >
          {t('handingOver.sendFilesStraightToAShop')}
        </Notice>
      )}
    </div>
  );
}

function ReceiverLine({ delivery, chosen }: { delivery: ReceiverDelivery; chosen: boolean }) {
  const store = useJobStore();
  const { refused, notDelivered } = counts(delivery.files);
  const bad = delivery.state === 'failed' || refused + notDelivered > 0;
  return (
    <li className="border-b border-line">
      <Link
        href={`/job/${store.id}/handing-over/receivers/${delivery.receiver.id}`}
        aria-current={chosen ? 'true' : undefined}
        className={`block border-l-4 py-2 pr-3 pl-4 hover:bg-sheet-2 ${chosen ? 'border-accent bg-sheet-2' : 'border-transparent'} ${delivery.files.length === 0 ? 'text-ink-2' : ''}`}
      >
        <span className="block wrap-anywhere font-semibold">{delivery.receiver.rule.name}</span>
        <span className={`block ${bad ? 'text-breaks' : 'text-ink-2'}`}>{summary(delivery)}</span>
      </Link>
    </li>
  );
}

/** What is known of the chosen receiver, and the next step. */
function HandOver({ delivery }: { delivery: ReceiverDelivery }) {
  const store = useJobStore();
  const cache = useQueryClient();
  const { receiver, state, trouble, progress } = delivery;
  const path = { params: { path: { id: store.id, receiver: receiver.id } } };
  const settled = () => void cache.invalidateQueries({ queryKey: ['deliveries'] });
  const send = useMutation({
    mutationFn: () => take(api.POST('/api/jobs/{id}/deliveries/{receiver}', path)),
    onSettled: settled,
  });
  const stop = useMutation({
    mutationFn: () => take(api.POST('/api/jobs/{id}/deliveries/{receiver}/stop', path)),
    onSettled: settled,
  });
  const waiting = delivery.files.filter(
    (file) => file.standing !== 'accepted' && file.standing !== 'noLongerDelivered',
  );
  const going = delivery.files.filter((file) => file.standing !== 'noLongerDelivered');
  useShortcuts({ d: () => waiting.length > 0 && state !== 'waiting' && send.mutate() });
  return (
    <section
      className="flex flex-col gap-2 border-t border-line px-5 py-3"
      aria-label={t('handingOver.handOver')}
    >
      <div className="flex items-start gap-2">
        <p className="min-w-0 flex-1 text-ink-2">
          <span className="block wrap-anywhere text-ink" title={receiver.rule.address}>
            {hostOf(receiver)}
          </span>
          {wayWords[receiver.rule.way]}
        </p>
        <ReceiverSheet
          receiver={receiver}
          trigger={<Button needs="useReceivers">{t('handingOver.edit')}</Button>}
        />
      </div>
      {(send.isError || trouble) && (
        <p role="alert" className="text-breaks">
          {send.error?.message ?? trouble}
        </p>
      )}
      {state === 'waiting' ? (
        <>
          <ProgressBar
            label={t('handingOver.sentToName', { name: receiver.rule.name })}
            done={progress?.done ?? 0}
            of={progress?.of ?? 1}
            className="w-full"
          />
          {progress?.waits && <p className="text-ink-2">{progress.waits}</p>}
          <Button onClick={() => stop.mutate()}>{t('handingOver.stop')}</Button>
        </>
      ) : waiting.length > 0 ? (
        <Button needs="useReceivers" kind="main" onClick={() => send.mutate()} disabled={send.isPending}>
          {t('handingOver.handOverFiles', {
            files: files(waiting.length),
            bytes: weight(waiting.reduce((sum, file) => sum + file.bytes, 0)),
          })}{' '}
          <Key>D</Key>
        </Button>
      ) : (
        <p data-testid="handed">
          {going.length === 0
            ? t('handingOver.thisJobHasNoFilesFor2')
            : going.length === 1
              ? t('handingOver.theReceiverHasTheFile')
              : t('handingOver.theReceiverHasAllGoingFiles', { going: going.length })}
        </p>
      )}
    </section>
  );
}
