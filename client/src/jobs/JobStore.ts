import {
  api,
  type Cell,
  type Decisions,
  type JobEvent,
  type JobHead,
  type JobProgress,
  type RunState,
  take,
} from '../api/client';

export const cellKey = (picture: string, slot: string) => `${picture}|${slot}`;

/**
 * One job as it stands on the server, kept in step by its events: other windows, the background and this window's own changes
 * all arrive the same way. Components subscribe to the piece they show.
 */
export class JobStore {
  head: JobHead | null = null;
  progress: JobProgress | null = null;
  run: RunState = 'running';
  /** The last refusal, as a sentence. */
  fault: string | null = null;
  /** True while the server does not answer. */
  away = false;
  /** Raised with every change of cells, for what is counted over all of them. */
  cellsVersion = 0;
  readonly cells = new Map<string, Cell>();
  private readonly listeners = new Set<() => void>();
  private source: EventSource | null = null;
  private line: Promise<unknown> = Promise.resolve();
  private told = false;
  private readonly params: { path: { id: string } };

  constructor(readonly id: string) {
    this.params = { path: { id } };
  }

  /** Reads the job and listens to it until the returned function is called. */
  open(): () => void {
    void this.load();
    const source = new EventSource(`/api/jobs/${this.id}/events`);
    this.source = source;
    let first = true;
    source.addEventListener('job', (message) => {
      const event = JSON.parse((message as MessageEvent<string>).data) as JobEvent;
      if (first) {
        first = false;
        // What happened between reading and listening, or while the server was away, is read again.
        if (this.away || (this.head && this.head.version !== event.version)) void this.load();
        if (this.away) fetchMissingImages();
        this.away = false;
      }
      this.apply(event);
    });
    source.onerror = () => {
      first = true;
      this.away = true;
      this.tell();
    };
    return () => {
      source.close();
      if (this.source === source) this.source = null;
    };
  }

  async load() {
    try {
      const job = await take(api.GET('/api/jobs/{id}', { params: this.params }));
      this.cells.clear();
      for (const cell of job.cells) this.cells.set(cellKey(cell.picture, cell.slot), cell);
      this.head = job.head as JobHead;
      this.run = job.head.run;
      this.progress = job.progress;
      this.fault = null;
    } catch (fault) {
      this.fault = (fault as Error).message;
    }
    this.cellsVersion++;
    this.tell();
  }

  apply(event: JobEvent) {
    if (event.head && (!this.head || event.head.version >= this.head.version)) this.head = event.head;
    for (const cell of event.cells) this.cells.set(cellKey(cell.picture, cell.slot), cell);
    if (event.cells.length > 0 || event.head) this.cellsVersion++;
    this.progress = event.progress;
    this.run = event.run;
    this.tell();
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  private tell() {
    if (this.told) return;
    this.told = true;
    // Many events in one frame are drawn once.
    queueMicrotask(() => {
      this.told = false;
      for (const listener of this.listeners) listener();
    });
  }

  /** Sends changes one after the other; a refusal is said and stops nothing. */
  private send(
    call: () => Promise<{ data?: unknown; error?: unknown; response: Response }>,
  ): Promise<boolean> {
    const sent = this.line.then(async () => {
      try {
        this.apply((await take(call())) as JobEvent);
        this.fault = null;
        return true;
      } catch (fault) {
        this.fault = (fault as Error).message;
        this.tell();
        return false;
      }
    });
    this.line = sent;
    return sent;
  }

  dismiss() {
    this.fault = null;
    this.tell();
  }

  decisionsOf(picture: string): Decisions | undefined {
    return this.head?.pictures.find((one) => one.picture.id === picture)?.decisions;
  }

  /** Sets the decisions about some pictures, as one step. */
  decide(changes: { picture: string; decisions: Decisions }[]) {
    if (changes.length === 0) return Promise.resolve(true);
    return this.send(() => api.PUT('/api/jobs/{id}/decisions', { params: this.params, body: changes }));
  }

  undo = () => this.send(() => api.POST('/api/jobs/{id}/undo', { params: this.params }));
  redo = () => this.send(() => api.POST('/api/jobs/{id}/redo', { params: this.params }));

  name(body: { name?: string; prefix?: string; numbered?: boolean; patterns?: Record<string, string> }) {
    return this.send(() =>
      api.PUT('/api/jobs/{id}/names', {
        params: this.params,
        body: { name: null, prefix: null, numbered: null, patterns: null, ...body },
      }),
    );
  }

  addPictures(pictures: string[]) {
    return this.send(() => api.POST('/api/jobs/{id}/pictures', { params: this.params, body: pictures }));
  }

  removePictures(pictures: string[]) {
    return this.send(() =>
      api.POST('/api/jobs/{id}/pictures/remove', { params: this.params, body: pictures }),
    );
  }

  setSlots(addresses: string[]) {
    const body = addresses.map((address) => {
      const [destination = '', slot = ''] = address.split('/');
      return { destination, slot, choice: null };
    });
    return this.send(() => api.PUT('/api/jobs/{id}/slots', { params: this.params, body }));
  }

  chooseForSlots(slots: string[] | null, choice: { format: string | null; quality: number | null } | null) {
    return this.send(() =>
      api.PUT('/api/jobs/{id}/slots/choice', { params: this.params, body: { slots, choice } }),
    );
  }

  setRun(run: RunState) {
    return this.send(() => api.PUT('/api/jobs/{id}/run', { params: this.params, body: { run } }));
  }

  again(cells: { picture: string; slot: string }[]) {
    return this.send(() => api.POST('/api/jobs/{id}/again', { params: this.params, body: cells }));
  }

  lookAt(pictures: string[], slots: string[]) {
    void api
      .PUT('/api/jobs/{id}/look', { params: this.params, body: { pictures, slots } })
      .catch(() => undefined);
  }
}

/** Images that could not be fetched while the server was away stay empty unless they are asked for again. */
function fetchMissingImages() {
  for (const image of document.images)
    if (image.complete && image.naturalWidth === 0 && image.src) {
      const { src } = image;
      image.src = '';
      image.src = src;
    }
}
