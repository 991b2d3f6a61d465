import { useEffect, useState } from 'react';
import type { Slot, VariantFile } from '../api/client';
import { Button, Key } from '../design/Button';

const settleAfter = 150;

const labels: Record<string, string> = {
  jpeg: 'JPEG',
  png: 'PNG',
  webp: 'WebP',
  avif: 'AVIF',
  auto: 'By content',
};

/** Quality by hand or found automatically, and the type where the slot leaves a choice. */
export function QualityControl({
  slot,
  file,
  format,
  onFormat,
  quality,
  onQuality,
}: {
  slot: Slot;
  file: VariantFile | null;
  format: string | null;
  onFormat: (format: string | null) => void;
  quality: number | null;
  onQuality: (quality: number | null) => void;
}) {
  // What the hand shows while it moves; taken over when it rests.
  const [draft, setDraft] = useState<number | null>(null);
  useEffect(() => {
    if (draft === null) return;
    const timer = setTimeout(() => {
      onQuality(draft);
      setDraft(null);
    }, settleAfter);
    return () => clearTimeout(timer);
  }, [draft, onQuality]);
  const type = format ?? file?.format;
  const value = draft ?? quality ?? file?.quality ?? slot.qualityCeiling;
  return (
    <section className="border-b border-line px-5 py-4" aria-label="Quality">
      {slot.types.length > 1 && (
        <div className="mb-3 flex items-center gap-1.5">
          {slot.types.map((one) => (
            <Button
              key={one}
              aria-pressed={one === type}
              className={one === type ? 'border-ink! bg-sheet-2!' : ''}
              onClick={() => onFormat(one === 'auto' ? null : one)}
            >
              {labels[one] ?? one}
            </Button>
          ))}
        </div>
      )}
      {file && file.quality === null ? (
        <p className="text-ink-2">{labels[file.format]} here has no quality to choose.</p>
      ) : (
        <>
          <div className="flex items-center justify-between">
            <label htmlFor="quality" className="font-semibold">
              Quality {value}
            </label>
            <span className="text-ink-2">
              {quality === null && draft === null ? 'found automatically' : 'by hand'}
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
          <div className="mt-1 flex items-center gap-2">
            <Button disabled={quality === null} onClick={() => onQuality(null)}>
              Find automatically <Key>A</Key>
            </Button>
          </div>
        </>
      )}
    </section>
  );
}
