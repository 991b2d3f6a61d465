import { useQueries } from '@tanstack/react-query';
import pLimit from 'p-limit';
import {
  api,
  type CurvePoint,
  type FileType,
  type JobSlot,
  type SlotType,
  type Picture,
  type VariantFile,
  take,
} from '../api/client';

export interface Curve {
  format: FileType;
  points: CurvePoint[];
  working: boolean;
  /** False for a type that the slot does not take: it is drawn for comparison. */
  taken: boolean;
}

/** Point by point: the ends and the middle first, then what lies between. */
const order = [60, 92, 25, 80, 45, 70, 15];
/** How many of them are drawn of a type that only stands for comparison. */
const rough = 5;

/** A browser asks a server for six things at once: the curves leave most of that to the file that is looked at. */
const line = pLimit(2);

const lossyTypes: FileType[] = ['jpeg', 'webp', 'avif'];

/** The types that a slot leaves a choice of: those it names, else all. */
export const typesOf = (types: readonly SlotType[]): FileType[] => {
  const named = types.filter((type) => type !== 'auto');
  return named.length > 0 ? [...new Set(named)] : [...lossyTypes, 'png'];
};

/** The file that is looked at is a point of its curve, and there before any other. */
const withFile = (points: CurvePoint[], file: VariantFile | null): CurvePoint[] =>
  file?.likeness == null || points.some((point) => point.quality === file.quality)
    ? points
    : [...points, { quality: file.quality, bytes: file.bytes, likeness: file.likeness }];

/**
 * Weight against likeness for each type the slot takes, and on request for all others, measured on the very pixels,
 * point by point.
 */
export function useCurves(
  job: string,
  picture: Picture,
  slot: JobSlot,
  descriptor: string,
  frame: string,
  enabled: boolean,
  others: boolean,
  file: VariantFile | null,
): Curve[] {
  const taken = typesOf(slot.slot.types);
  // A photograph without loss weighs many times as much: on one scale with it the other curves would be a dot.
  const all: FileType[] = picture.kind === 'photograph' ? lossyTypes : [...lossyTypes, 'png'];
  const types = others ? [...taken, ...all.filter((type) => !taken.includes(type))] : taken;
  const wanted = order.flatMap((quality, i) =>
    types
      .filter((format) => (format === 'png' ? i === 0 : taken.includes(format) || i < rough))
      .map((format) => ({ format, qualities: [format === 'png' ? 100 : quality] })),
  );
  const answers = useQueries({
    queries: wanted.map(({ format, qualities }) => ({
      queryKey: ['curve', job, picture.id, slot.address, descriptor, frame, format, qualities],
      queryFn: ({ signal }: { signal: AbortSignal }) =>
        line(() =>
          take(
            api.POST('/api/jobs/{id}/cells/{picture}/{destination}/{slot}/curve', {
              params: {
                path: { id: job, picture: picture.id, destination: slot.destination, slot: slot.slot.key },
              },
              body: { descriptor, format, qualities },
              signal,
            }),
          ),
        ),
      enabled,
      staleTime: Infinity,
    })),
  });
  return types.map((format) => {
    const mine = answers.filter((_, i) => wanted[i]!.format === format);
    return {
      format,
      points: withFile(
        mine.flatMap((answer) => answer.data ?? []),
        file?.format === format ? file : null,
      ).toSorted((a, b) => a.bytes - b.bytes),
      working: mine.some((answer) => answer.isFetching),
      taken: taken.includes(format),
    };
  });
}
