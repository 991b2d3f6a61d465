import { startTransition, useEffect, useState } from 'react';

/** Whether the bench rests or is scrolled, and who waits for it to rest. */
export class Rest {
  private rests = true;
  private readonly waiting = new Set<() => void>();

  get now() {
    return this.rests;
  }

  set(rests: boolean) {
    this.rests = rests;
    if (!rests || this.waiting.size === 0) return;
    const all = [...this.waiting];
    this.waiting.clear();
    // In pieces, between which the page may scroll on.
    startTransition(() => all.forEach((tell) => tell()));
  }

  wait(tell: () => void): () => void {
    this.waiting.add(tell);
    return () => this.waiting.delete(tell);
  }
}

/** False for what came into view while the bench was scrolled, until it rests. */
export function useRested(rest: Rest): boolean {
  const [rested, setRested] = useState(rest.now);
  useEffect(() => {
    if (!rested) return rest.now ? setRested(true) : rest.wait(() => setRested(true));
  }, [rest, rested]);
  return rested;
}
