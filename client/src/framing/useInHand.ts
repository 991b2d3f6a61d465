import { useEffect, useState } from 'react';

/** The slot that is drawn larger: the active one, but never while a hand is down, as nothing may grow under it. */
export function useInHand(active: string): string {
  const [inHand, setInHand] = useState(active);
  const [down, setDown] = useState(false);
  useEffect(() => {
    const press = () => setDown(true);
    const release = () => setDown(false);
    addEventListener('pointerdown', press, true);
    addEventListener('pointerup', release, true);
    addEventListener('pointercancel', release, true);
    return () => {
      removeEventListener('pointerdown', press, true);
      removeEventListener('pointerup', release, true);
      removeEventListener('pointercancel', release, true);
    };
  }, []);
  if (!down && inHand !== active) setInHand(active);
  return inHand;
}
