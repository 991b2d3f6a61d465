import { assert, test } from 'vitest';
import { type Box, boxOf, type Corner, cornerTo, frameOf, moved, withFigure, zoomed } from './box';

// The arithmetic behind the hand: whatever it does, the frame stays in the picture and keeps its shape.

/** A small seeded generator (mulberry32), so that a failure can be run again. */
function seeded(seed: number) {
  let state = seed;
  return (least: number, most: number) => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return least + (((t ^ (t >>> 14)) >>> 0) / 4294967296) * (most - least);
  };
}

interface Case {
  picture: { width: number; height: number };
  ratio: number;
  box: Box;
  random: (least: number, most: number) => number;
}

function* cases(count: number): Generator<Case> {
  for (let seed = 1; seed <= count; seed++) {
    const random = seeded(seed);
    const picture = {
      width: Math.round(random(200, 8000)),
      height: Math.round(random(200, 8000)),
    };
    const ratio = random(0.3, 4);
    const widest = Math.min(picture.width, picture.height * ratio);
    const width = random(widest * 0.2, widest);
    const box = {
      x: random(0, picture.width - width),
      y: random(0, picture.height - width / ratio),
      width,
      height: width / ratio,
    };
    yield { picture, ratio, box, random };
  }
}

function near(actual: number, expected: number) {
  assert.ok(Math.abs(actual - expected) < 1e-6, `${actual} is not ${expected}`);
}

function expectSound(box: Box, { picture, ratio }: Case, shaped = true) {
  const slack = 1e-6;
  assert.ok(box.x >= -slack);
  assert.ok(box.y >= -slack);
  assert.ok(box.x + box.width <= picture.width + slack);
  assert.ok(box.y + box.height <= picture.height + slack);
  assert.ok(box.width > 0);
  assert.ok(box.height > 0);
  if (shaped) near(box.width / box.height, ratio);
}

test('a frame survives being stored as fractions', () => {
  for (const { picture, box } of cases(200)) {
    const back = boxOf(frameOf(box, picture), picture);
    near(back.x, box.x);
    near(back.width, box.width);
    near(back.height, box.height);
  }
});

test('moving never leaves the picture and never changes the size', () => {
  for (const one of cases(200)) {
    const next = moved(one.box, one.random(-9000, 9000), one.random(-9000, 9000), one.picture);
    expectSound(next, one);
    assert.strictEqual(next.width, one.box.width);
  }
});

test('tightening keeps the shape, and the point under the pointer where the edges allow', () => {
  for (const one of cases(200)) {
    const at = {
      x: one.box.x + one.box.width * 0.3,
      y: one.box.y + one.box.height * 0.6,
    };
    const next = zoomed(one.box, one.random(0.5, 2), at, one.picture, one.ratio);
    expectSound(next, one);
    if (next.width < one.box.width) {
      // Tightened, it lies within the old frame, so no edge can push it: the pointer's share stays.
      near((at.x - next.x) / next.width, 0.3);
      near((at.y - next.y) / next.height, 0.6);
    }
  }
});

test('drawing a corner leaves the opposite corner where it is', () => {
  const corners: Corner[] = ['top-left', 'top-right', 'bottom-left', 'bottom-right'];
  for (const one of cases(200)) {
    for (const corner of corners) {
      const to = { x: one.random(-500, 9000), y: one.random(-500, 9000) };
      const next = cornerTo(one.box, corner, to, one.picture, one.ratio);
      expectSound(next, one);
      if (corner.endsWith('right')) near(next.x, one.box.x);
      else near(next.x + next.width, one.box.x + one.box.width);
      if (corner.startsWith('bottom')) near(next.y, one.box.y);
      else near(next.y + next.height, one.box.y + one.box.height);
      expectSound(cornerTo(one.box, corner, to, one.picture, null), one, false);
    }
  }
});

test('an exact figure is taken as it is where the picture allows it', () => {
  for (const one of cases(200)) {
    const width = one.random(100, Math.min(one.picture.width, one.picture.height * one.ratio));
    if (width < 16 * Math.max(1, one.ratio)) continue;
    const next = withFigure(one.box, 'width', width, one.picture, one.ratio);
    expectSound(next, one);
    near(next.width, width);
    expectSound(withFigure(one.box, 'height', 99_999, one.picture, one.ratio), one);
    expectSound(withFigure(one.box, 'x', 99_999, one.picture, one.ratio), one);
    expectSound(withFigure(one.box, 'height', 0, one.picture, null), one, false);
  }
});
