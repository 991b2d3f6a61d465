import { useCallback } from 'react';
import { useLocation, useSearchParams } from 'wouter';
import type { JobPicture, JobSlot } from '../api/client';
import { cellKey } from '../domain/jobState';
import { useHead, useJobStore } from '../jobs/useJob';

/** Where one goes from a picture in a slot: to another slot, another picture, the next look, on and back. */
export function useGoing(picture: JobPicture, slot: JobSlot, slots: readonly JobSlot[]) {
  const store = useJobStore();
  const head = useHead();
  const [, go] = useLocation();
  const [, setSearch] = useSearchParams();
  const id = picture.picture.id;
  // A slot that takes pictures side by side leads to those that this one is a part of.
  const activate = useCallback(
    (address: string) => {
      const count = slots.find((one) => one.address === address)?.slot.pair;
      const pair =
        count && head.pictures.find((one) => one.parts?.length === count && one.parts.includes(id));
      if (pair) go(`/job/${store.id}/framing/${pair.picture.id}?slot=${address}`);
      else setSearch({ slot: address }, { replace: true });
    },
    [slots, head.pictures, id, go, store.id, setSearch],
  );
  return {
    activate,
    bench: () => go(`/job/${store.id}`),
    weigh: () => go(`/job/${store.id}/weighing/${id}/${slot.address}`),
    over: () => setSearch({ slot: slot.address, over: '' }, { replace: true }),
    /** To another picture in the same slot. */
    here: (other: string) => go(`/job/${store.id}/framing/${other}?slot=${slot.address}`, { replace: true }),
    /** To the marks of another picture, in a slot that takes it alone. */
    frame: (other: string) => {
      const alone = head.slots.find((one) => one.slot.pair == null) ?? slot;
      go(`/job/${store.id}/framing/${other}?slot=${alone.address}`);
    },
    nextSlot: (by: number) => {
      const index = slots.findIndex((one) => one.address === slot.address);
      activate(slots[(index + by + slots.length) % slots.length]!.address);
    },
    neighbour: (by: number) => {
      const index = head.pictures.findIndex((one) => one.picture.id === id);
      const next = head.pictures[(index + by + head.pictures.length) % head.pictures.length]!;
      go(`/job/${store.id}/framing/${next.picture.id}?slot=${slot.address}`);
    },
    nextToReview: () => {
      const cells = head.pictures.flatMap((one) => head.slots.map((other) => ({ one, other })));
      const from = cells.findIndex(
        ({ one, other }) => one.picture.id === id && other.address === slot.address,
      );
      for (let i = 1; i <= cells.length; i++) {
        const { one, other } = cells[(from + i) % cells.length]!;
        if ((store.cells.get(cellKey(one.picture.id, other.address))?.toReview.length ?? 0) > 0)
          return go(`/job/${store.id}/framing/${one.picture.id}?slot=${other.address}`);
      }
    },
  };
}
