import { weight } from '../design/figures';
import { t } from '../texts/texts';
import type { Scales } from './scales';

/** From so wide on the scale has room for its name, in pixels. */
const named = 260;

/** The scale of weights below the curves, with what it measures. */
export function WeightAxis({ scales: { left, right, bottom, x, ticks } }: { scales: Scales }) {
  return (
    <>
      {/* After the end of the scale, where no line crosses it. */}
      {right - left > named && (
        <text x={right + 8} y={bottom + 4} className="fill-ink-2 text-note">
          {t('weighing.weightOfTheFile')}
        </text>
      )}
      <line x1={left} x2={right} y1={bottom} y2={bottom} className="stroke-ink-2" />
      {ticks.map((tick) => (
        <g key={tick}>
          <line x1={x(tick)} x2={x(tick)} y1={bottom} y2={bottom + 5} className="stroke-ink-2" />
          <text x={x(tick)} y={bottom + 17} textAnchor="middle" className="fill-ink-2 text-note">
            {weight(tick)}
          </text>
        </g>
      ))}
    </>
  );
}
