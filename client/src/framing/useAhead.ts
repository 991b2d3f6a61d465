import { useEffect, useRef, useState } from 'react';
import { api, type Cell, type Decisions } from '../api/client';

/** How long a hand rests before its frame is weighed, in milliseconds. */
const rest = 60;

type Files = Cell['files'];

/**
 * What the active slot's first density weighs under decisions that a hand still holds; null until that is known.
 * It is asked for when the hand rests, and given up when it moves on; once let go, the same file is already there.
 */
export function useAhead(
  job: string,
  picture: string,
  destination: string,
  slot: string,
  held: Decisions | null,
): Files | null {
  const [known, setKnown] = useState<{ key: string; files: Files } | null>(null);
  const asked = useRef<AbortController | null>(null);
  const latest = useRef(held);
  useEffect(() => {
    latest.current = held;
  });
  const key = held && JSON.stringify([picture, destination, slot, held]);
  useEffect(() => {
    // What was asked for a frame that is let go just now goes on: it is the file that is wanted.
    if (key === null) return;
    asked.current?.abort();
    const stop = (asked.current = new AbortController());
    const timer = setTimeout(() => {
      void api
        .POST('/api/jobs/{id}/cells/{picture}/{destination}/{slot}/ahead', {
          params: { path: { id: job, picture, destination, slot } },
          body: latest.current!,
          signal: stop.signal,
        })
        .then(({ data }) => data && setKnown({ key, files: data }))
        // Given up, or the server is away, which is said elsewhere.
        .catch(() => undefined);
    }, rest);
    return () => clearTimeout(timer);
  }, [key, job, picture, destination, slot]);
  useEffect(() => () => asked.current?.abort(), []);
  return known && known.key === key ? known.files : null;
}
