import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it, test } from 'vitest';
import { verdictValues } from '../api/schema';
import type { Standing } from './standing';
import { Beam } from './Beam';
import { ProgressBar } from './ProgressBar';
import { VerdictMark } from './VerdictMark';

describe('the beam', () => {
  it('says the weight, its limit, and when it is over', () => {
    const over = renderToStaticMarkup(<Beam bytes={612_000} limit={500_000} />);
    expect(over).toMatch(/aria-label="[^"]*612 kB[^"]*500 kB[^"]*over/);
    const under = renderToStaticMarkup(<Beam bytes={400_000} limit={500_000} />);
    expect(under).toMatch(/aria-label="[^"]*400 kB[^"]*500 kB/);
    expect(under).not.toMatch(/over the/i);
  });

  it('hatches what is over the limit, so that colour is not the only sign', () => {
    expect(renderToStaticMarkup(<Beam bytes={612_000} limit={500_000} />)).toContain(
      'repeating-linear-gradient',
    );
    expect(renderToStaticMarkup(<Beam bytes={400_000} limit={500_000} />)).not.toContain(
      'repeating-linear-gradient',
    );
  });

  it('ends in a round figure beyond both, and leaves it away where it would touch the limit', () => {
    expect(renderToStaticMarkup(<Beam bytes={612_000} />)).toContain('800 kB');
    const near = renderToStaticMarkup(<Beam bytes={400_000} limit={700_000} />);
    expect(near).not.toContain('800 kB');
  });

  it('marks the original where it lies on the scale', () => {
    const count = (markup: string) => markup.split('bg-transparent').length - 1;
    expect(count(renderToStaticMarkup(<Beam bytes={400_000} original={420_000} />))).toBe(1);
    expect(count(renderToStaticMarkup(<Beam bytes={400_000} original={9_000_000} />))).toBe(0);
  });

  it('stands also for nothing', () => {
    expect(renderToStaticMarkup(<Beam bytes={0} />)).toContain('0 B');
  });
});

test('each verdict, and what is not known yet, has a shape and a word of its own', () => {
  const all: readonly Standing[] = [...verdictValues, 'waiting', 'making'];
  const marks = all.map((verdict) => renderToStaticMarkup(<VerdictMark verdict={verdict} withWord />));
  const shapes = marks.map((mark) => /<svg.*<\/svg>/.exec(mark)![0]);
  const words = marks.map((mark) => mark.replace(/<svg.*<\/svg>/, '').replace(/<[^>]*>/g, ''));
  expect(new Set(shapes).size).toBe(all.length);
  expect(new Set(words).size).toBe(all.length);
});

test('the word of a verdict is there for those who cannot see the mark', () => {
  const mark = renderToStaticMarkup(<VerdictMark verdict="breaks" />);
  expect(mark).toContain('sr-only');
  expect(mark.replace(/<[^>]*>/g, '')).not.toBe('');
});

test('a bar of progress says how far it is', () => {
  const bar = renderToStaticMarkup(<ProgressBar label="Files made" done={3} of={12} className="" />);
  expect(bar).toMatch(/role="progressbar"/);
  expect(bar).toMatch(/aria-valuenow="(3|25)"/);
  expect(bar).toContain('Files made');
});
