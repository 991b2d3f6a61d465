import { api, type JobEvent } from '../api/client';
import { newId } from '../api/newId';
import type { components } from '../api/schema';
import { cellKey } from '../domain/jobState';

export type PersonInJob = components['schemas']['PersonInJob'];
export type ChangeNote = components['schemas']['ChangeNote'] & { at: number };

/** Where somebody is in a job. */
interface Place {
  picture: string | null;
  slot: string | null;
}

const settled = 600;
const heartbeat = 20_000;
const shownNotes = 6;

/** Who else has a job open, where they are, and what they changed last; and where this window is, for them. */
export class Together {
  /** The others who have the job open. */
  others: readonly PersonInJob[] = [];
  /** The same by cell; who is at no cell is left out. */
  at: ReadonlyMap<string, readonly PersonInJob[]> = new Map();
  /** How many comments of a cell are open. */
  open: ReadonlyMap<string, number> = new Map();
  /** What the others changed, the newest first. */
  notes: readonly ChangeNote[] = [];
  /** Counts what was said about cells, so that it is read again. */
  said = 0;
  private readonly window = newId();
  private mine = '';
  private place: Place = { picture: null, slot: null };
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly job: string,
    private readonly tell: () => void,
  ) {}

  /** Says where this window is until the returned function is called. */
  start(): () => void {
    void this.send(false);
    const beat = setInterval(() => void this.send(false), heartbeat);
    const leave = () => void this.send(true);
    window.addEventListener('pagehide', leave);
    return () => {
      clearInterval(beat);
      clearTimeout(this.timer);
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }

  /** This window is at another place; it is said once it rests there. */
  moveTo(picture: string | null, slot: string | null) {
    if (this.place.picture === picture && this.place.slot === slot) return;
    this.place = { picture, slot };
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.send(false), settled);
  }

  /** Takes in what an event says of the others. */
  take({ people, change, commented }: JobEvent) {
    if (people) {
      this.mine = people.find((one) => one.window === this.window)?.name ?? this.mine;
      this.others = people.filter((one) => one.window !== this.window);
      this.at = byCell(this.others);
    }
    // Where nobody signs in there are no names: what this window did cannot be told from what another did.
    if (change && this.mine !== '' && change.actor !== this.mine)
      this.notes = [{ ...change, at: Date.now() }, ...this.notes].slice(0, shownNotes);
    if (commented) this.said++;
    if (people || change || commented) this.tell();
  }

  /** Takes in the comments of the job, so that each cell asks for its own number only. */
  takeComments(comments: readonly { picture: string; slot: string; isResolved: boolean }[]) {
    const open = new Map<string, number>();
    for (const { picture, slot, isResolved } of comments) {
      const key = cellKey(picture, slot);
      if (!isResolved) open.set(key, 1 + (open.get(key) ?? 0));
    }
    this.open = open;
    this.tell();
  }

  private send(leaves: boolean) {
    return api
      .PUT('/api/jobs/{id}/presence', {
        params: { path: { id: this.job } },
        body: { window: this.window, ...this.place, leaves },
        // It arrives although the page is being left.
        keepalive: leaves,
      })
      .then(
        () => undefined,
        () => undefined,
      );
  }
}

function byCell(people: readonly PersonInJob[]): ReadonlyMap<string, readonly PersonInJob[]> {
  const at = new Map<string, PersonInJob[]>();
  for (const one of people) {
    if (one.picture === null || one.slot === null) continue;
    const key = cellKey(one.picture, one.slot);
    at.set(key, [...(at.get(key) ?? []), one]);
  }
  return at;
}
