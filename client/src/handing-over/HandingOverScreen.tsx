import { useQuery } from '@tanstack/react-query';
import { useLocation } from 'wouter';
import { api, take } from '../api/client';
import { Notice } from '../design/Notice';
import { useShortcuts } from '../design/useShortcuts';
import { JobBar } from '../jobs/JobBar';
import { useHead, useJob, useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';
import { BundleAside } from './BundleAside';
import { Asks, Folders, NotGoing } from './BundleParts';
import { HandOverTabs } from './HandOverTabs';
import { goToMissing } from './missingTexts';
import { PictureNames } from './Names';

/** Names, folders and the bundle; what is not fit to go, and why. */
export function HandingOverScreen() {
  const store = useJobStore();
  const head = useHead();
  const [, go] = useLocation();
  const sequence = useJob((job) => job.sequence);
  const plan = useQuery({
    queryKey: ['hand-over', store.id, sequence],
    queryFn: ({ signal }) =>
      take(api.GET('/api/jobs/{id}/hand-over', { signal, params: { path: { id: store.id } } })),
    placeholderData: (previous) => previous,
    gcTime: 5_000,
  });
  useShortcuts({
    d: () => document.querySelector<HTMLAnchorElement>('a[data-download]')?.click(),
    e: () => goToMissing(),
    b: () => go(`/job/${store.id}`),
  });
  const data = plan.data;
  const pictures = new Map(head.pictures.map((one) => [one.picture.id, one]));
  const waiting = data?.files.filter((file) => file.state === 'waiting') ?? [];
  const held = data?.files.filter((file) => file.state === 'held') ?? [];
  const missing = data?.files.filter((file) => file.state === 'missing') ?? [];
  return (
    <div className="grid h-full min-h-0 grid-rows-[auto_auto_1fr]">
      <div>
        <JobBar stage="handing-over" />
      </div>
      <HandOverTabs part="bundle" />
      {plan.isError ? (
        <Notice>{plan.error.message}</Notice>
      ) : !data ? (
        <Notice>{t('handingOver.preparingTheBundle')}</Notice>
      ) : (
        <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_348px] max-md:block max-md:overflow-y-auto">
          <div className="min-h-0 overflow-y-auto px-5 py-4">
            {data.asks.length > 0 && <Asks pictures={data.asks.flatMap((id) => pictures.get(id) ?? [])} />}
            <NotGoing
              title={t('handingOver.notDeliveredOverALimit')}
              files={held}
              pictures={pictures}
              act={({ picture, slot, id }) =>
                void store.send([{ do: 'allow-anyway', picture, slot, files: [id] }])
              }
            />
            <NotGoing title={t('handingOver.missing')} files={missing} pictures={pictures} />
            <Folders files={data.files} />
            <PictureNames asks={new Set(data.asks)} />
          </div>
          <BundleAside plan={data} waiting={waiting.length} held={held.length} missing={missing.length} />
        </div>
      )}
    </div>
  );
}
