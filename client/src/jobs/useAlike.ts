import { useQuery } from '@tanstack/react-query';
import { api, take } from '../api/client';
import type { AlikeGroups } from '../domain/alike';
import { useHead, useJobStore } from './useJob';

const none: AlikeGroups = [];

/** The pictures of the job that can be framed as one; asked for again when pictures come, go or are turned. */
export function useAlike(): AlikeGroups {
  const { id } = useJobStore();
  const { pictures } = useHead();
  const asked = pictures.map((one) => `${one.picture.id} ${one.decisions.turn.quarters}`).join();
  const { data } = useQuery({
    queryKey: ['alike', id, asked],
    queryFn: ({ signal }) => take(api.GET('/api/jobs/{id}/alike', { signal, params: { path: { id } } })),
    enabled: pictures.length > 1,
    staleTime: Infinity,
    placeholderData: (previous) => previous,
  });
  return data ?? none;
}
