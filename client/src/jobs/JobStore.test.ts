import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { api, type JobEvent } from '../api/client';
import { JobStore } from './JobStore';

vi.mock('../api/client', async (original) => ({
  ...(await original<typeof import('../api/client')>()),
  api: { GET: vi.fn(), POST: vi.fn() },
}));

const get = vi.mocked(api.GET) as unknown as ReturnType<typeof vi.fn>;
const post = vi.mocked(api.POST) as unknown as ReturnType<typeof vi.fn>;
const whole = (data: unknown) => ({ data, response: new Response() });
const broken = {
  error: { detail: 'Another program holds the database.' },
  response: new Response(null, { status: 503 }),
};

const cell = (picture: string) => ({ picture, slot: 'site/list', sequence: 1, toReview: [], files: [] });
const job = {
  head: { id: 'job', sequence: 1, run: 'running', name: 'A job', pictures: [], slots: [] },
  progress: { files: 2, done: 2, failed: 0 },
  cells: [cell('one')],
  more: 1,
};

beforeEach(() => {
  vi.useFakeTimers();
  get.mockReset();
});
afterEach(() => {
  vi.useRealTimers();
});

async function loaded(...answers: unknown[]) {
  for (const answer of answers) get.mockResolvedValueOnce(answer);
  const store = new JobStore('job');
  await store.load();
  await vi.advanceTimersByTimeAsync(5_000);
  return store;
}

it('reads a part of a large job again that could not be had at once', async () => {
  const store = await loaded(whole(job), broken, broken, whole({ cells: [cell('two')], more: null }));
  expect([...store.cells.keys()]).toHaveLength(2);
  expect(store.reading).toBe(false);
  expect(store.fault).toBeNull();
});

it('never shows a job as whole of which a part is missing', async () => {
  const store = await loaded(whole(job), broken, broken, broken);
  expect([...store.cells.keys()]).toHaveLength(1);
  expect(store.reading).toBe(true);
  expect(store.fault).toContain('could not be read');
});

it('shows a change once, though its event comes before its answer', async () => {
  const box = { left: 0, top: 0, right: 1, bottom: 1 };
  const picture = (keep: unknown[]) => ({
    picture: { id: 'one' },
    decisions: { keep, cells: {}, framings: {} },
  });
  const store = await loaded(whole({ ...job, head: { ...job.head, pictures: [picture([])] }, more: null }));
  const kept = () => store.head!.pictures[0]!.decisions.keep.length;
  const seen: number[] = [];
  store.subscribe(() => seen.push(kept()));
  let answer: (value: unknown) => void = () => undefined;
  post.mockReturnValueOnce(new Promise((resolve) => (answer = resolve)));
  const sent = store.send([{ do: 'add-keep-box', picture: 'one', box }]);
  await vi.advanceTimersByTimeAsync(10);
  store.apply({
    sequence: 2,
    cells: [],
    pictures: [picture([box])],
    progress: job.progress,
    run: 'running',
    reread: false,
  } as unknown as JobEvent);
  await vi.advanceTimersByTimeAsync(10);
  answer(whole({ sequence: 2 }));
  await vi.advanceTimersByTimeAsync(50);
  expect(await sent).toBe(true);
  expect(kept()).toBe(1);
  expect(Math.max(...seen)).toBe(1);
  expect(store.onTheirWay).toBe(0);
});
