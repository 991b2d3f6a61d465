import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useLocation } from 'wouter';
import { api, type PublishedPlace, take } from '../api/client';
import { useShortcuts } from '../design/useShortcuts';
import { Notice } from '../design/Notice';
import { JobBar } from '../jobs/JobBar';
import { useJob, useJobStore } from '../jobs/useJob';
import { HandOverTabs } from './HandOverTabs';
import { LivePlaces } from './LivePlaces';
import { Publication } from './Publication';
import { useCopy } from '../design/useCopy';
import { t } from '../texts/texts';

/** How long the numbers of fetches stand before they are asked for again, in milliseconds. */
const again = 15_000;

/** True where publishing would change what is live. */
const wantsPublishing = (place: PublishedPlace) =>
  place.state === 'fresh' ||
  place.state === 'differs' ||
  (place.state === 'gone' && place.expiresAt === null);

/** Addresses on this server that pages can use: what answers there, against the job as it is. */
export function LiveScreen() {
  const store = useJobStore();
  const cache = useQueryClient();
  const [, go] = useLocation();
  const { said, copy } = useCopy();
  const [fixed, setFixed] = useState(false);
  const sequence = useJob((job) => job.sequence);
  const key = ['publication', store.id];
  const look = useQuery({
    queryKey: [...key, sequence],
    queryFn: ({ signal }) =>
      take(
        api.GET('/api/jobs/{id}/publication', {
          signal,
          params: { path: { id: store.id }, query: { base: location.origin } },
        }),
      ),
    placeholderData: (previous) => previous,
    refetchInterval: again,
    gcTime: 5_000,
  });
  const change = useMutation({
    mutationFn: (what: { path: string | null } | 'unpublish') =>
      what === 'unpublish'
        ? take(api.DELETE('/api/jobs/{id}/publication', { params: { path: { id: store.id } } }))
        : take(api.POST('/api/jobs/{id}/publication', { params: { path: { id: store.id } }, body: what })),
    onSettled: () => cache.invalidateQueries({ queryKey: key }),
  });
  const publication = look.data;
  const places = publication?.places ?? [];
  const changes = places.filter(wantsPublishing).length;
  const published = publication?.key != null;
  const publish = () => {
    if (!published || changes > 0) change.mutate({ path: null });
  };
  const markupOf = (place: PublishedPlace) => (fixed ? place.htmlFixed : place.html);
  const copyAll = () =>
    copy(
      t('handingOver.theMarkupOfTheWholeJob'),
      places.flatMap((place) => markupOf(place) ?? []).join('\n\n'),
    );
  useShortcuts({ p: publish, 'shift+c': copyAll, b: () => go(`/job/${store.id}`) });
  return (
    <div className="grid h-full min-h-0 grid-rows-[auto_auto_1fr]">
      <div>
        <JobBar stage="handing-over" />
      </div>
      <HandOverTabs part="live" />
      {look.isError ? (
        <Notice>{look.error.message}</Notice>
      ) : !publication ? (
        <Notice>{t('handingOver.loadingLiveLinks')}</Notice>
      ) : places.length === 0 ? (
        <Notice>{t('handingOver.theJobHasNoFilesTo')}</Notice>
      ) : (
        <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_300px] max-md:block max-md:overflow-y-auto">
          <LivePlaces
            places={places}
            onPublish={(path) => change.mutate({ path })}
            onCopy={(place) =>
              copy(t('handingOver.theMarkupForPath', { path: place.path }), markupOf(place) ?? '')
            }
          />
          <Publication
            publication={publication}
            changes={changes}
            fixed={fixed}
            said={change.error?.message ?? said}
            failed={change.isError}
            busy={change.isPending}
            onFixed={setFixed}
            onPublish={publish}
            onUnpublish={() => change.mutate('unpublish')}
            onCopyAll={copyAll}
          />
        </div>
      )}
    </div>
  );
}
