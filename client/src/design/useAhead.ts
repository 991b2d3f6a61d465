import { useState } from 'react';

/**
 * What was chosen is shown at once, and until the act that stores it has ended; then the stored value again. The state of a
 * request comes a moment after the choice, and for that moment a box would fall back to what it was.
 */
export function useAhead<T>(stored: T) {
  const [ahead, setAhead] = useState<{ value: T } | null>(null);
  const choose = (value: T, act: () => Promise<unknown>) => {
    const mine = { value };
    setAhead(mine);
    // A refusal is told by the request itself.
    void act()
      .catch(() => undefined)
      .finally(() => setAhead((now) => (now === mine ? null : now)));
  };
  return [ahead === null ? stored : ahead.value, choose] as const;
}
