import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type KeyboardEvent, useCallback, useEffect, useMemo, useState } from 'react';
import { useLocation, useSearchParams } from 'wouter';
import { api, type JobPicture, type JobSlot, take } from '../api/client';
import { useShortcuts } from '../design/useShortcuts';
import { slotQuery } from '../forms/slotForm';
import { useCell, useHead, useJobStore } from '../jobs/useJob';
import {
  areaOf,
  commandsFor,
  commandsToLook,
  type Draft,
  draftOf,
  isBare,
  withArea,
  withTitle,
} from '../domain/overlay';
import { OverlayPanel } from './OverlayPanel';
import { OverlayStage } from './OverlayStage';
import { useOverlayPreview } from './useOverlayPreview';

interface CellPath {
  id: string;
  picture: string;
  destination: string;
  slot: string;
}

/** What is drawn over one picture in one slot, on the very file: words, a fade, inks. */
export function OverlayScreen({ picture, slot }: { picture: JobPicture; slot: JobSlot }) {
  const store = useJobStore();
  const [, setSearch] = useSearchParams();
  const id = picture.picture.id;
  const cell = useCell(id, slot.address);
  const start = useMemo(() => draftOf(picture, slot), [picture, slot]);
  const [draft, setDraft] = useState<Draft>(start);
  // A font that is only pointed at is shown, and not taken.
  const [pointed, setPointed] = useState<string | null>(null);
  const [placing, setPlacing] = useState(false);
  const [plain, setPlain] = useState<string | null>(null);
  const shown = useMemo(() => (pointed ? withTitle(draft, { font: pointed }) : draft), [draft, pointed]);
  const path = useMemo(
    () => ({ id: store.id, picture: id, destination: slot.destination, slot: slot.slot.key }),
    [store.id, id, slot],
  );
  const commands = useMemo(() => commandsToLook(shown, id, slot.address), [shown, id, slot.address]);
  // What is only passed by needs no colours: they take longer than the look.
  const { look, refusal, behind } = useOverlayPreview(path, commands, pointed === null && !placing);
  useEffect(() => store.lookAt([id], [slot.address]), [store, id, slot.address]);

  const leave = useCallback(
    () => setSearch({ slot: slot.address }, { replace: true }),
    [setSearch, slot.address],
  );
  const { done, next } = useWays(picture, slot, draft, leave);
  const everywhere = useForEveryPicture(picture, slot, draft, leave);
  const pick = useBarePixels(path, slot.address, setPlain);

  useShortcuts({
    escape: () => (plain ? setPlain(null) : leave()),
    enter: done,
    'ctrl+enter': next,
  });
  return (
    <div
      className="grid min-h-0 grid-cols-[minmax(0,1fr)_clamp(348px,31vw,396px)]"
      onKeyDown={(event) => typedKey(event, { leave, done, next })}
    >
      <OverlayStage
        name={picture.words ?? picture.picture.name}
        look={look}
        crop={cell ? { picture, slot: slot.slot, frame: cell.frame } : null}
        expected={cell ?? slot.slot}
        area={areaOf(shown)}
        plain={plain}
        onArea={(area, done) => {
          setPlacing(!done);
          setDraft((now) => withArea(now, area));
        }}
        onPick={(ink) => {
          setPlain(null);
          if (ink) setDraft((now) => withTitle(now, { ink }));
        }}
      />
      <OverlayPanel
        picture={picture}
        slot={slot}
        draft={draft}
        look={look}
        behind={behind}
        trouble={refusal ?? everywhere.error?.message ?? pick.error?.message ?? null}
        picking={plain !== null}
        onDraft={setDraft}
        onPoint={setPointed}
        onPick={() => (plain ? setPlain(null) : pick.mutate())}
        onDone={done}
        onNext={next}
        onEverywhere={() => everywhere.mutate()}
        onLeave={leave}
      />
    </div>
  );
}

/** What is decided is sent on the way: back to the framing, or on to the next picture. */
function useWays(picture: JobPicture, slot: JobSlot, draft: Draft, leave: () => void) {
  const store = useJobStore();
  const head = useHead();
  const [, go] = useLocation();
  const keep = () => {
    const decided = commandsFor(draft, picture, slot);
    if (decided.length > 0) void store.send(decided);
  };
  const done = () => {
    keep();
    leave();
  };
  const next = () => {
    keep();
    const index = head.pictures.findIndex((one) => one.picture.id === picture.picture.id);
    const other = head.pictures[(index + 1) % head.pictures.length]!;
    go(`/job/${store.id}/framing/${other.picture.id}?slot=${slot.address}&over`);
  };
  return { done, next };
}

/** In the field of words too: Enter is done, a new line is made with Shift. */
function typedKey(
  event: KeyboardEvent,
  { leave, done, next }: { leave: () => void; done: () => void; next: () => void },
): void {
  if (!(event.target instanceof HTMLTextAreaElement || event.target instanceof HTMLInputElement)) return;
  if (event.key === 'Escape') leave();
  else if (event.key === 'Enter' && !event.shiftKey && !event.altKey) {
    event.preventDefault();
    if (event.ctrlKey || event.metaKey) next();
    else done();
  }
}

/** Makes what is drawn over this picture the slot's rule. */
function useForEveryPicture(picture: JobPicture, slot: JobSlot, draft: Draft, leave: () => void) {
  const store = useJobStore();
  const cache = useQueryClient();
  const id = picture.picture.id;
  return useMutation({
    mutationFn: async () => {
      const at = { destination: slot.destination, slot: slot.slot.key };
      const kept = await cache.fetchQuery({ ...slotQuery(at.destination, at.slot), staleTime: 0 });
      await take(
        api.PUT('/api/destinations/{destination}/slots/{slot}', {
          params: { path: at },
          body: {
            rule: { ...(kept.rule as object), dress: isBare(draft) ? undefined : draft.dress },
            pattern: kept.pattern,
          },
        }),
      );
      // What was said about this picture alone is now what the slot says.
      await store.send([
        { do: 'give-words', picture: id, title: draft.words },
        { do: 'dress', picture: id, slot: slot.address, dress: null },
      ]);
    },
    onSuccess: () => {
      void cache.invalidateQueries({ queryKey: ['destinations'] });
      leave();
    },
  });
}

/** The pixels with nothing drawn over them, for picking a colour. */
function useBarePixels(path: CellPath, slot: string, onReady: (look: string) => void) {
  return useMutation({
    mutationFn: () =>
      take(
        api.POST('/api/jobs/{id}/cells/{picture}/{destination}/{slot}/preview', {
          params: { path },
          body: { commands: [{ do: 'dress', picture: path.picture, slot, dress: '{}' }], colours: false },
        }),
      ),
    onSuccess: (bare) => onReady(bare.id),
  });
}
