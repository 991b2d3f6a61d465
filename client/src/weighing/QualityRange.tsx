import { useEffect, useState } from 'react';
import { type Choice } from '../api/client';
import { t } from '../texts/texts';
import type { TriedFile } from './useWeighing';

/** The words of the core, as they stand on a screen. */
const settleAfter = 150;

export function QualityRange({
  tried,
  found,
  ceiling,
  onTry,
}: {
  tried: TriedFile;
  found: number | null;
  ceiling: number;
  onTry: (choice: Choice) => void;
}) {
  // What the hand shows while it moves; taken over when it rests.
  const [draft, setDraft] = useState<number | null>(null);
  useEffect(() => {
    if (draft === null) return;
    const timer = setTimeout(() => {
      onTry({ format: tried.format, quality: draft });
      setDraft(null);
    }, settleAfter);
    return () => clearTimeout(timer);
  }, [draft, tried.format, onTry]);
  const value = draft ?? tried.quality ?? found ?? ceiling;
  return (
    <>
      <div className="flex items-center justify-between">
        <label htmlFor="quality" className="font-semibold">
          {t('weighing.qualityOf', { quality: value })}
        </label>
        <span className="text-ink-2">
          {tried.quality === null && draft === null ? t('weighing.automatic') : t('weighing.byHand')}
        </span>
      </div>
      <input
        id="quality"
        type="range"
        min={1}
        max={100}
        value={value}
        onChange={(event) => setDraft(Number(event.target.value))}
        className="mt-1 w-full accent-(--pm-accent)"
      />
    </>
  );
}
