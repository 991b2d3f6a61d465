import { useQueries } from '@tanstack/react-query';
import {
  api,
  type CurvePoint,
  type FileType,
  type JobSlot,
  type SlotType,
  type Picture,
  take,
} from '../api/client';

export interface Curve {
  format: FileType;
  points: CurvePoint[];
  working: boolean;
  /** False for a type that the slot does not take: it is drawn for comparison. */
  taken: boolean;
}

/** A rough curve first, then the points between: it is there at once and gets finer. */
const rounds = [
  [92, 60, 25],
  [80, 45],
  [70, 15],
];

/** The types that a slot leaves a choice of. */
export const typesOf = (types: readonly SlotType[]): FileType[] => [
  ...new Set(types.flatMap((type): FileType[] => (type === 'auto' ? ['jpeg', 'webp', 'png'] : [type]))),
];

const lossyTypes: FileType[] = ['jpeg', 'webp', 'avif'];

/**
 * Weight against likeness for each type the slot takes, and if wished for all others, measured on the very pixels,
 * point by point.
 */
export function useCurves(
  job: string,
  picture: Picture,
  slot: JobSlot,
  density: number,
  frame: string,
  enabled: boolean,
  others: boolean,
): Curve[] {
  const taken = typesOf(slot.slot.types);
  // A photograph without loss weighs many times as much: on one scale with it the other curves would be a dot.
  const all: FileType[] = picture.kind === 'photograph' ? lossyTypes : [...lossyTypes, 'png'];
  const types = others ? [...taken, ...all.filter((type) => !taken.includes(type))] : taken;
  const wanted = types.flatMap((format) =>
    (format === 'png' ? [[100]] : taken.includes(format) ? rounds : rounds.slice(0, 2)).map((qualities) => ({
      format,
      qualities,
    })),
  );
  const answers = useQueries({
    queries: wanted.map(({ format, qualities }) => ({
      queryKey: ['curve', job, picture.id, slot.address, density, frame, format, qualities],
      queryFn: ({ signal }: { signal: AbortSignal }) =>
        take(
          api.POST('/api/jobs/{id}/cells/{picture}/{destination}/{slot}/curve', {
            params: {
              path: { id: job, picture: picture.id, destination: slot.destination, slot: slot.slot.key },
            },
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
      taken: taken.includes(format),
    };
  });
}
