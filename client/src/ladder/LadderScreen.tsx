import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useLocation } from 'wouter';
import { api, type JobPicture, type JobSlot, type LadderSlot, type LadderView, take } from '../api/client';
import { useKeys } from '../app/useKeys';
import { Button } from '../design/Button';
import { count, sentence, trim, weight } from '../design/figures';
import { Notice } from '../design/Notice';
import type { Rule } from '../destinations/rule';
import { slotQuery } from '../destinations/slotForm';
import { JobBar } from '../jobs/JobBar';
import { cellKey } from '../jobs/JobStore';
import { useHead, useJob, useJobStore } from '../jobs/useJob';
import { Breakpoints } from './Breakpoints';
import { PageColumn } from './PageColumn';
import { Screens } from './Screens';
import { SizesForm } from './SizesForm';
import { densities, useVisitors, viewports } from './visitors';
import { VisitorsTable } from './VisitorsTable';

/** What the files of one place do: which screen takes which, and what a visitor loads. */
export function LadderScreen({ pictureId, address }: { pictureId: string; address: string }) {
  const head = useHead();
  const picture = head.pictures.find((one) => one.picture.id === pictureId);
  const slot = head.slots.find((one) => one.address === address);
  return (
    <div className="grid h-full min-h-0 grid-rows-[auto_1fr]">
      <div>
        <JobBar stage="weighing" at={{ picture: pictureId, slot: address }} />
      </div>
      {!picture || !slot ? (
        <Notice>{picture ? 'The job has no such slot.' : 'The job has no such picture.'}</Notice>
      ) : (
        <Ladder key={address} picture={picture} slot={slot} />
      )}
    </div>
  );
}

function Ladder({ picture, slot }: { picture: JobPicture; slot: JobSlot }) {
  const store = useJobStore();
  const head = useHead();
  const cache = useQueryClient();
  const [, go] = useLocation();
  const [visitors, setVisitors] = useVisitors();
  const [viewport, setViewport] = useState(1280);
  const [draft, setDraft] = useState<Rule | null>(null);
  const sequence = useJob((job) => job.sequence);
  const id = picture.picture.id;
  const stored = useQuery(slotQuery(slot.destination, slot.slot.key));
  const rule = stored.data?.rule as Rule | undefined;
  const changed = draft
    ? { rule: { ...rule, responsive: draft }, pattern: stored.data?.pattern ?? null }
    : null;
  const look = useQuery({
    queryKey: ['ladder', store.id, id, slot.address, sequence, changed, visitors, viewport],
    queryFn: () =>
      take(
        api.POST('/api/jobs/{id}/cells/{picture}/{destination}/{slot}/ladder', {
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
  const known = useLast(look.data);
  useKeys({
    b: () => go(`/job/${store.id}`),
    w: () => go(`/job/${store.id}/weighing/${id}/${slot.address}`),
    f: () => go(`/job/${store.id}/framing/${id}?slot=${slot.address}`),
    n: (event) => {
      const at = head.pictures.indexOf(picture) + (event.shiftKey ? head.pictures.length - 1 : 1);
      go(`/job/${store.id}/ladder/${head.pictures[at % head.pictures.length]!.picture.id}/${slot.address}`);
    },
  });
  if (look.isError) return <Notice>{look.error.message}</Notice>;
  if (!known) return <Notice>Working out what each screen takes.</Notice>;
  const fault = look.data?.fault ?? null;
  const drawn = known.grid[viewports.length * densities.length];
  return (
    <div className="grid min-h-0 grid-cols-[1fr_348px]">
      <div className="min-h-0 overflow-y-auto px-5 py-4">
        {known.slots.length > 1 && <Breakpoints slots={known.slots} viewport={viewport} />}
        {known.grid.length === 0 ? (
          <Notice>No file can be made of this picture here.</Notice>
        ) : (
          <>
            <Screens view={known} at={viewport} onAt={setViewport} />
            <div className="mt-5">
              <VisitorsTable view={known} visitors={visitors} onSet={setVisitors} />
            </div>
          </>
        )}
      </div>
      <aside
        className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
        aria-label="The ladder"
      >
        <header className="border-b border-line px-5 py-2">
          <h2 className="truncate">{slot.slot.group ?? slot.slot.name}</h2>
          <p className="truncate text-[12px] text-ink-2">
            {picture.words ?? picture.picture.name}, {slot.destinationName}
          </p>
        </header>
        <section className="border-b border-line px-4 pt-3 pb-2" aria-label="The page">
          {drawn && <DrawnPage picture={picture} destination={slot.destination} drawn={drawn} />}
          <input
            type="range"
            className="mt-1 w-full accent-(--pm-accent)"
            aria-label="Width of the window"
            min={320}
            max={1920}
            step={1}
            value={viewport}
            onChange={(event) => setViewport(event.target.valueAsNumber)}
          />
        </section>
        {rule?.responsive !== undefined && (
          <SizesForm
            rule={draft ?? (rule.responsive as Rule)}
            onSet={setDraft}
            fault={fault ? sentence(fault.message) : null}
          />
        )}
        <section className="px-5 py-3" aria-label="Files">
          {known.slots.map((one) => (
            <Files key={one.slot} slot={one} />
          ))}
        </section>
        {draft && (
          <footer className="sticky bottom-0 mt-auto border-t border-line bg-sheet px-5 py-3">
            {save.isError && (
              <p role="alert" className="mb-2 text-breaks">
                {save.error.message}
              </p>
            )}
            <div className="flex gap-2">
              <Button onClick={() => setDraft(null)}>Undo the changes</Button>
              <span className="flex-1" />
              <Button kind="main" disabled={fault !== null || save.isPending} onClick={() => save.mutate()}>
                Set the rule
              </Button>
            </div>
          </footer>
        )}
      </aside>
    </div>
  );
}

/** What was known last without a fault: a half-typed rule leaves the screen as it is. */
function useLast(view: LadderView | undefined): LadderView | undefined {
  const [last, setLast] = useState(view);
  if (view && !view.fault && view !== last) setLast(view);
  return view && !view.fault ? view : last;
}

function DrawnPage({
  picture,
  destination,
  drawn,
}: {
  picture: JobPicture;
  destination: string;
  drawn: LadderView['grid'][number];
}) {
  const head = useHead();
  const address = `${destination}/${drawn.slot}`;
  const cell = useJob((job) => job.cells.get(cellKey(picture.picture.id, address)));
  return (
    <PageColumn
      picture={picture}
      slot={head.slots.find((one) => one.address === address)}
      cell={cell}
      taken={drawn}
    />
  );
}

/** The files of one slot, from the smallest up. */
function Files({ slot }: { slot: LadderSlot }) {
  return (
    <div className="mb-3" data-testid="files" data-widths={slot.files.map((file) => file.width).join()}>
      <h3 className="font-semibold">
        {slot.name}: {slot.files.length} {slot.files.length === 1 ? 'file' : 'files'}
      </h3>
      {slot.largest != null && (
        <p className="text-[12px] text-ink-2">
          {count(slot.least!)} to {count(slot.largest)} px are needed
          {slot.worstWaste != null && `; at the worst ${trim(slot.worstWaste * 100, 0)} % are not used`}
          {slot.files.length > 0 &&
            slot.files.at(-1)!.width < slot.largest &&
            `; the picture has pixels for ${count(slot.files.at(-1)!.width)}`}
          .
        </p>
      )}
      <ul className="mt-1">
        {slot.files.map((file) => (
          <li key={file.descriptor} className="flex justify-between gap-2">
            <span>
              {count(file.width)} × {count(file.height)} px
            </span>
            <span className="text-ink-2">{file.bytes == null ? 'to be made' : weight(file.bytes)}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
