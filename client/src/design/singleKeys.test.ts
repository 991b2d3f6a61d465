import { describe, expect, it } from 'vitest';
import { keyOf } from './singleKeys';

const press = (key: string, more: Partial<KeyboardEvent> = {}) => ({
  ...{ key, code: '', altKey: false, ctrlKey: false, metaKey: false },
  ...more,
});

describe('single keys', () => {
  it('act by themselves and not with Alt', () => {
    expect(keyOf(press('A'), true)).toBe('a');
    expect(keyOf(press('a', { altKey: true }), true)).toBeNull();
    expect(keyOf(press('Enter'), true)).toBe('enter');
  });

  it('do nothing by themselves once they are off, and act with Alt', () => {
    expect(keyOf(press('a', { code: 'KeyA' }), false)).toBeNull();
    expect(keyOf(press('+'), false)).toBeNull();
    expect(keyOf(press('a', { code: 'KeyA', altKey: true }), false)).toBe('a');
    // On some keyboards Alt makes another sign of a letter.
    expect(keyOf(press('å', { code: 'KeyA', altKey: true }), false)).toBe('a');
    expect(keyOf(press('?', { code: 'Slash', altKey: true }), false)).toBe('?');
  });

  it('leave arrows and chords with Control alone', () => {
    expect(keyOf(press('ArrowLeft'), false)).toBe('arrowleft');
    expect(keyOf(press('Escape'), false)).toBe('escape');
    expect(keyOf(press('z', { ctrlKey: true }), false)).toBe('z');
  });
});
