import { useEffect, useState } from 'react';
import { keyOf } from './singleKeys';
import { takesKey } from './useShortcuts';

/** True while a key is held down. */
export function useHeldKey(key: string): boolean {
  const [held, setHeld] = useState(false);
  useEffect(() => {
    const down = (event: KeyboardEvent) => {
      const typing = takesKey(event.target, event.key);
      if (keyOf(event) === key && !event.ctrlKey && !event.metaKey && !typing) setHeld(true);
    };
    const up = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() === key || event.key === 'Alt') setHeld(false);
    };
    const blur = () => setHeld(false);
    addEventListener('keydown', down);
    addEventListener('keyup', up);
    addEventListener('blur', blur);
    return () => {
      removeEventListener('keydown', down);
      removeEventListener('keyup', up);
      removeEventListener('blur', blur);
    };
  }, [key]);
  return held;
}
