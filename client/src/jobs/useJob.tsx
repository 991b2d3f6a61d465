import { createContext, type ReactNode, useContext, useEffect, useState, useSyncExternalStore } from 'react';
import type { Cell, JobHead } from '../api/client';
import { Notice } from '../design/Notice';
import { cellKey } from '../domain/jobState';
import { type Cells, JobStore } from './JobStore';
import { t } from '../texts/texts';

const Context = createContext<JobStore | null>(null);

/** Opens a job for everything inside; shows what is wrong when it cannot be read. */
export function JobRoom({ id, children }: { id: string; children: ReactNode }) {
  const [store, setStore] = useState(() => new JobStore(id));
  if (store.id !== id) setStore(new JobStore(id));
  useEffect(() => store.open(), [store]);
  const ready = useSyncExternalStore(store.subscribe, () => store.head !== null);
  const fault = useSyncExternalStore(store.subscribe, () => store.fault);
  if (!ready) return <Notice>{fault ?? t('jobs.loadingTheJob')}</Notice>;
  return <Context value={store}>{children}</Context>;
}

export function useJobStore(): JobStore {
  const store = useContext(Context);
  if (!store) throw new Error('useJobStore outside of a JobRoom');
  return store;
}

/** A piece of the job that is drawn anew when it changes. It must give the same object while nothing changed. */
export function useJob<T>(pick: (store: JobStore) => T): T {
  const store = useJobStore();
  return useSyncExternalStore(store.subscribe, () => pick(store));
}

export const useHead = (): JobHead => useJob((store) => store.head!);

/** All cells: what is worked out from them is worked out again when any changes. */
export const useCells = (): Cells => useJob((store) => store.all);

export const useCell = (picture: string, slot: string): Cell | undefined =>
  useJob((store) => store.cells.get(cellKey(picture, slot)));
