import { expect, test } from 'vitest';
import vectors from './overlay.vectors.json';
import { fixedFade, neededFade, type OverlayRule, usualLogo, written } from './overlay';
import { ruleKey, usual, writtenAt } from './ruleKeys';

test.each(vectors.map((one) => [JSON.stringify(one.given), one] as const))(
  'what is drawn over a picture is written as the core writes it: %s',
  (_, { given, written: core }) => {
    expect(written(given as OverlayRule)).toBe(JSON.stringify(core));
  },
);

test('defaults are those of the table', () => {
  expect(usual('fit')).toBe('crop');
  expect(usual('limits.maxBytes')).toBeUndefined();
  expect(usual('dress.title.font')).toBe('Archivo');
  expect(() => ruleKey('limits.maxWords')).toThrow('maxWords');
});

test('a logo that is added has what is usual, and none of it is lost when it is written', () => {
  expect(writtenAt('dress.mark', usualLogo('mark.svg'))).toEqual({
    file: 'mark.svg',
    at: 'bottom-right',
    share: 0.12,
    margin: 0.03,
    opacity: 1,
  });
});

test('a fade keeps its colour and its area when it is solved instead of fixed', () => {
  const fixed = fixedFade({ to: '#102030', area: [0, 0, 1, 0.5], ink: '#ffffff', contrast: 7 });
  expect(writtenAt('dress.fade', fixed)).toEqual({ to: '#102030', amount: 0.5, area: [0, 0, 1, 0.5] });
  expect(writtenAt('dress.fade', neededFade(fixed))).toEqual({
    to: '#102030',
    ink: '#222222',
    contrast: 4.5,
    area: [0, 0, 1, 0.5],
  });
});
