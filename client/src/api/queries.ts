import { useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import {
  api,
  type Asked,
  type Cell,
  type JobSummary,
  type FolderList,
  type PictureFolder,
  type PageElement,
  type PageOfJob,
  type ReceiverDelivery,
  type Survival,
  take,
} from './client';
import { listen } from './listen';

/** How many pictures of the library are asked for at once. */
export const pageSize = 60;

const libraryPage = (search: string, page: number) => ({
  queryKey: ['pictures', 'page', search, page],
  queryFn: ({ signal }: Asked) =>
    take(
      api.GET('/api/pictures/page', {
        signal,
        params: { query: { search, from: page * pageSize, count: pageSize } },
      }),
    ),
});

/** A part of the library, the newest first; of those only that hold what is searched for. */
export function useLibraryPage(search: string, page: number) {
  return useQuery({ ...libraryPage(search, page), placeholderData: (previous) => previous });
}

/** Which jobs have which slots, the newest job first. */
export function useSlotUses() {
  return useQuery({
    queryKey: ['slot-uses'],
    queryFn: ({ signal }) => take(api.GET('/api/destinations/uses', { signal })),
    staleTime: 0,
  });
}

/** The parts of the library in which what is on the screen lies. */
export function useLibraryPages(search: string, pages: readonly number[]) {
  return useQueries({ queries: pages.map((page) => libraryPage(search, page)) });
}

/** One picture of the library. */
export function usePicture(id: string | null) {
  return useQuery({
    queryKey: ['pictures', 'one', id],
    queryFn: ({ signal }) => take(api.GET('/api/pictures/{id}', { signal, params: { path: { id: id! } } })),
    enabled: id !== null,
  });
}

export function useRemoved() {
  return useQuery({
    queryKey: ['pictures', 'removed'],
    queryFn: ({ signal }) => take(api.GET('/api/pictures/removed', { signal })),
  });
}

export function useRevisions(id: string, revision: number) {
  return useQuery({
    queryKey: ['pictures', id, 'revisions', revision],
    queryFn: ({ signal }) =>
      take(api.GET('/api/pictures/{id}/revisions', { signal, params: { path: { id } } })),
  });
}

export function useDestinations() {
  return useQuery({
    queryKey: ['destinations'],
    queryFn: ({ signal }) => take(api.GET('/api/destinations', { signal })),
  });
}

/** All jobs, the newest first; what changes while one looks is told by the server. */
export function useJobs() {
  const cache = useQueryClient();
  const loaded = useQuery({
    queryKey: ['jobs'],
    queryFn: ({ signal }) => take(api.GET('/api/jobs', { signal })),
    staleTime: 0,
  });
  const there = loaded.isSuccess;
  useEffect(() => {
    if (!there) return;
    return listen<JobSummary[]>('/api/jobs/events', 'jobs', {
      event: (changed) =>
        cache.setQueryData<JobSummary[]>(['jobs'], (known = []) =>
          [...known.filter((one) => !changed.some((other) => other.id === one.id)), ...changed].toSorted(
            (a, b) => Date.parse(b.createdAt) - Date.parse(a.createdAt),
          ),
        ),
    });
  }, [cache, there]);
  return loaded;
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
        files: cell.files.map((file) => [file.id, file.made, file.allowed]),
      },
    ],
    queryFn: ({ signal }) =>
      take(
        api.GET('/api/jobs/{id}/cells/{picture}/{destination}/{slot}', {
          signal,
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

const second = 1000;

/** The pages that are checked; asked for again while one is under way. */
export function usePageChecks() {
  return useQuery({
    queryKey: ['page-checks'],
    queryFn: ({ signal }) => take(api.GET('/api/page-checks', { signal })),
    staleTime: 0,
    refetchInterval: ({ state }) => (state.data?.some((one) => one.state === 'waiting') ? second : false),
  });
}

/** A page check with what was measured; asked for again while it is under way. */
export function usePageCheck(id: string) {
  return useQuery({
    queryKey: ['page-checks', id],
    queryFn: ({ signal }) => take(api.GET('/api/page-checks/{id}', { signal, params: { path: { id } } })),
    staleTime: 0,
    refetchInterval: ({ state }) => (state.data?.check.state === 'waiting' ? second : false),
  });
}

/** The page that a job was made of; null for a job that was made of none. Asked for again while it is mended. */
export function usePageOfJob(id: string) {
  return useQuery({
    queryKey: ['page-of-job', id],
    queryFn: async ({ signal }) =>
      (await take<PageOfJob | undefined>(
        api.GET('/api/jobs/{id}/page', { signal, params: { path: { id } } }),
      )) ?? null,
    refetchInterval: ({ state }) => (state.data?.state === 'waiting' ? second : false),
  });
}

/** Each receiver and where the job's files stand with it; asked for again while one is under way, and when the job changes. */
export function useReceiverDeliveries(job: string, sequence: number) {
  return useQuery({
    queryKey: ['deliveries', job, sequence],
    queryFn: async ({ signal }) =>
      (await take(
        api.GET('/api/jobs/{id}/deliveries', { signal, params: { path: { id: job } } }),
      )) as ReceiverDelivery[],
    placeholderData: (previous) => previous,
    refetchInterval: ({ state }) => (state.data?.some((one) => one.state === 'waiting') ? second : false),
    gcTime: 10_000,
  });
}

/** What was tried with a file at a receiver; null where nothing was. Asked for again while it is under way. */
export function useSurvival(job: string, receiver: string, path: string) {
  return useQuery({
    queryKey: ['survival', job, receiver, path],
    queryFn: async ({ signal }) =>
      (await take<Survival | undefined>(
        api.GET('/api/jobs/{id}/deliveries/{receiver}/survival', {
          signal,
          params: { path: { id: job, receiver }, query: { path } },
        }) as Promise<{ data?: Survival; response: Response }>,
      )) ?? null,
    refetchInterval: ({ state }) => (state.data?.state === 'waiting' ? second : false),
  });
}

const isBusy = (one: PictureFolder | undefined) =>
  one !== undefined && one.state !== 'ready' && one.state !== 'paused' && one.state !== 'receiving';

/** The folders of pictures that are optimised; asked for again while something is under way. */
export function useFolders() {
  return useQuery({
    queryKey: ['folders'],
    queryFn: async ({ signal }) => (await take(api.GET('/api/folders', { signal }))) as FolderList,
    staleTime: 0,
    refetchInterval: ({ state }) => (state.data?.folders.some(isBusy) ? second : false),
  });
}

/** One of them. */
export function useFolder(id: string) {
  return useQuery({
    queryKey: ['folders', id],
    queryFn: async ({ signal }) =>
      (await take(api.GET('/api/folders/{id}', { signal, params: { path: { id } } }))) as PictureFolder,
    staleTime: 0,
    refetchInterval: ({ state }) => (isBusy(state.data) ? second : false),
  });
}

/** How many pictures of a folder are asked for at once. */
export const folderPart = 200;

/** A part of its pictures, the heaviest first; read anew when something became of them. */
export function useFolderPictures(id: string, show: string, from: number, version: string) {
  return useQuery({
    queryKey: ['folders', id, 'pictures', show, from, version],
    queryFn: ({ signal }) =>
      take(
        api.GET('/api/folders/{id}/pictures', {
          signal,
          params: { path: { id }, query: { show, from, count: folderPart } },
        }),
      ),
    placeholderData: (previous) => previous,
    gcTime: 10_000,
  });
}

/** The elements of a page on a screen of a width; read once for each measuring. */
export function usePageElements(id: string, viewport: number, version: string, wanted: boolean) {
  return useQuery({
    queryKey: ['page-checks', id, 'elements', viewport, version],
    queryFn: ({ signal }) =>
      take(
        api.GET('/api/page-checks/{id}/elements/{viewport}', { signal, params: { path: { id, viewport } } }),
      ) as Promise<PageElement[]>,
    enabled: wanted,
    staleTime: Infinity,
  });
}

/** The logos and fonts that rules can name. */
export const sideFilesQuery = {
  queryKey: ['side-files'],
  queryFn: ({ signal }: Asked) => take(api.GET('/api/side-files', { signal })),
};

/** The fonts that titles can be set in; they come with the application. */
export const fontsQuery = {
  queryKey: ['fonts'],
  queryFn: ({ signal }: Asked) => take(api.GET('/api/fonts', { signal })),
  staleTime: Infinity,
};
