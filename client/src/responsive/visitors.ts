import { useState } from 'react';
import type { Visitors } from '../api/client';

/** Who comes to a site like this one: by judgement, a stated mix to begin with. Everybody's own is kept in the browser. */
export const usualVisitors: readonly Visitors[] = [
  { viewport: 360, density: 3, share: 20 },
  { viewport: 390, density: 3, share: 18 },
  { viewport: 412, density: 2.6, share: 12 },
  { viewport: 820, density: 2, share: 6 },
  { viewport: 1280, density: 1.5, share: 8 },
  { viewport: 1366, density: 1, share: 9 },
  { viewport: 1440, density: 2, share: 10 },
  { viewport: 1536, density: 1.25, share: 8 },
  { viewport: 1920, density: 1, share: 9 },
];

const place = 'pantomet.visitors';

const isVisitors = (one: unknown): one is Visitors =>
  typeof one === 'object' &&
  one !== null &&
  ['viewport', 'density', 'share'].every((key) => typeof (one as Record<string, unknown>)[key] === 'number');

function read(): readonly Visitors[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(place) ?? 'null');
    return Array.isArray(kept) && kept.length > 0 && kept.every(isVisitors) ? kept : usualVisitors;
  } catch {
    return usualVisitors;
  }
}

/** The mix of visitors, kept in this browser. */
export function useVisitors(): [readonly Visitors[], (next: readonly Visitors[] | null) => void] {
  const [visitors, set] = useState(read);
  return [
    visitors,
    (next) => {
      if (next) localStorage.setItem(place, JSON.stringify(next));
      else localStorage.removeItem(place);
      set(next ?? usualVisitors);
    },
  ];
}

export const viewports = [320, 360, 390, 480, 600, 768, 820, 1024, 1280, 1440, 1680, 1920] as const;
export const densities = [1, 1.5, 2, 3] as const;
