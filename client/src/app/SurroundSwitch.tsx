import { useEffect, useState } from 'react';
import { t } from '../texts/texts';

const storageKey = 'pantomet-surround';

/** The grey around the pictures, lighter or darker, as the person's room and pictures want it. */
export function SurroundSwitch({ small }: { /** True where only its sign has room. */ small: boolean }) {
  const [darker, setDarker] = useState(() => localStorage.getItem(storageKey) === 'darker');
  useEffect(() => {
    document.documentElement.dataset.surround = darker ? 'darker' : 'lighter';
    localStorage.setItem(storageKey, darker ? 'darker' : 'lighter');
  }, [darker]);
  const name = darker ? t('app.darkerSurround') : t('app.lighterSurround');
  return (
    <button
      type="button"
      aria-pressed={darker}
      aria-label={name}
      title={small ? name : undefined}
      onClick={() => setDarker(!darker)}
      className="flex items-center gap-2 rounded-md px-2 py-1 text-ink-2 hover:text-ink"
    >
      <span aria-hidden className="flex border border-ink-2">
        <span className="h-3.5 w-3.5 bg-[#cfcfcf]" />
        <span className="h-3.5 w-3.5 bg-[#2e2e2e]" />
      </span>
      {!small && <span className="max-md:hidden">{name}</span>}
    </button>
  );
}
