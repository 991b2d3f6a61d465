import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Intake } from '../api/client';
import { t } from '../texts/texts';

export interface Arrival {
  key: number;
  name: string;
  bytes: number;
  /** Bytes sent so far. */
  sent: number;
  state: 'waiting' | 'delivery' | 'checking' | 'kept' | 'already' | 'refused' | 'stopped';
  /** The refusal, or a remark, as a sentence. */
  words?: string;
  pictureId?: string;
}

/** How many files are on their way at once: one is sent while another is checked. */
const atOnce = 2;

const finished = new Set<Arrival['state']>(['kept', 'already', 'refused', 'stopped']);

export const isFinished = (arrival: Arrival) => finished.has(arrival.state);

/** Files arrive in any order; they are handed on in the order in which they were given. */
function useInOrder(onKept: (pictures: string[], into: string | null) => void) {
  const kept = useRef(onKept);
  useEffect(() => {
    kept.current = onKept;
  });
  const ended = useRef(new Map<number, { picture: string | undefined; into: string | null }>());
  const nextOut = useRef(1);
  return useCallback((key: number, picture: string | undefined, into: string | null) => {
    ended.current.set(key, { picture, into });
    for (let one = ended.current.get(nextOut.current); one; one = ended.current.get(nextOut.current)) {
      ended.current.delete(nextOut.current++);
      if (one.picture) kept.current([one.picture], one.into);
    }
  }, []);
}

/** Uploads pictures, several at a time, each with its own progress; one refusal leaves the others alone. */
export function useIntake(onKept: (pictures: string[], into: string | null) => void) {
  const cache = useQueryClient();
  const [arrivals, setArrivals] = useState<Arrival[]>([]);
  const queue = useRef<{ key: number; file: File; into: string | null }[]>([]);
  const running = useRef(new Map<number, XMLHttpRequest>());
  const nextKey = useRef(1);

  const handOn = useInOrder(onKept);
  const change = useCallback((key: number, changes: Partial<Arrival>) => {
    setArrivals((all) => all.map((one) => (one.key === key ? { ...one, ...changes } : one)));
  }, []);

  const pump = useCallback(() => {
    while (running.current.size < atOnce && queue.current.length > 0) {
      const { key, file, into } = queue.current.shift()!;
      const request = new XMLHttpRequest();
      running.current.set(key, request);
      const end = (changes: Partial<Arrival>) => {
        running.current.delete(key);
        change(key, changes);
        handOn(key, changes.pictureId, into);
        pump();
      };
      request.open('POST', `/api/pictures?name=${encodeURIComponent(file.name)}`);
      request.setRequestHeader('Content-Type', 'application/octet-stream');
      request.upload.onprogress = (event) => change(key, { sent: event.loaded });
      request.upload.onload = () => change(key, { state: 'checking', sent: file.size });
      request.onload = () => {
        end(outcome(request));
        void cache.invalidateQueries({ queryKey: ['pictures'] });
      };
      request.onerror = () => end({ state: 'refused', words: t('pictures.theFileCouldNotBeSent') });
      request.onabort = () => end({ state: 'stopped', words: t('pictures.stoppedNothingOfThisFileWas') });
      change(key, { state: 'delivery' });
      request.send(file);
    }
  }, [cache, change, handOn]);

  const add = useCallback(
    (files: Iterable<File>, into: string | null) => {
      const added = [...files].map((file) => ({ key: nextKey.current++, file, into }));
      queue.current.push(...added);
      setArrivals((all) => [
        ...all,
        ...added.map(({ key, file }) => ({
          key,
          name: file.name,
          bytes: file.size,
          sent: 0,
          state: 'waiting' as const,
        })),
      ]);
      pump();
    },
    [pump],
  );

  const stop = useCallback(() => {
    for (const { key, into } of queue.current.splice(0)) {
      change(key, { state: 'stopped', words: t('pictures.stoppedBeforeItWasSent') });
      handOn(key, undefined, into);
    }
    for (const request of [...running.current.values()]) request.abort();
  }, [change, handOn]);

  const clear = useCallback(() => setArrivals((all) => all.filter((one) => !isFinished(one))), []);

  return { arrivals, add, stop, clear };
}

function outcome(request: XMLHttpRequest): Partial<Arrival> {
  try {
    const answer = JSON.parse(request.responseText) as Intake & { detail?: string };
    if (request.status >= 300)
      return { state: 'refused', words: answer.detail ?? t('pictures.theFileWasRefused') };
    return {
      state: answer.alreadyHere ? 'already' : 'kept',
      pictureId: answer.picture.id,
      words: answer.alreadyHere
        ? t('pictures.thisFileIsAlreadyInThe', { name: answer.picture.name })
        : undefined,
    };
  } catch {
    return { state: 'refused', words: t('pictures.pantometSentAnAnswerThatCannot') };
  }
}
