import { Button } from '../design/Button';
import { usePlace } from '../forms/slotForm';
import { t } from '../texts/texts';

/** Shapes that are common on the web, as plain figures (common practice): to begin with, not to end with. */
const shapes = [
  { ratio: '1:1', width: 1200 },
  { ratio: '4:5', width: 1080 },
  { ratio: '2:3', width: 1000 },
  { ratio: '3:2', width: 1200 },
  { ratio: '16:9', width: 1920 },
  { ratio: '1.91:1', width: 1200 },
  { ratio: '2:1', width: 1600 },
  { ratio: '3:1', width: 1500 },
] as const;

/** A new slot begins from one of these. */
export function CommonShapes() {
  const { value, set } = usePlace('size');
  const now = JSON.stringify(value);
  return (
    <section className="border-b border-line px-5 py-3" aria-label={t('destinations.commonShapes')}>
      <h3 className="mb-1.5 text-ink-2">{t('destinations.commonShapes')}</h3>
      <div className="flex flex-wrap gap-1.5">
        {shapes.map((shape) => (
          <Button
            key={shape.ratio}
            className={`h-7! px-2! ${now === JSON.stringify(shape) ? 'border-ink! bg-sheet-2!' : ''}`}
            aria-pressed={now === JSON.stringify(shape)}
            onClick={() => set(shape)}
          >
            {shape.ratio}
          </Button>
        ))}
      </div>
    </section>
  );
}
