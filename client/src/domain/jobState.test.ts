import { expect, test } from 'vitest';
import type { Cell, JobEvent, JobHead, JobProgress } from '../api/client';
import { cellKey, emptyJobState, type JobState, missed, reduced } from './jobState';

const cell = (picture: string, sequence = 1, toReview: string[] = []) =>
  ({ picture, slot: 'site/list', sequence, toReview, files: [] }) as unknown as Cell;
const picture = (id: string, keywords = '') => ({
  picture: { id, name: `${id}.jpg` },
  decisions: { cells: {}, framings: {}, keywords },
});
const head = {
  id: 'job',
  name: 'A job',
  run: 'running',
  sequence: 1,
  prefix: '',
  numbered: false,
  patterns: {},
  pictures: [picture('one'), picture('two')],
  slots: [],
} as unknown as JobHead;
const progress = { files: 2, done: 1, failed: 0 } as unknown as JobProgress;
const event = (sequence: number, more: Partial<JobEvent> = {}) =>
  ({ sequence, cells: [], progress, run: 'running', reread: false, ...more }) as unknown as JobEvent;

const read = (cells: Cell[] = []): JobState =>
  reduced(emptyJobState, { type: 'read', head, cells, progress });
const rename = (name: string) => ({ do: 'name-job', name }) as const;

test('a job that was read is shown as it was told', () => {
  const state = read([cell('one')]);
  expect(state.head).toBe(state.told);
  expect([...state.cells.keys()]).toEqual([cellKey('one', 'site/list')]);
  expect(state.sequence).toBe(1);
});

test('an event changes only what it tells, and an older one nothing', () => {
  const before = read([cell('one')]);
  const after = reduced(before, { type: 'event', event: event(2, { progress: { ...progress, done: 2 } }) });
  expect(after.cells).toBe(before.cells);
  expect(after.head).toBe(before.head);
  expect(after.progress).toMatchObject({ done: 2 });
  expect(reduced(after, { type: 'event', event: event(1) })).toBe(after);
  expect(reduced(emptyJobState, { type: 'event', event: event(7) })).toBe(emptyJobState);
});

test('an event says which pictures there are and in which order', () => {
  const { head: shown } = reduced(read(), {
    type: 'event',
    event: event(2, {
      pictures: [picture('three')],
      order: ['three', 'one'],
    } as unknown as Partial<JobEvent>),
  });
  expect(shown!.pictures.map((one) => one.picture.id)).toEqual(['three', 'one']);
});

test('a number that is missing, or a job to be read again, is noticed', () => {
  const state = read();
  expect(missed(state, event(2))).toBe(false);
  expect(missed(state, event(3))).toBe(true);
  expect(missed(state, event(2, { reread: true }))).toBe(true);
});

test('a cell that comes late does not take the place of a newer one', () => {
  const state = reduced(read([cell('one', 5)]), { type: 'cells', cells: [cell('one', 4), cell('two', 1)] });
  expect(state.cells.get(cellKey('one', 'site/list'))!.sequence).toBe(5);
  expect(state.cells.size).toBe(2);
});

test('a command is shown at once, and is a part of what is told once its event came', () => {
  let state = reduced(read(), { type: 'send', id: 1, commands: [rename('Ahead')] });
  expect([state.head!.name, state.told!.name]).toEqual(['Ahead', 'A job']);
  state = reduced(state, { type: 'answer', id: 1, sequence: 2 });
  expect(state.head!.name).toBe('Ahead');
  state = reduced(state, {
    type: 'event',
    event: event(2, { title: { name: 'Ahead' } } as unknown as Partial<JobEvent>),
  });
  expect(state.pending).toEqual([]);
  expect(state.head!.name).toBe('Ahead');
});

test('an event that comes before the answer settles it as well', () => {
  let state = reduced(read(), { type: 'send', id: 1, commands: [rename('Ahead')] });
  state = reduced(state, {
    type: 'event',
    event: event(2, { title: { name: 'Ahead' } } as unknown as Partial<JobEvent>),
  });
  expect(state.pending).toHaveLength(1);
  expect(reduced(state, { type: 'answer', id: 1, sequence: 2 }).pending).toEqual([]);
});

test('a refused command is taken back, and those that were sent after it stay', () => {
  let state = reduced(read(), { type: 'send', id: 1, commands: [rename('One')] });
  state = reduced(state, { type: 'send', id: 2, commands: [{ do: 'name-job', prefix: 'two' } as never] });
  state = reduced(state, { type: 'refuse', id: 1 });
  expect(state.head!.name).toBe('A job');
  expect(state.pending.map((one) => one.id)).toEqual([2]);
});

test('an accepted cell is no longer to review before the server says so, for the reasons that were accepted', () => {
  const state = reduced(read([cell('one', 1, ['suggested', 'too-small'])]), {
    type: 'send',
    id: 1,
    commands: [{ do: 'accept', picture: 'one', slot: 'site/list', reasons: ['suggested'] } as never],
  });
  expect(state.cells.get(cellKey('one', 'site/list'))!.toReview).toEqual(['too-small']);
});
