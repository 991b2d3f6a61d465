import { useState } from 'react';
import { trim, weight } from '../design/figures';
import { t } from '../texts/texts';

const rates = [1.5, 5, 20, 100];

const rateKey = 'pantomet-rate';

/** What a visitor is saved, in bytes and in time at a stated connection. */
export function Loading({ file, original }: { file: number; original: number }) {
  const [rate, setRate] = useState(() => Number(localStorage.getItem(rateKey)) || 5);
  const seconds = (bytes: number) => (bytes * 8) / (rate * 1e6);
  const time = (bytes: number) => {
    const value = seconds(bytes);
    return value < 1
      ? t('weighing.milliseconds', { n: Math.max(1, Math.round(value * 1000)) })
      : t('weighing.seconds', { n: trim(value, value < 10 ? 1 : 0) });
  };
  return (
    <div className="mt-3" data-testid="loading">
      <p>
        {file < original
          ? t('weighing.savesVisitors', {
              saved: weight(original - file),
              whole: weight(original),
              times: trim(original / file, 1),
            })
          : t('weighing.theOriginalWeighsOriginal', { original: weight(original) })}
      </p>
      <p className="mt-1 text-ink-2">
        {file < original
          ? t('weighing.loadsInOriginal', { file: time(file), original: time(original) })
          : t('weighing.loadsIn', { file: time(file) })}{' '}
        <select
          aria-label={t('weighing.connection')}
          className="rounded-sm border border-line bg-sheet px-1"
          value={rate}
          onChange={(event) => {
            setRate(Number(event.target.value));
            localStorage.setItem(rateKey, event.target.value);
          }}
        >
          {rates.map((one) => (
            <option key={one} value={one}>
              {t('weighing.mbitPerSecond', { rate: one })}
            </option>
          ))}
        </select>
      </p>
    </div>
  );
}
