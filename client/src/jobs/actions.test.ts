import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { JobCommand } from '../api/client';
import { actionKeys, benchActions, type Chosen, middleOf, pointIn } from './actions';
import type { JobStore } from './JobStore';

const sent: (readonly JobCommand[])[] = [];
const remake = vi.fn();
const store = {
  send: (commands: readonly JobCommand[]) => {
    sent.push(commands);
    return Promise.resolve(true);
  },
  remake,
} as unknown as JobStore;

const chosen = (picture: string, slot: string, cell: object = {}, parts: string[] | null = null) =>
  ({
    picture: { picture: { id: picture }, parts },
    slot: { address: slot },
    cell: { state: 'done', toReview: [], files: [], frame: [0.2, 0, 0.6, 1], ...cell },
  }) as unknown as Chosen;

beforeEach(() => {
  sent.length = 0;
  remake.mockClear();
});

describe('what is done to chosen cells is one step', () => {
  it('accepts what is to review, and only that', () => {
    void benchActions.accept(store, [
      chosen('one', 'a', { toReview: ['too-small'] }),
      chosen('one', 'b'),
      chosen('two', 'a', { toReview: ['suggested', 'keep-cut'] }),
    ]);
    expect(sent).toEqual([
      [
        { do: 'accept', picture: 'one', slot: 'a', reasons: ['too-small'] },
        { do: 'accept', picture: 'two', slot: 'a', reasons: ['suggested', 'keep-cut'] },
      ],
    ]);
  });

  it('skips all, and includes all where all are skipped', () => {
    const [one, two] = [chosen('one', 'a'), chosen('one', 'b', { state: 'skipped' })];
    void benchActions.skip(store, [one, two]);
    void benchActions.skip(store, [two]);
    expect(sent.map((commands) => commands.map((one) => 'skipped' in one && one.skipped))).toEqual([
      [true, true],
      [false],
    ]);
  });

  it('removes frames by hand before a picture is framed by its suggestion, once for each picture', () => {
    void benchActions.confirm(store, [chosen('one', 'a'), chosen('one', 'b'), chosen('two', 'a')]);
    expect(sent[0]!.map((command) => command.do)).toEqual([
      'follow-marks',
      'confirm-suggestion',
      'confirm-suggestion',
    ]);
    expect(sent[0]![0]).toMatchObject({ cells: [{ slot: 'a' }, { slot: 'b' }, { slot: 'a' }] });
  });

  it('allows the files that break a limit, by their name', () => {
    const files = [
      { id: 'f1', made: true, verdict: 'breaks' },
      { id: 'f2', made: true, verdict: 'meets' },
      { id: 'f3', made: false, verdict: 'breaks' },
    ];
    void benchActions.allowAnyway(store, [chosen('one', 'a', { files }), chosen('one', 'b')]);
    expect(sent).toEqual([[{ do: 'allow-anyway', picture: 'one', slot: 'a', files: ['f1'] }]]);
  });

  it('unlinks, links again and makes again each cell', () => {
    const cells = [chosen('one', 'a'), chosen('two', 'b')];
    void benchActions.unlink(store, cells);
    void benchActions.link(store, cells);
    void benchActions.remake(store, cells);
    expect(sent.map((commands) => commands.map((one) => one.do))).toEqual([
      ['unlink', 'unlink'],
      ['link', 'link'],
    ]);
    expect(remake).toHaveBeenCalledWith([
      { picture: 'one', slot: 'a' },
      { picture: 'two', slot: 'b' },
    ]);
  });
});

describe('the shortcuts of chosen cells', () => {
  it('do nothing where nothing is chosen', () => {
    for (const act of Object.values(actionKeys(store, [], { x: 0, y: 0 }))) act();
    expect(sent).toEqual([]);
    expect(remake).not.toHaveBeenCalled();
  });

  it('do not frame combined pictures, and tell nobody that they did', () => {
    const then = vi.fn();
    const keys = actionKeys(store, [chosen('pair', 'a', {}, ['one', 'two'])], { x: 0.5, y: 0.5 }, then);
    keys.u();
    keys.f();
    keys.l();
    keys.t();
    expect(sent).toEqual([]);
    expect(then).not.toHaveBeenCalled();
    keys.x();
    expect(sent).toHaveLength(1);
    expect(then).toHaveBeenCalledOnce();
  });

  it('do not allow anyway where no file breaks a limit', () => {
    actionKeys(store, [chosen('one', 'a')], null).v();
    expect(sent).toEqual([]);
  });
});

describe('a place of the picture', () => {
  it('is the middle of what the cell shows', () => {
    expect(middleOf(chosen('one', 'a'))).toEqual({ x: 0.4, y: 0.5 });
  });

  it('is where the crop was clicked, and never outside of it', () => {
    const crop = { left: 100, top: 50, width: 200, height: 100 } as DOMRect;
    const at = pointIn([0.2, 0, 0.6, 1], crop, { clientX: 200, clientY: 75 });
    expect(at.x).toBeCloseTo(0.4);
    expect(at.y).toBeCloseTo(0.25);
    const out = pointIn([0.2, 0, 0.6, 1], crop, { clientX: 900, clientY: 0 });
    expect(out.x).toBeCloseTo(0.6);
    expect(out.y).toBe(0);
  });
});
