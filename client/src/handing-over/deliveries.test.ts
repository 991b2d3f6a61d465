import { expect, test } from 'vitest';
import type {
  Receiver,
  ReceiverDelivery,
  ReceiverFile,
  ReceiverFileStanding,
  ShownFile,
} from '../api/client';
import { hostOf, shownWords, standings, summary } from './deliveries';

const receiver = (way: Receiver['rule']['way'], address: string): Receiver => ({
  id: 'a',
  hasSecret: false,
  rule: {
    name: 'Place',
    way,
    address,
    destinations: [],
    user: null,
    field: 'file',
    shownAt: null,
    trialAddress: null,
    bucket: null,
    region: 'us-east-1',
    hostKey: null,
  },
});

const file = (standing: ReceiverFileStanding): ReceiverFile => ({
  picture: 'p',
  slot: 'd/s',
  id: 'f',
  descriptor: '1x',
  path: 'd/f.jpg',
  width: 10,
  height: 10,
  bytes: 1000,
  standing,
  said: [],
  shown: [],
  at: null,
});

const delivery = (files: ReceiverFile[], more: Partial<ReceiverDelivery> = {}): ReceiverDelivery => ({
  receiver: receiver('put', 'https://shop.example/files'),
  state: null,
  trouble: null,
  progress: null,
  endedAt: null,
  files,
  ...more,
});

const shown = (more: Partial<ShownFile>): ShownFile => ({
  address: 'https://net.example/1',
  bytes: null,
  format: null,
  width: null,
  height: null,
  quality: null,
  isSame: false,
  likeness: null,
  likenessWord: null,
  trouble: null,
  ...more,
});

test('a line says how the files stand, and where none goes', () => {
  expect(
    summary(delivery([file('accepted'), file('accepted'), file('refused'), file('noLongerDelivered')])),
  ).toBe('2 accepted, 1 refused');
  expect(summary(delivery([file('notSent'), file('changed'), file('notDelivered')]))).toBe(
    '1 not delivered, 1 changed, 1 not sent',
  );
  expect(summary(delivery([]))).toBe('no files');
});

test('what is under way is told by how far it is', () => {
  const files = [file('notSent')];
  expect(summary(delivery(files, { state: 'waiting' }))).toBe('waiting');
  expect(summary(delivery(files, { state: 'waiting', progress: { done: 3, of: 9, waits: null } }))).toBe(
    '3 of 9 sent',
  );
});

test('every standing has a place in the list, those that are to review first', () => {
  expect(standings.map(([standing]) => standing)).toEqual([
    'refused',
    'notDelivered',
    'changed',
    'notSent',
    'accepted',
    'noLongerDelivered',
  ]);
});

test('a receiver is known by its host, or its folder', () => {
  expect(hostOf(receiver('form', 'https://site.example:8443/media'))).toBe('site.example:8443');
  expect(hostOf(receiver('folder', '/srv/pictures'))).toBe('/srv/pictures');
});

test('what is shown is told by its figures, and by what is odd about it', () => {
  expect(shownWords(shown({ isSame: true }))).toBe('Shown unchanged, byte for byte.');
  expect(
    shownWords(
      shown({
        width: 1440,
        height: 810,
        bytes: 100_000,
        format: 'jpeg' as ShownFile['format'],
        quality: 71,
        likeness: 0.98734,
        likenessWord: 'slight' as ShownFile['likenessWord'],
      }),
    ),
  ).toBe('Shown as 1\u2009440 × 810 px, 100 kB, JPEG 71: Slight difference (0.987)');
  expect(shownWords(shown({ trouble: 'It shows a web page there, not a picture.' }))).toBe(
    'It shows a web page there, not a picture.',
  );
});
