import { describe, expect, it, test } from 'vitest';
import { formOf, sizeForms, typed, valueAt, weightText, without, withValue } from './rule';

describe('a place of a rule', () => {
  const rule = { key: 'a', limits: { maxBytes: 100, maxWidth: 9 } };

  it('is found by its path', () => {
    expect(valueAt(rule, 'limits.maxBytes')).toBe(100);
    expect(valueAt(rule, 'aims.quality')).toBeUndefined();
  });

  it('is set without touching the rule as it was', () => {
    const next = withValue(rule, 'aims.likeness', 0.99);
    expect(next).toEqual({ ...rule, aims: { likeness: 0.99 } });
    expect(rule).not.toHaveProperty('aims');
  });

  it('is removed, and the group with it once that is empty', () => {
    const less = withValue(rule, 'limits.maxBytes', undefined);
    expect(less).toEqual({ key: 'a', limits: { maxWidth: 9 } });
    expect(withValue(less, 'limits.maxWidth', undefined)).toEqual({ key: 'a' });
    expect(withValue({ key: 'a' }, 'limits.maxWidth', undefined)).toEqual({ key: 'a' });
  });

  it('is deep where it must be', () => {
    const deep = withValue({}, 'dress.title.size', 20);
    expect(deep).toEqual({ dress: { title: { size: 20 } } });
    expect(withValue(deep, 'dress.title.size', undefined)).toEqual({});
  });

  it('goes with others at once', () => {
    expect(without({ a: 1, b: 2, c: 3 }, 'a', 'c')).toEqual({ b: 2 });
  });
});

test.each([
  [300_000, '300 kB'],
  [2_000_000, '2 MB'],
  [1234, '1234'],
  ['250 KiB', '250 KiB'],
  [undefined, ''],
])('a weight of %s is shown as "%s"', (value, text) => expect(weightText(value)).toBe(text));

test.each([
  [' 12 ', 12],
  ['1,5', 1.5],
  ['edge', 'edge'],
  ['', undefined],
  ['16:9', '16:9'],
])('"%s" is written down as %s', (text, value) => expect(typed(text)).toBe(value));

test('every form of a size begins with figures of that form', () => {
  sizeForms.forEach((form, i) => {
    expect(Object.keys(form.first).toSorted()).toEqual(form.keys.toSorted());
    expect(formOf(form.first)).toBe(i);
  });
  expect(formOf({ nothing: 1 })).toBe(0);
});
