import { useEffect, useRef, useState } from 'react';
import { api, type Cell, type JobCommand } from '../api/client';

/** How long a hand rests before its frame is weighed, in milliseconds. */
const rest = 60;

type Files = Cell['files'];

/**
 * What the active slot's first file weighs under decisions that a hand still holds; null until that is known.
 * It is asked for when the hand rests, and given up when it moves on; once let go, the same file is already there.
 */
export function useForetoldFiles(
  job: string,
  picture: string,
  destination: string,
  slot: string,
  held: readonly JobCommand[] | null,
): Files | null {
  const [known, setKnown] = useState<{ key: string; files: Files } | null>(null);
  const key = held && JSON.stringify([picture, destination, slot, held]);
  // One clock while a hand moves, not one for each drawing.
  const hand = useRef({
    path: { id: job, picture, destination, slot },
    held,
    key,
    moved: 0,
    clock: 0,
    asked: null as string | null,
    stop: null as AbortController | null,
  });
  useEffect(() => {
    const now = hand.current;
    if (now.key !== key) now.moved = performance.now();
    now.held = held;
    now.path = { id: job, picture, destination, slot };
    now.key = key;
    // What was asked for a frame that is let go just now goes on: it is the file that is wanted.
    if (key === null) return;
    if (now.asked !== key) {
      now.stop?.abort();
      now.asked = null;
    }
    const look = () => {
      now.clock = 0;
      if (now.key === null || now.asked === now.key) return;
      const wait = now.moved + rest - performance.now();
      if (wait > 0) {
        now.clock = window.setTimeout(look, wait);
        return;
      }
      const mine = (now.asked = now.key);
      now.stop = new AbortController();
      void api
        .POST('/api/jobs/{id}/cells/{picture}/{destination}/{slot}/weigh', {
          params: { path: now.path },
          body: { commands: [...now.held!] },
          signal: now.stop.signal,
        })
        .then(({ data }) => data && setKnown({ key: mine, files: data }))
        // Given up, or the server is away, which is said elsewhere.
        .catch(() => undefined);
    };
    now.clock ||= window.setTimeout(look, rest);
  }, [key, held, job, picture, destination, slot]);
  useEffect(() => {
    const now = hand.current;
    return () => {
      clearTimeout(now.clock);
      now.stop?.abort();
    };
  }, []);
  return known && known.key === key ? known.files : null;
}
