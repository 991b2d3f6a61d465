import { describe, expect, it } from 'vitest';
import type { JobPicture, JobSlot } from '../api/client';
import {
  areaOf,
  commandsFor,
  type Draft,
  draftOf,
  isBare,
  isLikeSlot,
  movedArea,
  withArea,
  withTitle,
  wantsTitle,
  withWords,
  wordsOf,
} from './overlay';

const slot = (dress: object | null = null, setWidth: number | null = 600) =>
  ({
    address: 'site/head',
    slot: { clear: [0, 0, 1, 1], setWidth, dress: dress && JSON.stringify(dress) },
  }) as unknown as JobSlot;

const picture = (title = '', cells = {}) =>
  ({ picture: { id: 'one' }, decisions: { title, cells } }) as unknown as JobPicture;

const bare: Draft = { dress: {}, words: '' };

describe('what is drawn over a picture', () => {
  it('begins with what the slot says, unless something else was decided for the picture', () => {
    const ruled = slot({ title: { size: 20 } });
    expect(draftOf(picture('Vane'), ruled)).toEqual({ dress: { title: { size: 20 } }, words: 'Vane' });
    const own = { unlinked: false, dress: '{ "mark": { "file": "a.svg" } }' };
    expect(draftOf(picture('', { 'site/head': own }), ruled).dress).toEqual({ mark: { file: 'a.svg' } });
  });

  it('wants a title of its own where a slot writes one and nobody gave it', () => {
    const ruled = slot({ title: { size: 20 } });
    expect(wantsTitle(picture(), [slot(), ruled])).toBe(true);
    expect(wantsTitle(picture('Vane'), [ruled])).toBe(false);
    expect(wantsTitle(picture(), [slot()])).toBe(false);
    expect(wantsTitle(picture(), [slot({ title: { size: 20, text: 'Sale' } })])).toBe(false);
    expect(wantsTitle(picture('', { 'site/head': { skip: true } }), [ruled])).toBe(false);
  });

  it('gets a title with its first words, in the lower part of the clear area', () => {
    const draft = withWords(bare, 'Storm vane', slot());
    expect(draft.words).toBe('Storm vane');
    expect(draft.dress.title).toMatchObject({ text: '{title}', size: 33, area: [0.05, 0.6, 0.95, 0.95] });
    expect(wordsOf(draft)).toBe('Storm vane');
  });

  it('has the words of the slot where the slot writes the same over all', () => {
    const draft: Draft = { dress: { title: { size: 20, text: 'Sale' } }, words: 'Vane' };
    expect(wordsOf(draft)).toBe('Sale');
    expect(withWords(draft, 'New', slot()).dress.title?.text).toBe('New');
  });

  it('is nothing when it has neither fade, title nor logo', () => {
    expect(isBare(bare)).toBe(true);
    expect(isBare({ ...bare, dress: { fade: { to: '#ffffff', amount: 0.5 } } })).toBe(false);
  });

  it('is like the slot also where defaults are written out', () => {
    const ruled = slot({ title: { size: 20 } });
    const same: Draft = { dress: { title: { size: 20, ink: 'auto', align: 'left' } }, words: '' };
    expect(isLikeSlot(same, ruled)).toBe(true);
    expect(isLikeSlot(withTitle(same, { size: 21 }), ruled)).toBe(false);
  });
});

describe('what is sent', () => {
  const ruled = slot({ title: { size: 20 } });

  it('is nothing where all is as it was', () => {
    expect(commandsFor(draftOf(picture('Vane'), ruled), picture('Vane'), ruled)).toEqual([]);
  });

  it('is the title where only its words changed', () => {
    const draft = withWords(draftOf(picture('Vane'), ruled), 'Storm vane', ruled);
    expect(commandsFor(draft, picture('Vane'), ruled)).toEqual([
      { do: 'give-words', picture: 'one', title: 'Storm vane' },
    ]);
  });

  it('is what is drawn where it differs from the slot, and its removal where it no longer does', () => {
    const larger = withTitle(draftOf(picture(), ruled), { size: 40 });
    const [sent] = commandsFor(larger, picture(), ruled);
    expect(sent).toMatchObject({ do: 'dress', slot: 'site/head' });
    const own = { dress: JSON.stringify({ title: { size: 40 } }) };
    const back = withTitle(larger, { size: 20 });
    expect(commandsFor(back, picture('', { 'site/head': own }), ruled)).toEqual([
      { do: 'dress', picture: 'one', slot: 'site/head', dress: null },
    ]);
  });
});

describe('an area', () => {
  it('is moved as a whole and stays inside', () => {
    expect(movedArea([0.2, 0.2, 0.6, 0.5], 0.1, -0.05, 'all')).toEqual([0.3, 0.15, 0.7, 0.45]);
    expect(movedArea([0.2, 0.2, 0.6, 0.5], 5, -5, 'all')).toEqual([0.6, 0, 1, 0.3]);
  });

  it('is drawn larger or smaller by a corner, but never to nothing', () => {
    expect(movedArea([0.2, 0.2, 0.6, 0.5], -0.1, -0.1, 'left top')).toEqual([0.1, 0.1, 0.6, 0.5]);
    expect(movedArea([0.2, 0.2, 0.6, 0.5], -5, -5, 'right bottom')).toEqual([0.2, 0.2, 0.24, 0.24]);
  });

  it('is that of the title, else that of a fade for a text', () => {
    const fade = { to: '#ffffff', ink: '#222222', area: [0, 0.5, 1, 1] as [number, number, number, number] };
    expect(areaOf(bare)).toBeNull();
    expect(areaOf({ ...bare, dress: { fade } })).toEqual([0, 0.5, 1, 1]);
    expect(areaOf({ ...bare, dress: { fade, title: { size: 9 } } })).toEqual([0, 0, 1, 1]);
    expect(withArea({ ...bare, dress: { fade } }, [0, 0, 0.5, 0.5]).dress.fade?.area).toEqual([
      0, 0, 0.5, 0.5,
    ]);
    expect(withArea(bare, [0, 0, 1, 1])).toBe(bare);
  });
});
