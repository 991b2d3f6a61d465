import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { api, rightsChanged, take } from './client';
import type { components } from './schema';

type Schemas = components['schemas'];
export type Me = Schemas['Me'];
export type Right = Schemas['Right'];
/** A role; what may have none is described as if every role could be none. */
export type Role = NonNullable<Schemas['Role']>;
export type LinkView = Schemas['LinkView'];

/** Who uses this browser, and what they may do. */
export function useMe() {
  return useQuery({
    queryKey: ['me'],
    queryFn: ({ signal }) => take(api.GET('/api/me', { signal })),
    staleTime: 60_000,
  });
}

/** Whether they may do something; false until it is known. */
export function useMay(right: Right): boolean {
  return useMe().data?.rights.includes(right) ?? false;
}

/** Asks again who it is, and what they may do, when the server refused something or ended a stream of events. */
export function useRightsChanged() {
  const cache = useQueryClient();
  useEffect(() => {
    const ask = () => void cache.invalidateQueries({ queryKey: ['me'] });
    window.addEventListener(rightsChanged, ask);
    return () => window.removeEventListener(rightsChanged, ask);
  }, [cache]);
}
