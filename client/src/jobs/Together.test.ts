import { beforeEach, expect, test, vi } from 'vitest';
import { type JobEvent } from '../api/client';
import { Together } from './Together';

const put = vi.hoisted(() => vi.fn(() => Promise.resolve({})));
vi.mock('../api/client', () => ({ api: { PUT: put } }));

const event = (more: object) =>
  ({ people: null, change: null, commented: false, ...more }) as unknown as JobEvent;

beforeEach(() => put.mockClear());

/** The window's own id, as it said it. */
async function opened() {
  const told = vi.fn();
  const together = new Together('job', told);
  const add = vi.spyOn(globalThis, 'setInterval').mockReturnValue(0 as never);
  vi.stubGlobal('window', { addEventListener: () => undefined, removeEventListener: () => undefined });
  together.start();
  add.mockRestore();
  await Promise.resolve();
  const [, { body }] = put.mock.calls[0] as unknown as [string, { body: { window: string } }];
  return { together, told, window: body.window };
}

test('this window is none of the others', async () => {
  const { together, told, window } = await opened();
  together.take(
    event({
      people: [
        { window, name: 'Anna', picture: null, slot: null },
        { window: 'w2', name: 'Ben', picture: 'p', slot: 's' },
      ],
    }),
  );

  expect(together.others.map((one) => one.name)).toEqual(['Ben']);
  expect(told).toHaveBeenCalledTimes(1);
});

test('what others change is noted, not what is changed here', async () => {
  const { together, window } = await opened();
  together.take(event({ people: [{ window, name: 'Anna', picture: null, slot: null }] }));
  together.take(event({ change: { actor: 'Anna', did: 'set 1 frame' } }));
  together.take(event({ change: { actor: 'Ben', did: 'set 2 frames' } }));

  expect(together.notes.map((one) => one.did)).toEqual(['set 2 frames']);
});

test('an event of neither tells nobody', async () => {
  const { together, told } = await opened();
  together.take(event({}));

  expect(told).not.toHaveBeenCalled();
});
