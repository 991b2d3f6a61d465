import type { Cell, JobPicture, JobSlot, ViewportLoad } from '../api/client';
import { Crop } from '../design/Crop';
import { count } from '../design/figures';
import { t } from '../texts/texts';

const [most, high] = [316, 168];

/** The page at one width of the window: how much of it the picture takes, with the very crop in its place. */
export function PageColumn({
  picture,
  slot,
  cell,
  taken,
}: {
  picture: JobPicture;
  slot: JobSlot | undefined;
  cell: Cell | undefined;
  taken: ViewportLoad;
}) {
  const scale = most / Math.max(taken.viewport, 1280);
  const width = taken.viewport * scale;
  const shown = Math.min(taken.shown, taken.viewport) * scale;
  const shape = cell ? cell.width / cell.height : 1.5;
  return (
    <figure aria-label={t('responsive.thePageAtViewportPx', { viewport: taken.viewport })}>
      <div
        className="mx-auto flex flex-col items-center gap-1.5 overflow-hidden border border-ink-2 bg-white pt-2"
        style={{ width, height: high }}
      >
        <Lines count={2} width={shown} />
        <div
          className="relative shrink-0 overflow-hidden bg-sheet-2"
          style={{ width: shown, height: shown / shape }}
        >
          {slot && cell && (
            <Crop
              picture={picture}
              slot={slot.slot}
              frame={cell.frame}
              width={shown}
              height={shown / shape}
              side={480}
            />
          )}
        </div>
        <Lines count={6} width={shown} />
      </div>
      <figcaption className="mt-1 text-center text-ink-2">
        {t('responsive.shownPxInAWindowOf', { shown: count(taken.shown), viewport: count(taken.viewport) })}
      </figcaption>
    </figure>
  );
}

/** Lines of a text, to see a column by. */
const Lines = ({ count: lines, width }: { count: number; width: number }) =>
  Array.from({ length: lines }, (_, i) => (
    <span
      key={i}
      className="h-[3px] shrink-0 bg-[#c9c9c9]"
      style={{ width: Math.min(width, 180) * (i % 3 === 2 ? 0.7 : 1) }}
    />
  ));
