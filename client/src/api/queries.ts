import { useQuery } from '@tanstack/react-query';
import { api, type Cell, take } from './client';

export function usePictures() {
  return useQuery({ queryKey: ['pictures'], queryFn: () => take(api.GET('/api/pictures')) });
}

export function useRemoved() {
  return useQuery({
    queryKey: ['pictures', 'removed'],
    queryFn: () => take(api.GET('/api/pictures/removed')),
  });
}

export function useRevisions(id: string, revision: number) {
  return useQuery({
    queryKey: ['pictures', id, 'revisions', revision],
    queryFn: () => take(api.GET('/api/pictures/{id}/revisions', { params: { path: { id } } })),
  });
}

export function useDestinations() {
  return useQuery({ queryKey: ['destinations'], queryFn: () => take(api.GET('/api/destinations')) });
}

export function useJobs() {
  return useQuery({
    queryKey: ['jobs'],
    queryFn: () => take(api.GET('/api/jobs')),
    // Progress goes on while one looks.
    refetchInterval: 3000,
    staleTime: 0,
  });
}

/** A cell with its reasons in sentences; read again whenever the cell changes. */
export function useCellDetail(job: string, cell: Cell | undefined) {
  const [destination = '', slot = ''] = cell?.slot.split('/') ?? [];
  return useQuery({
    // That a file is on its way changes nothing that is said about the cell.
    queryKey: [
      'cell',
      job,
      cell && {
        ...cell,
        state: null,
        files: cell.files.map((file) => [file.id, file.made, file.letThrough]),
      },
    ],
    queryFn: () =>
      take(
        api.GET('/api/jobs/{id}/cells/{picture}/{destination}/{slot}', {
          params: { path: { id: job, picture: cell!.picture, destination, slot } },
        }),
      ),
    enabled: cell !== undefined,
    placeholderData: (previous) =>
      previous?.cell.picture === cell?.picture && previous?.cell.slot === cell?.slot ? previous : undefined,
    staleTime: Infinity,
    gcTime: 10_000,
  });
}
