import { useQuery } from '@tanstack/react-query';
import { createContext, type ReactNode, useContext, useMemo } from 'react';
import { api, type CellAnswer, take } from '../api/client';

const every = 5_000;
const nothing: readonly CellAnswer[] = [];

const Said = createContext<ReadonlyMap<string, readonly CellAnswer[]>>(new Map());

/** What receivers said of the files that the cells have now, for all that lies within. */
export function SaidOfJob({ job, children }: { job: string; children: ReactNode }) {
  const said = useQuery({
    queryKey: ['deliveries', job, 'said'],
    queryFn: async ({ signal }) =>
      (await take(
        api.GET('/api/jobs/{id}/deliveries/said', { signal, params: { path: { id: job } } }),
      )) as CellAnswer[],
    staleTime: 0,
    // A file that changes takes with it what was said of the one before.
    refetchInterval: ({ state }) => (state.data?.length ? every : false),
  });
  const byCell = useMemo(
    () => Map.groupBy(said.data ?? [], ({ picture, slot }) => `${picture}|${slot}`),
    [said.data],
  );
  return <Said value={byCell}>{children}</Said>;
}

/** What receivers said of the files of a cell. */
export function useSaid(picture: string, slot: string): readonly CellAnswer[] {
  return useContext(Said).get(`${picture}|${slot}`) ?? nothing;
}

/** True where a receiver did not take a file of a cell. */
export const isUnwanted = (said: readonly CellAnswer[]) => said.some((one) => one.standing !== 'accepted');
