import { useState } from 'react';

/** Copies texts, and says what became of the last. */
export function useCopy(): {
  said: string | null;
  copy: (what: string, text: string) => void;
  fail: (why: string) => void;
  forget: () => void;
} {
  const [said, setSaid] = useState<string | null>(null);
  return {
    said,
    fail: setSaid,
    forget: () => setSaid(null),
    copy: (what, text) =>
      void navigator.clipboard.writeText(text).then(
        () => setSaid(`${what} is copied.`),
        () => setSaid('The browser did not let it be copied; mark the text and copy it by hand.'),
      ),
  };
}
