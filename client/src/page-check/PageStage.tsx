import { type ReactNode, useEffect, useRef, useState } from 'react';
import { addresses, type PageCheck, type PageReport, type PageScreen } from '../api/client';
import { useElementSize } from '../design/useElementSize';
import { Notice } from '../design/Notice';
import { isOn } from './screens';
import { t } from '../texts/texts';

/** Of longer pages only so much is on the picture. */
const longestShot = 16_000;

/** The page as it looks on a screen, each picture outlined and numbered by what it gains. */
export function PageStage({
  check,
  report,
  screen,
  chosen,
  onChoose,
  ruler,
}: {
  check: PageCheck;
  report: PageReport;
  screen: PageScreen;
  chosen: number | null;
  onChoose: (image: number) => void;
  /** What measures the page, over it; null while nothing does. */
  ruler: ((scale: number) => ReactNode) | null;
}) {
  const [room, size] = useElementSize<HTMLDivElement>();
  const [lost, setLost] = useState(false);
  const marked = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    marked.current?.scrollIntoView({ block: 'nearest' });
  }, [chosen, screen, size]);
  const scale = size ? Math.min(1, (size.width - 40) / screen.viewport) : 0;
  const version = `${report.totals.seconds}`;
  return (
    <div ref={room} className="relative min-h-0 overflow-y-auto" data-testid="page">
      {scale > 0 && (
        <div
          className="relative mx-auto my-4 outline outline-line"
          // Its room is kept before its picture is there, so that places can be gone to.
          style={{ width: screen.viewport * scale, minHeight: Math.min(screen.height, longestShot) * scale }}
        >
          <img
            key={screen.viewport}
            src={addresses.pageShot(check.id, screen.viewport, version)}
            alt={t('pageCheck.thePageOnAScreenOf', { viewport: screen.viewport })}
            className="block w-full"
            onError={() => setLost(true)}
          />
          {lost && <Notice>{t('pageCheck.noScreenshotCouldBeTakenOn')}</Notice>}
          {ruler?.(scale)}
          {!ruler &&
            report.images.map((image, i) => {
              const place = image.shown.find(isOn(screen));
              if (!place || place.box[2]! * place.box[3]! === 0) return null;
              const [left, top, width, height] = place.box.map((side) => side * scale) as [
                number,
                number,
                number,
                number,
              ];
              const isChosen = i === chosen;
              return (
                <button
                  key={i}
                  ref={isChosen ? marked : null}
                  type="button"
                  onClick={() => onChoose(i)}
                  aria-pressed={isChosen}
                  aria-label={t('pageCheck.pictureAt', { number: i + 1, address: image.address })}
                  title={image.address}
                  className={`absolute scroll-m-16 ${isChosen ? 'z-20 outline-3 outline-accent' : 'z-10 border border-white outline-1 outline-black'}`}
                  style={{ left, top, width, height }}
                >
                  <span
                    className={`absolute top-0 left-0 min-w-5 px-1 text-center text-note leading-[18px] font-semibold ${
                      isChosen ? 'bg-accent text-on-accent' : 'bg-sheet text-ink outline-1 outline-black'
                    }`}
                  >
                    {i + 1}
                  </span>
                </button>
              );
            })}
        </div>
      )}
    </div>
  );
}
