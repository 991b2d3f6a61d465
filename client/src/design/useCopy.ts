import { useState } from 'react';
import { t } from '../texts/texts';

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
        () => setSaid(t('common.whatCopied', { what })),
        () => setSaid(t('common.theBrowserDidNotAllowCopying')),
      ),
  };
}
