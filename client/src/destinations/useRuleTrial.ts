import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, type Picture, take, type Trial } from '../api/client';
import { useLibraryPage } from '../api/queries';
import type { SlotForm } from '../forms/slotForm';

/** How long a rule rests before a file is made by it, in milliseconds: longer than between two keys. */
const rest = 450;

export interface RuleTrial {
  /** The picture that the rule is tried on; null where there is none yet. */
  picture: Picture | null;
  trial: Trial | null;
  working: boolean;
  fault: string | null;
  /** Takes another picture; null where there is only one. */
  another: ((by: number) => void) | null;
}

/** The file that a rule leads to on one of the newest pictures, made again whenever the rule rests. */
export function useRuleTrial(destination: string, { draft, check }: SlotForm): RuleTrial {
  const library = useLibraryPage('', 0);
  const [index, setIndex] = useState(0);
  const pictures = library.data?.pictures ?? [];
  const picture = pictures[index % Math.max(1, pictures.length)] ?? null;
  const now = JSON.stringify(draft);
  const [rested, setRested] = useState(now);
  useEffect(() => {
    const timer = setTimeout(() => setRested(now), rest);
    return () => clearTimeout(timer);
  }, [now]);
  const faulty = check?.fault != null;
  const asked = useQuery({
    queryKey: ['rule-trial', picture?.id, rested],
    queryFn: ({ signal }) => {
      const body = JSON.parse(rested) as typeof draft;
      const slot = String(body.rule.key ?? '') || 'new-slot';
      return take(
        api.POST('/api/destinations/{destination}/slots/{slot}/trial/{picture}', {
          signal,
          params: { path: { destination, slot, picture: picture!.id } },
          body,
        }),
      );
    },
    enabled: picture !== null && check !== null && !faulty,
    placeholderData: (previous) => previous,
    retry: false,
    gcTime: 60_000,
  });
  return {
    picture,
    trial: faulty ? null : (asked.data ?? null),
    working: asked.isFetching,
    fault: asked.error?.message ?? null,
    another:
      pictures.length > 1 ? (by) => setIndex((at) => (at + by + pictures.length) % pictures.length) : null,
  };
}
