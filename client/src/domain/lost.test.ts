import { describe, expect, it } from 'vitest';
import type { JobPicture } from '../api/client';
import { lostBy, subjectOf } from './lost';

const subject = { x: 100, y: 50, width: 400, height: 300 };

describe('what a frame cuts away of the subject', () => {
  it('is nothing where the frame holds it, or misses it by less than a pixel', () => {
    expect(lostBy({ x: 0, y: 0, width: 1000, height: 500 }, subject)).toEqual([]);
    expect(lostBy({ x: 100.4, y: 50, width: 399.6, height: 300 }, subject)).toEqual([]);
  });

  it('is told for each side with its pixels, and lies within the subject', () => {
    const lost = lostBy({ x: 140, y: 80, width: 300, height: 200 }, subject);
    expect(lost.map(({ side, pixels }) => [side, pixels])).toEqual([
      ['left', 40],
      ['top', 30],
      ['right', 60],
      ['bottom', 70],
    ]);
    for (const { part } of lost) {
      expect(part.x).toBeGreaterThanOrEqual(subject.x);
      expect(part.x + part.width).toBeLessThanOrEqual(subject.x + subject.width);
      expect(part.y + part.height).toBeLessThanOrEqual(subject.y + subject.height);
    }
  });
});

describe('the subject', () => {
  const suggestion = { left: 0.2, top: 0.2, right: 0.4, bottom: 0.4 };
  const picture = (decisions: object) =>
    ({ suggestion, decisions: { keep: [], focus: null, ...decisions } }) as unknown as JobPicture;

  it('is what somebody marked, before what is suggested', () => {
    const keep = { left: 0.5, top: 0.5, right: 0.9, bottom: 0.9 };
    expect(subjectOf(picture({ keep: [keep] }))).toEqual(keep);
    expect(subjectOf(picture({}))).toEqual(suggestion);
  });

  it('is nothing once the suggestion was rejected or a focus was set', () => {
    expect(subjectOf(picture({ suggestionRejected: true }))).toBeNull();
    expect(subjectOf(picture({ focus: { x: 0.5, y: 0.5 } }))).toBeNull();
  });
});
