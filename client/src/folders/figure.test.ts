import { expect, test } from 'vitest';
import { figure } from './figure';

test.each([
  ['', null],
  ['  ', null],
  ['2400', 2400],
  ['2 400', 2400],
  ['0,995', 0.995],
  ['wide', -1],
  ['1e999', -1],
])('%j is read as %j', (text, value) => expect(figure(text)).toBe(value));
