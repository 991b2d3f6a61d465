import { expect, test } from 'vitest';
import { actorName, initials } from './actors';

test.each([
  ['Anna Moor', 'AM'],
  ['Kim', 'K'],
  ['Ms Moor (guest)', 'MM'],
  ['Åsa von Ek', 'ÅE'],
  ['', '?'],
])('%s has the initials %s', (name, letters) => expect(initials(name)).toBe(letters));

test('where nobody signs in, it is said what did something', () => {
  expect(actorName('browser')).toBe('Somebody in the browser');
  expect(actorName('Anna Moor')).toBe('Anna Moor');
});
