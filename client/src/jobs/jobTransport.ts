import { listen } from '../api/listen';
import { newId } from '../api/newId';
import { api, type Cell, type JobCommand, type JobEvent, type RunState, take } from '../api/client';

/** The calls of the server about one job. */
export function jobTransport(id: string) {
  const params = { path: { id } };
  return {
    read: () => take(api.GET('/api/jobs/{id}', { params })),
    /** One part of the cells of a large job, tried a few times; null where it cannot be had, or is not wanted any more. */
    async cells(from: number, wanted: () => boolean): Promise<{ cells: Cell[]; more: number | null } | null> {
      for (const pause of [500, 2000, null]) {
        try {
          return await take(api.GET('/api/jobs/{id}/cells', { params: { ...params, query: { from } } }));
        } catch {
          if (pause === null || !wanted()) return null;
          await new Promise((done) => setTimeout(done, pause));
        }
      }
      return null;
    },
    send: (commands: readonly JobCommand[], gesture: string | null) =>
      api.POST('/api/jobs/{id}/commands', {
        params,
        body: { commands: [...commands], id: newId(), gesture, actor: null },
      }),
    undo: () => api.POST('/api/jobs/{id}/undo', { params }),
    redo: () => api.POST('/api/jobs/{id}/redo', { params }),
    pair: (pictures: string[], instead: string | null) =>
      api.POST('/api/jobs/{id}/pairs', { params, body: { pictures, instead } }),
    run: (run: RunState) => api.PUT('/api/jobs/{id}/run', { params, body: { run } }),
    remake: (cells: { picture: string; slot: string }[]) =>
      api.POST('/api/jobs/{id}/remake', { params, body: cells }),
    viewport: (pictures: string[], slots: string[]) =>
      api.PUT('/api/jobs/{id}/viewport', { params, body: { pictures, slots } }),
    /**
     * Listens to the job's events until the returned function is called. The first event after each connection only tells
     * where the job stands.
     */
    events(on: { first: (event: JobEvent) => void; event: (event: JobEvent) => void; lost: () => void }) {
      let isFirst = true;
      return listen<JobEvent>(`/api/jobs/${id}/events`, 'job', {
        event: (event) => {
          if (isFirst) on.first(event);
          isFirst = false;
          on.event(event);
        },
        lost: () => {
          isFirst = true;
          on.lost();
        },
      });
    },
  };
}
