import { type Cell, type JobCommand, type JobEvent, type JobHead, type RunState, take } from '../api/client';
import { cellKey, emptyJobState, type JobAction, type JobState, missed, reduced } from '../domain/jobState';
import { t } from '../texts/texts';
import { jobTransport } from './jobTransport';
import { Together } from './Together';

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

interface Answer {
  data?: { sequence: number };
  error?: unknown;
  response: Response;
}

/**
 * One job as it stands on the server, kept in step by its events: other windows, the background and this window's own
 * changes all arrive the same way, each under the next number. A number that is missing is noticed, and the job read again.
 * What is sent is shown at once (jobState). Components subscribe to the piece they show.
 */
export class JobStore {
  /** The last refusal, as a sentence. */
  fault: string | null = null;
  /** True while the server does not answer. */
  away = false;
  /** The cells as they are: another object with every change of any, for what is worked out over all of them. */
  all: Cells = cellsOf(emptyJobState.cells);
  /** True while cells of a large job are still to be read. */
  reading = false;
  private state: JobState = emptyJobState;
  private early: JobEvent[] | null = null;
  /** What is told while a call is under way; null while none is. */
  private held: JobEvent[] | null = null;
  private loads = 0;
  private sent = 0;
  private readonly listeners = new Set<() => void>();
  private line: Promise<unknown> = Promise.resolve();
  private telling = false;
  private readonly server: ReturnType<typeof jobTransport>;
  /** Who else has the job open. */
  readonly together: Together;

  constructor(readonly id: string) {
    this.server = jobTransport(id);
    this.together = new Together(id, () => this.tell());
  }

  /** The job as it is shown: as the server told, with what is on its way applied. */
  get head(): JobHead | null {
    return this.state.head;
  }
  get progress() {
    return this.state.progress;
  }
  get sequence() {
    return this.state.sequence;
  }
  get run() {
    return this.state.run;
  }
  get cells() {
    return this.state.cells;
  }
  /** How many changes are on their way to the server. */
  get onTheirWay() {
    return this.state.pending.length;
  }

  private step(action: JobAction) {
    const before = this.state.cells;
    this.state = reduced(this.state, action);
    if (this.state.cells !== before) this.all = cellsOf(this.state.cells);
    this.tell();
  }

  /** Reads the job and listens to it until the returned function is called. */
  open(): () => void {
    void this.load();
    const leave = this.together.start();
    const close = this.server.events({
      first: (event) => {
        // What happened between reading and listening, or while the server was away, is read again.
        if (this.away || (this.early === null && this.state.sequence !== event.sequence)) void this.load();
        if (this.away) fetchMissingImages();
        this.away = false;
      },
      event: (event) => {
        this.together.take(event);
        this.apply(event);
      },
      lost: () => {
        this.away = true;
        this.tell();
      },
    });
    return () => {
      close();
      leave();
    };
  }

  /** Reads the job; what is told meanwhile waits until it is there. */
  async load() {
    const mine = ++this.loads;
    this.early ??= [];
    try {
      const job = await this.server.read();
      if (mine !== this.loads) return;
      this.step({ type: 'read', head: job.head as JobHead, cells: job.cells, progress: job.progress });
      this.fault = null;
      const early = this.early ?? [];
      this.early = null;
      for (const event of early) if (event.sequence > this.state.sequence) this.apply(event);
      if (job.more !== null) void this.readMore(job.more, mine);
    } catch (fault) {
      if (mine !== this.loads) return;
      this.early = null;
      this.fault = (fault as Error).message;
    }
    this.tell();
  }

  /** The rest of a large job, part by part; the first screen is there already. */
  private async readMore(from: number, mine: number) {
    this.reading = true;
    await drawn();
    for (let next: number | null = from; next !== null;) {
      const answer = await this.server.cells(next, () => mine === this.loads);
      if (mine !== this.loads) return;
      if (answer === null) {
        // What is shown is not all: it goes on to say that it is being read.
        this.say(t('jobs.aPartOfThisJobCould'));
        return;
      }
      this.step({ type: 'cells', cells: answer.cells });
      next = answer.more;
    }
    this.reading = false;
    this.tell();
  }

  apply(event: JobEvent) {
    if (this.early !== null) this.early.push(event);
    else if (this.held !== null) this.held.push(event);
    else if (this.state.told && missed(this.state, event)) void this.load();
    else this.step({ type: 'event', event });
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
  private call(call: () => Promise<Answer>, id?: number): Promise<boolean> {
    const done = this.line.then(async () => {
      // An event that has this change in it may come before the answer: it waits, or the change would be shown twice.
      this.held = [];
      let reached: number;
      try {
        reached = (await take(call())).sequence;
        this.fault = null;
        if (id !== undefined) this.step({ type: 'answer', id, sequence: reached });
        this.tell();
      } catch (fault) {
        const sentence = (fault as Error).message;
        this.say(sentence);
        if (id !== undefined) {
          this.step({ type: 'refuse', id });
          // What was shown of cells ahead of the answer is taken back as well.
          void this.load().then(() => this.say(sentence));
        }
        return false;
      } finally {
        const held = this.held ?? [];
        this.held = null;
        for (const event of held) this.apply(event);
      }
      await this.seen(reached);
      return true;
    });
    this.line = done;
    return done;
  }

  /** Waits until a change is told; reads again should that not come. */
  private async seen(sequence: number) {
    const until = performance.now() + patience;
    while (this.state.sequence < sequence) {
      if (performance.now() > until) return this.load();
      await new Promise((done) => setTimeout(done, 8));
    }
  }

  private say(fault: string | null) {
    this.fault = fault;
    this.tell();
  }

  dismiss() {
    this.say(null);
  }

  /** Sends what was decided, all or none, as one step or as a part of a gesture's; it is shown at once. */
  send(commands: readonly JobCommand[], gesture: string | null = null): Promise<boolean> {
    if (commands.length === 0) return Promise.resolve(true);
    const id = ++this.sent;
    this.step({ type: 'send', id, commands });
    return this.call(() => this.server.send(commands, gesture), id);
  }

  undo = () => this.call(() => this.server.undo());
  redo = () => this.call(() => this.server.redo());

  name(named: { name?: string; prefix?: string; numbered?: boolean; patterns?: Record<string, string> }) {
    return this.send([{ do: 'name-job', ...named }]);
  }

  addPictures(pictures: string[]) {
    return this.send([{ do: 'add-pictures', pictures }]);
  }

  /** Combines pictures side by side, in the place of such as they take the place of; null where that is refused. */
  async pair(pictures: string[], instead: string | null = null): Promise<string | null> {
    let made: string | null = null;
    const done = await this.call(async () => {
      const answer = await this.server.pair(pictures, instead);
      made = answer.data?.picture ?? null;
      return answer;
    });
    return done ? made : null;
  }

  removePictures(pictures: string[]) {
    return this.send([{ do: 'remove-pictures', pictures }]);
  }

  /** Adds slots to the job, or removes them. */
  tick(slots: string[], on: boolean) {
    return this.send([{ do: on ? 'add-slots' : 'remove-slots', slots }]);
  }

  setRun(run: RunState) {
    return this.call(() => this.server.run(run));
  }

  remake(cells: { picture: string; slot: string }[]) {
    return this.call(() => this.server.remake(cells));
  }

  lookAt(pictures: string[], slots: string[]) {
    void this.server.viewport(pictures, slots).catch(() => undefined);
  }
}

/** Once what was told is drawn; in a window that is not drawn, after a moment. */
const drawn = () =>
  new Promise<void>((done) => {
    setTimeout(done, 250);
    if (typeof requestAnimationFrame === 'function') requestAnimationFrame(() => setTimeout(done));
  });

/** Images that could not be fetched while the server was away stay empty unless they are asked for again. */
function fetchMissingImages() {
  for (const image of document.images)
    if (image.complete && image.naturalWidth === 0 && image.src) {
      const { src } = image;
      image.src = '';
      image.src = src;
    }
}
