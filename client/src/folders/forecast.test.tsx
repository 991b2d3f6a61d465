import { renderToStaticMarkup } from 'react-dom/server';
import { expect, test } from 'vitest';
import type { PictureFolder } from '../api/client';
import { Forecast } from './Forecast';

const folder = (forecast: object | null) =>
  ({
    figures: { count: 1200, mendable: 1000, mendableBytes: 900_000_000 },
    trial: forecast && { forecast },
  }) as unknown as PictureFolder;

const text = (forecast: object | null) =>
  renderToStaticMarkup(<Forecast folder={folder(forecast)} />).replace(/<[^>]*>/g, ' ');

test('before a preview it says how many pictures can be optimised', () => {
  const words = text(null).replace(/[\u2009\u202f\u2060]/g, '');
  expect(words).toMatch(/1000/);
  expect(words).toMatch(/1200/);
});

test('an estimate from some pictures says that it is one, and how far it may be off', () => {
  const words = text({
    tried: 16,
    all: false,
    lighter: 12,
    saved: 400_000_000,
    giveOrTake: 30_000_000,
    seconds: 600,
  });
  expect(words).toMatch(/about/i);
  expect(words).toMatch(/400 MB/);
  expect(words).toMatch(/30 MB/);
  expect(words).toMatch(/16/);
});

test('where all pictures were made the figure is exact', () => {
  const exact = text({ tried: 9, all: true, lighter: 7, saved: 4_000_000, giveOrTake: 0, seconds: 20 });
  expect(exact).toMatch(/4 MB/);
  expect(exact).not.toMatch(/±/);
  const some = text({ tried: 9, all: false, lighter: 7, saved: 4_000_000, giveOrTake: 100_000, seconds: 20 });
  expect(exact).not.toBe(some);
});
