import { weight } from './figures';
import { t } from '../texts/texts';

/**
 * The beam: the sign of weight. A scale with ticks, the limit as a stop, the weight as the load that hangs from it.
 * Over the limit the load stands beyond the stop and is hatched.
 */
export function Beam({
  bytes,
  limit,
  original,
  label,
}: {
  bytes: number;
  limit?: number | null;
  /** The original's weight, drawn as a hollow mark where it lies on the scale. */
  original?: number;
  label?: string;
}) {
  const end = niceEnd(Math.max(bytes, limit ?? 0) * 1.12);
  const at = (value: number) => `${Math.min(100, (value / end) * 100)}%`;
  const over = limit != null && bytes > limit;
  const ticks = Array.from({ length: 21 }, (_, i) => i / 20);
  const words =
    limit != null ? t('common.bytesOfLimit', { bytes: weight(bytes), limit: weight(limit) }) : weight(bytes);
  return (
    <figure
      className="w-full"
      role="img"
      aria-label={`${label ?? t('common.weight')}: ${words}${over ? t('common.overTheLimit') : ''}`}
    >
      <div aria-hidden className="relative h-9">
        <div className="absolute inset-x-0 top-4 h-px bg-ink-2" />
        {ticks.map((tick, i) => (
          <span
            key={tick}
            className={`absolute w-px bg-ink-2 ${i % 5 === 0 ? 'top-4 h-2.5' : 'top-4 h-1.5'}`}
            style={{ left: `${tick * 100}%` }}
          />
        ))}
        <div
          className={`absolute top-1.5 h-2.5 ${over ? 'text-breaks' : 'text-accent'}`}
          style={{
            width: at(bytes),
            background: over
              ? 'repeating-linear-gradient(45deg, currentColor 0 3px, transparent 3px 5px)'
              : 'currentColor',
          }}
        />
        {limit != null && (
          <div className="absolute top-0 h-[25px] w-0.5 bg-ink" style={{ left: at(limit) }}>
            <span className="absolute -top-0 -left-1 h-0.5 w-2.5 bg-ink" />
          </div>
        )}
        {original != null && original <= end && (
          <div
            className="absolute top-0.5 h-4 w-2 border border-ink-2 bg-transparent"
            style={{ left: `calc(${at(original)} - 4px)` }}
          />
        )}
        {/* The end gives way to the limit where the two would touch; the limit stands inside the scale at both ends. */}
        {(limit == null || limit / end > 0.16) && (
          <span className="absolute top-[28px] left-0 text-note leading-none text-ink-2">0</span>
        )}
        {(limit == null || limit / end < 0.62) && (
          <span className="absolute top-[28px] right-0 text-note leading-none text-ink-2">{weight(end)}</span>
        )}
        {limit != null && (
          <span
            className={`absolute top-[28px] text-note leading-none font-semibold whitespace-nowrap ${limit / end > 0.84 ? '-translate-x-full' : limit / end < 0.16 ? '' : '-translate-x-1/2'}`}
            style={{ left: at(limit) }}
          >
            {weight(limit)}
          </span>
        )}
      </div>
    </figure>
  );
}

/** The next round figure: 1, 1.5, 2, 3, 5 or 8 times a power of ten. */
function niceEnd(value: number): number {
  const power = 10 ** Math.floor(Math.log10(Math.max(1, value)));
  return ([1, 1.5, 2, 3, 5, 8, 10].find((step) => step * power >= value) ?? 10) * power;
}
