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
      void copied(text).then((done) =>
        setSaid(done ? t('common.whatCopied', { what }) : t('common.theBrowserDidNotAllowCopying')),
      ),
  };
}

/** Whether the browser took a text; without TLS and from another machine it has no way to. */
async function copied(text: string): Promise<boolean> {
  try {
    await (navigator.clipboard as Clipboard | undefined)?.writeText(text);
    return 'clipboard' in navigator;
  } catch {
    return false;
  }
}
