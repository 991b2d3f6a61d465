import { DividerLabel } from '../design/DividerLabel';
import { useHeldKey } from '../design/useHeldKey';
import { useDrag } from '@use-gesture/react';
import { type ReactNode, useRef, useState } from 'react';
import { addresses, type VariantFile } from '../api/client';
import { Divider, useDivider } from '../design/Divider';
import { useElementSize } from '../design/useElementSize';
import { t } from '../texts/texts';

/** Before and after at true pixels: one pixel of the file is one pixel of the screen. A divider is dragged between them. */
export function Compare({
  file,
  meanwhile,
  working,
  worst,
}: {
  file: VariantFile | null;
  /** What stands there until the file does. */
  meanwhile: ReactNode;
  working: boolean;
  /** Counts how often the worst place was asked for. */
  worst: number;
}) {
  const [room, size] = useElementSize<HTMLDivElement>();
  const [share, setShare] = useDivider();
  const [pan, setPan] = useState({ x: 0, y: 0 });
  const seeThrough = useHeldKey('s');
  const [answered, setAnswered] = useState(0);
  // The pixels without loss are made when they are asked for: until then the file is seen on both sides.
  const [compared, setCompared] = useState<string | null>(null);
  const whole = file !== null && compared === file.id;
  const [arrived, setArrived] = useState<string | null>(null);
  const isThere = file !== null && arrived === file.id;
  const ratio = window.devicePixelRatio || 1;
  const [width, height] = file ? [file.width / ratio, file.height / ratio] : [0, 0];
  const free = size
    ? { x: Math.max(0, (width - size.width) / 2), y: Math.max(0, (height - size.height) / 2) }
    : { x: 0, y: 0 };
  const spot = file?.worstPlace;
  if (spot && worst !== answered) {
    // The middle of the worst place goes to the middle of the room, as far as the edges allow; the divider cuts through it.
    setAnswered(worst);
    setPan({
      x: width / 2 - (spot[0]! + spot[2]!) / 2 / ratio,
      y: height / 2 - (spot[1]! + spot[3]!) / 2 / ratio,
    });
    setShare(0.5);
  }
  const clamp = (value: number, most: number) => Math.min(most, Math.max(-most, value));
  const at = { x: clamp(pan.x, free.x), y: clamp(pan.y, free.y) };
  const left = size ? (size.width - width) / 2 + at.x : 0;
  const top = size ? (size.height - height) / 2 + at.y : 0;
  // The divider lives in the part of the picture that is on screen, so that it is always within reach.
  const from = Math.max(0, left);
  const to = Math.min(size?.width ?? 0, left + width);
  const divider = seeThrough ? to : from + (to - from) * share;
  const start = useRef(at);
  const panning = useDrag(
    ({ first, movement: [x, y] }) => {
      if (first) start.current = at;
      setPan({ x: clamp(start.current.x + x, free.x), y: clamp(start.current.y + y, free.y) });
    },
    { pointer: { keys: false } },
  );
  const picture = 'pointer-events-none absolute max-w-none select-none [image-rendering:auto]';
  const place = { left, top, width, height };
  return (
    <div ref={room} className="relative min-h-0 overflow-hidden" data-testid="compare">
      {working && (
        <div
          className="absolute inset-x-0 top-0 z-20 h-0.5 overflow-hidden bg-line"
          role="progressbar"
          aria-label={t('weighing.weighing')}
        >
          <span className="working-bar absolute inset-y-0 w-1/4 bg-accent" />
        </div>
      )}
      {!isThere && meanwhile}
      {!file && meanwhile && (
        <span className="pointer-events-none absolute top-3 left-3 z-10 bg-sheet px-2 py-0.5 text-ink">
          {t('weighing.aSmallPreviewTheFileIs')}
        </span>
      )}
      {file && size && (
        <>
          <div {...panning()} className="absolute inset-0 cursor-grab touch-none active:cursor-grabbing">
            {isThere && <div className="transparent-ground absolute" style={place} />}
            <img
              key={file.sha256}
              onLoad={() => setArrived(file.id)}
              src={addresses.file(file.id)}
              alt={t('weighing.nameAsDelivered', { name: file.name })}
              className={picture}
              style={place}
              data-testid="after"
            />
            <div
              className="absolute inset-0"
              style={{
                clipPath: `inset(0 ${size.width - divider}px 0 0)`,
                visibility: whole ? 'visible' : 'hidden',
              }}
            >
              <div className="transparent-ground absolute" style={place} />
              <img
                src={addresses.reference(file.id)}
                alt={t('weighing.theSamePixelsLossless')}
                className={picture}
                style={place}
                data-testid="before"
                onLoad={() => setCompared(file.id)}
              />
            </div>
          </div>
          {!seeThrough && (
            <>
              {spot && answered > 0 && <Outline name="worst" box={spot} {...{ left, top, ratio }} />}
              {file.dress?.last && (
                <Outline
                  name="reached-last"
                  title={t('weighing.theLowestContrastIsHere')}
                  box={file.dress.last}
                  {...{ left, top, ratio }}
                />
              )}
            </>
          )}
          {!seeThrough && <Divider share={share} onShare={setShare} from={from} to={to} />}
          <DividerLabel
            side="left"
            text={whole ? t('weighing.lossless') : t('weighing.losslessLoading')}
            at={divider}
            shown={divider - from > (whole ? 110 : 160)}
          />
          <DividerLabel
            side="right"
            text={`${file.formatLabel}${file.quality != null ? ` ${file.quality}` : ''}`}
            at={size.width - divider}
            shown={to - divider > 90}
          />
        </>
      )}
    </div>
  );
}

/** A place of the file, outlined. */
function Outline({
  name,
  box,
  title,
  left,
  top,
  ratio,
}: {
  name: string;
  /** Left, top, right, bottom in pixels of the file. */
  box: readonly number[];
  title?: string;
  left: number;
  top: number;
  ratio: number;
}) {
  return (
    <div
      data-testid={name}
      title={title}
      className="pointer-events-none absolute border border-white outline-1 outline-black"
      style={{
        left: left + box[0]! / ratio,
        top: top + box[1]! / ratio,
        width: (box[2]! - box[0]!) / ratio,
        height: (box[3]! - box[1]!) / ratio,
      }}
    />
  );
}
