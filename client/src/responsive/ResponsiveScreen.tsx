import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useLocation } from 'wouter';
import { api, type JobPicture, type JobSlot, type ResponsiveView, take, type Visitors } from '../api/client';
import { useShortcuts } from '../design/useShortcuts';
import { Breakpoints } from '../design/Breakpoints';
import { Notice } from '../design/Notice';
import type { Rule } from '../forms/rule';
import { slotQuery } from '../forms/slotForm';
import { JobBar } from '../jobs/JobBar';
import { useHead, useJob, useJobStore } from '../jobs/useJob';
import { ResponsiveAside } from './ResponsiveAside';
import { Screens } from './Screens';
import { densities, useVisitors, viewports } from './visitors';
import { VisitorsTable } from './VisitorsTable';
import { t } from '../texts/texts';

/** What the files of one place do: which screen takes which, and what a visitor loads. */
export function ResponsiveScreen({ pictureId, address }: { pictureId: string; address: string }) {
  const head = useHead();
  const picture = head.pictures.find((one) => one.picture.id === pictureId);
  const slot = head.slots.find((one) => one.address === address);
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)]">
      <div>
        <JobBar stage="weighing" at={{ picture: pictureId, slot: address }} />
      </div>
      {!picture || !slot ? (
        <Notice>
          {picture ? t('responsive.thisSlotIsNotInThe') : t('responsive.thisPictureIsNotInThe')}
        </Notice>
      ) : (
        <Widths key={address} picture={picture} slot={slot} />
      )}
    </div>
  );
}

function Widths({ picture, slot }: { picture: JobPicture; slot: JobSlot }) {
  const store = useJobStore();
  const head = useHead();
  const [, go] = useLocation();
  const id = picture.picture.id;
  const [visitors, setVisitors] = useVisitors();
  const [viewport, setViewport] = useState(1280);
  const { look, rule, draft, setDraft, save } = useResponsive(picture, slot, visitors, viewport);
  const known = useLast(look.data);
  useShortcuts({
    b: () => go(`/job/${store.id}`),
    w: () => go(`/job/${store.id}/weighing/${id}/${slot.address}`),
    f: () => go(`/job/${store.id}/framing/${id}?slot=${slot.address}`),
    n: (event) => {
      const at = head.pictures.indexOf(picture) + (event.shiftKey ? head.pictures.length - 1 : 1);
      go(
        `/job/${store.id}/responsive/${head.pictures[at % head.pictures.length]!.picture.id}/${slot.address}`,
      );
    },
  });
  if (look.isError) return <Notice>{look.error.message}</Notice>;
  if (!known) return <Notice>{t('responsive.calculatingWhatEachScreenLoads')}</Notice>;
  return (
    <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_348px] max-md:block max-md:overflow-y-auto">
      <div className="min-h-0 overflow-y-auto px-5 py-4">
        {known.slots.length > 1 && (
          <div className="mb-1.5">
            <Breakpoints slots={known.slots} viewport={viewport} />
          </div>
        )}
        {known.grid.length === 0 ? (
          <Notice>{t('responsive.noFileCanBeMadeOf')}</Notice>
        ) : (
          <>
            <Screens view={known} at={viewport} onAt={setViewport} />
            <div className="mt-5">
              <VisitorsTable view={known} visitors={visitors} onSet={setVisitors} />
            </div>
          </>
        )}
      </div>
      <ResponsiveAside
        picture={picture}
        slot={slot}
        view={known}
        drawn={known.grid[viewports.length * densities.length]}
        viewport={viewport}
        onViewport={setViewport}
        rule={draft ?? (rule?.responsive as Rule | undefined)}
        fault={look.data?.fault?.message ?? null}
        onRule={setDraft}
        change={
          draft && {
            undo: () => setDraft(null),
            set: save.mutate,
            busy: save.isPending,
            failed: save.error,
          }
        }
      />
    </div>
  );
}

/** What the files do by the slot's rule, or by one that is tried, and saving that. */
function useResponsive(picture: JobPicture, slot: JobSlot, visitors: readonly Visitors[], viewport: number) {
  const store = useJobStore();
  const cache = useQueryClient();
  const [draft, setDraft] = useState<Rule | null>(null);
  const sequence = useJob((job) => job.sequence);
  const id = picture.picture.id;
  const stored = useQuery(slotQuery(slot.destination, slot.slot.key));
  const rule = stored.data?.rule as Rule | undefined;
  const changed = draft
    ? { rule: { ...rule, responsive: draft }, pattern: stored.data?.pattern ?? null }
    : null;
  const look = useQuery({
    queryKey: ['responsive', store.id, id, slot.address, sequence, changed, visitors, viewport],
    queryFn: ({ signal }) =>
      take(
        api.POST('/api/jobs/{id}/cells/{picture}/{destination}/{slot}/responsive', {
          signal,
          params: { path: { id: store.id, picture: id, destination: slot.destination, slot: slot.slot.key } },
          body: {
            draft: changed,
            viewports: [...viewports, viewport],
            densities: [...densities],
            visitors: [...visitors],
          },
        }),
      ),
    placeholderData: keepPreviousData,
    gcTime: 5_000,
  });
  const save = useMutation({
    mutationFn: () =>
      take(
        api.PUT('/api/destinations/{destination}/slots/{slot}', {
          params: { path: { destination: slot.destination, slot: slot.slot.key } },
          body: changed!,
        }),
      ),
    onSuccess: async () => {
      await cache.invalidateQueries({ queryKey: ['slot', slot.destination] });
      setDraft(null);
    },
  });
  return { look, rule, draft, setDraft, save };
}

/** What was known last without a fault: a half-typed rule leaves the screen as it is. */
function useLast(view: ResponsiveView | undefined): ResponsiveView | undefined {
  const [last, setLast] = useState(view);
  if (view && !view.fault && view !== last) setLast(view);
  return view && !view.fault ? view : last;
}
