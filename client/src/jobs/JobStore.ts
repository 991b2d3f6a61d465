import {
  api,
  type Cell,
  type JobCommand,
  type JobEvent,
  type JobHead,
  type JobPicture,
  type JobProgress,
  type RunState,
  take,
} from '../api/client';
import { applied } from '../domain/commands';
import { t } from '../texts/texts';

export const cellKey = (picture: string, slot: string) => `${picture}|${slot}`;

/** All cells of a job, by picture and slot. */
export interface Cells {
  at(picture: string, slot: string): Cell | undefined;
  values(): Iterable<Cell>;
}

const cellsOf = (cells: ReadonlyMap<string, Cell>): Cells => ({
  at: (picture, slot) => cells.get(cellKey(picture, slot)),
  values: () => cells.values(),
});

/** How long an answered change may take to be told before the job is read again, in milliseconds. */
const patience = 5_000;

/** Commands that are on their way: shown already, and taken back should they be refused. */
interface Sent {
  commands: readonly JobCommand[];
  /** The sequence that was reached; null until the server answered. */
  reached: number | null;
}

interface Answer {
  data?: { sequence: number };
  error?: unknown;
  response: Response;
}

/**
 * One job as it stands on the server, kept in step by its events: other windows, the background and this window's own changes
 * all arrive the same way, each under the next number. A number that is missing is noticed, and the job read again. What is sent is shown
 * at once. Components subscribe to the piece they show.
 */
export class JobStore {
  /** The job as it is shown: as the server told, with what is on its way applied. */
  head: JobHead | null = null;
  progress: JobProgress | null = null;
  run: RunState = 'running';
  /** The last refusal, as a sentence. */
  fault: string | null = null;
  /** True while the server does not answer. */
  away = false;
  /** The cells as they are: another object with every change of any, for what is worked out over all of them. */
  all: Cells;
  /** True while cells of a large job are still to be read. */
  reading = false;
  /** The number of the last change that was taken in. */
  sequence = -1;
  readonly cells = new Map<string, Cell>();
  private told: JobHead | null = null;
  private pending: Sent[] = [];
  private early: JobEvent[] | null = null;
  private loads = 0;
  private readonly listeners = new Set<() => void>();
  private source: EventSource | null = null;
  private line: Promise<unknown> = Promise.resolve();
  private telling = false;
  private readonly params: { path: { id: string } };

  constructor(readonly id: string) {
    this.params = { path: { id } };
    this.all = cellsOf(this.cells);
  }

  private cellsChanged() {
    this.all = cellsOf(this.cells);
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
        if (this.away || (this.early === null && this.sequence !== event.sequence)) void this.load();
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

  /** Reads the job; what is told meanwhile waits until it is there. */
  async load() {
    const mine = ++this.loads;
    this.early ??= [];
    try {
      const job = await take(api.GET('/api/jobs/{id}', { params: this.params }));
      if (mine !== this.loads) return;
      this.cells.clear();
      for (const cell of job.cells) this.cells.set(cellKey(cell.picture, cell.slot), cell);
      this.told = job.head as JobHead;
      this.sequence = job.head.sequence;
      this.run = job.head.run;
      this.progress = job.progress;
      this.fault = null;
      const early = this.early ?? [];
      this.early = null;
      for (const event of early) if (event.sequence > this.sequence) this.apply(event);
      this.settle();
      if (job.more !== null) void this.readMore(job.more, mine);
    } catch (fault) {
      if (mine !== this.loads) return;
      this.early = null;
      this.fault = (fault as Error).message;
    }
    this.cellsChanged();
    this.tell();
  }

  /** The rest of a large job, part by part; the first screen is there already. */
  private async readMore(from: number, mine: number) {
    this.reading = true;
    for (let next: number | null = from; next !== null && mine === this.loads;) {
      const answer = await this.part(next, mine);
      if (mine !== this.loads) return;
      if (answer === null) {
        // What is shown is not all: it goes on to say that it is being read.
        this.say(t('jobs.aPartOfThisJobCould'));
        return;
      }
      this.takeCells(answer.cells);
      next = answer.more;
      this.cellsChanged();
      this.tell();
    }
    this.reading = false;
    this.tell();
  }

  /** One part of the cells, tried a few times; null where it cannot be had. */
  private async part(from: number, mine: number): Promise<{ cells: Cell[]; more: number | null } | null> {
    for (const pause of [500, 2000, null]) {
      try {
        return await take(api.GET('/api/jobs/{id}/cells', { params: { ...this.params, query: { from } } }));
      } catch {
        if (pause === null || mine !== this.loads) return null;
        await new Promise((done) => setTimeout(done, pause));
      }
    }
    return null;
  }

  apply(event: JobEvent) {
    if (this.early !== null) {
      this.early.push(event);
      return;
    }
    if (event.sequence < this.sequence || !this.told) return;
    if (event.sequence > this.sequence + 1 || event.reread) {
      void this.load();
      return;
    }
    this.sequence = event.sequence;
    this.told = merged(this.told, event);
    this.takeCells(event.cells);
    if (event.cells.length > 0 || event.order || event.slots) this.cellsChanged();
    this.progress = event.progress;
    this.run = event.run;
    this.settle();
    this.tell();
  }

  private takeCells(cells: readonly Cell[]) {
    for (const cell of cells) {
      const key = cellKey(cell.picture, cell.slot);
      if ((this.cells.get(key)?.sequence ?? -1) <= cell.sequence) this.cells.set(key, cell);
    }
  }

  /** What was told takes the place of what was shown ahead of it. */
  private settle() {
    this.pending = this.pending.filter((sent) => sent.reached === null || sent.reached > this.sequence);
    const cellOf = (picture: string, slot: string) => this.cells.get(cellKey(picture, slot));
    const commands = this.pending.flatMap((sent) => sent.commands);
    this.head = this.told && (commands.length > 0 ? applied(this.told, commands, cellOf) : this.told);
  }

  /** How many changes are on their way to the server. */
  get onTheirWay() {
    return this.pending.length;
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  private tell() {
    if (this.telling) return;
    this.telling = true;
    // Many events in one frame are drawn once.
    queueMicrotask(() => {
      this.telling = false;
      for (const listener of this.listeners) listener();
    });
  }

  /** Calls one after the other; a refusal is said and stops nothing. True once the change is told. */
  private call(call: () => Promise<Answer>, sent?: Sent): Promise<boolean> {
    const done = this.line.then(async () => {
      try {
        const { sequence } = await take(call());
        if (sent) sent.reached = sequence;
        this.fault = null;
        // The event may have come before the answer did.
        this.settle();
        this.tell();
        await this.seen(sequence);
        return true;
      } catch (fault) {
        this.fault = (fault as Error).message;
        this.pending = this.pending.filter((one) => one !== sent);
        this.settle();
        // What was shown of cells ahead of the answer is taken back as well.
        if (sent) void this.load().then(() => this.say((fault as Error).message));
        this.tell();
        return false;
      }
    });
    this.line = done;
    return done;
  }

  /** Waits until a change is told; reads again should that not come. */
  private async seen(sequence: number) {
    const until = performance.now() + patience;
    while (this.sequence < sequence) {
      if (performance.now() > until) return this.load();
      await new Promise((done) => setTimeout(done, 8));
    }
  }

  private say(fault: string) {
    this.fault = fault;
    this.tell();
  }

  dismiss() {
    this.fault = null;
    this.tell();
  }

  /** Sends what was decided, all or none, as one step or as a part of a gesture's; it is shown at once. */
  send(commands: readonly JobCommand[], gesture: string | null = null): Promise<boolean> {
    if (commands.length === 0) return Promise.resolve(true);
    const sent: Sent = { commands, reached: null };
    this.pending.push(sent);
    this.ahead(commands);
    this.settle();
    this.tell();
    const body = { commands: [...commands], id: crypto.randomUUID(), gesture, actor: null };
    return this.call(() => api.POST('/api/jobs/{id}/commands', { params: this.params, body }), sent);
  }

  /** What was found good wants no look any more, before the server says so: whoever goes on to the next is not led back. */
  private ahead(commands: readonly JobCommand[]) {
    for (const command of commands) {
      if (command.do !== 'accept') continue;
      const key = cellKey(command.picture, command.slot);
      const cell = this.cells.get(key);
      if (!cell) continue;
      const looks = cell.looks.filter((code) => command.reasons && !command.reasons.includes(code));
      this.cells.set(key, { ...cell, looks });
      this.cellsChanged();
    }
  }

  undo = () => this.call(() => api.POST('/api/jobs/{id}/undo', { params: this.params }));
  redo = () => this.call(() => api.POST('/api/jobs/{id}/redo', { params: this.params }));

  name(named: { name?: string; prefix?: string; numbered?: boolean; patterns?: Record<string, string> }) {
    return this.send([{ do: 'name-job', ...named }]);
  }

  addPictures(pictures: string[]) {
    return this.send([{ do: 'add-pictures', pictures }]);
  }

  /** Puts pictures side by side, in the place of such as they take the place of; null where that is refused. */
  async pair(pictures: string[], instead: string | null = null): Promise<string | null> {
    let made: string | null = null;
    const done = await this.call(async () => {
      const answer = await api.POST('/api/jobs/{id}/pairs', {
        params: this.params,
        body: { pictures, instead },
      });
      made = answer.data?.picture ?? null;
      return answer;
    });
    return done ? made : null;
  }

  removePictures(pictures: string[]) {
    return this.send([{ do: 'remove-pictures', pictures }]);
  }

  /** Ticks some slots and unticks others. */
  tick(slots: string[], on: boolean) {
    return this.send([{ do: on ? 'tick-slots' : 'untick-slots', slots }]);
  }

  setRun(run: RunState) {
    return this.call(() => api.PUT('/api/jobs/{id}/run', { params: this.params, body: { run } }));
  }

  again(cells: { picture: string; slot: string }[]) {
    return this.call(() => api.POST('/api/jobs/{id}/again', { params: this.params, body: cells }));
  }

  lookAt(pictures: string[], slots: string[]) {
    void api
      .PUT('/api/jobs/{id}/look', { params: this.params, body: { pictures, slots } })
      .catch(() => undefined);
  }
}

/** The job after an event: only what the event tells is another object. */
function merged(head: JobHead, event: JobEvent): JobHead {
  let next = event.title ? { ...head, ...event.title } : head;
  if (event.slots) next = { ...next, slots: event.slots };
  if (!event.pictures && !event.order) return next;
  const known = new Map(next.pictures.map((one) => [one.picture.id, one]));
  for (const one of (event.pictures ?? []) as JobPicture[]) known.set(one.picture.id, one);
  const order = event.order ?? next.pictures.map((one) => one.picture.id);
  return { ...next, pictures: order.flatMap((id) => known.get(id) ?? []) };
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
