import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, take } from '../api/client';
import type { components } from '../api/schema';

export type Comment = components['schemas']['CommentView'];

/** What was said about the cells of a job. */
export function useComments(job: string) {
  return useQuery({
    queryKey: ['comments', job],
    queryFn: ({ signal }) =>
      take(api.GET('/api/jobs/{id}/comments', { signal, params: { path: { id: job } } })),
  });
}

/** Says something about a cell, accepts it, or both; and says that something was dealt with. */
export function useCommenting(job: string) {
  const cache = useQueryClient();
  // What is shown ahead of the answer stays until it is read again.
  const again = () => cache.invalidateQueries({ queryKey: ['comments', job] });
  const add = useMutation({
    mutationFn: (body: { picture: string; slot: string; text: string; accepts: boolean }) =>
      take(api.POST('/api/jobs/{id}/comments', { params: { path: { id: job } }, body })),
    onSettled: again,
  });
  const resolve = useMutation({
    mutationFn: ({ comment, resolved }: { comment: string; resolved: boolean }) =>
      take(
        api.PUT('/api/jobs/{id}/comments/{comment}', {
          params: { path: { id: job, comment } },
          body: { resolved },
        }),
      ),
    onSettled: again,
  });
  return { add, resolve };
}
