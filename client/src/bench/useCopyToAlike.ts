import { useLocation } from 'wouter';
import { alikeTo } from '../domain/alike';
import type { Chosen } from '../jobs/actions';
import { useAlike } from '../jobs/useAlike';
import { useJobStore } from '../jobs/useJob';

/** Copying the frames of a chosen picture to those that are alike to it; null where there are none. */
export function useCopyToAlike(one: Chosen | null | undefined): { count: number; act: () => void } | null {
  const store = useJobStore();
  const [, go] = useLocation();
  const groups = useAlike();
  const count = one ? alikeTo(groups, one.picture.picture.id).length - 1 : 0;
  if (!one || count < 1) return null;
  const act = () => go(`/job/${store.id}/framing/${one.picture.picture.id}?slot=${one.slot.address}&copy`);
  return { count, act };
}
