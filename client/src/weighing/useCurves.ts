import { useQueries } from '@tanstack/react-query';
import { api, type CurvePoint, type JobSlot, take } from '../api/client';

export interface Curve {
  format: string;
  points: CurvePoint[];
  working: boolean;
}

/** A rough curve first, then the points between: it is there at once and gets finer. */
const rounds = [
  [92, 60, 25],
  [80, 45],
  [70, 15],
];

/** The types that a slot leaves a choice of. */
export const typesOf = (types: readonly string[]) => [
  ...new Set(types.flatMap((type) => (type === 'auto' ? ['jpeg', 'webp', 'png'] : [type]))),
];

/** Weight against likeness for each type the slot takes, measured on the very pixels, point by point. */
export function useCurves(
  job: string,
  picture: string,
  slot: JobSlot,
  density: number,
  frame: string,
  enabled: boolean,
): Curve[] {
  const types = typesOf(slot.slot.types);
  const wanted = types.flatMap((format) =>
    (format === 'png' ? [[100]] : rounds).map((qualities) => ({ format, qualities })),
  );
  const answers = useQueries({
    queries: wanted.map(({ format, qualities }) => ({
      queryKey: ['curve', job, picture, slot.address, density, frame, format, qualities],
      queryFn: ({ signal }: { signal: AbortSignal }) =>
        take(
          api.POST('/api/jobs/{id}/cells/{picture}/{destination}/{slot}/curve', {
            params: { path: { id: job, picture, destination: slot.destination, slot: slot.slot.key } },
            body: { density, format, qualities },
            signal,
          }),
        ),
      enabled,
      staleTime: Infinity,
    })),
  });
  return types.map((format) => {
    const mine = answers.filter((_, i) => wanted[i]!.format === format);
    return {
      format,
      points: mine.flatMap((answer) => answer.data ?? []).toSorted((a, b) => a.bytes - b.bytes),
      working: mine.some((answer) => answer.isFetching),
    };
  });
}
