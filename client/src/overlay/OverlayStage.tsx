import { useDrag } from '@use-gesture/react';
import { useEffect, useRef, useState } from 'react';
import { addresses, type PreviewView } from '../api/client';
import { size as sizeWords } from '../design/figures';
import { useElementSize } from '../design/useElementSize';
import { type Area, movedArea } from '../domain/overlay';
import { ColourPicker } from './ColourPicker';
import { t } from '../texts/texts';

const margin = 40;
const corners = ['left top', 'right top', 'left bottom', 'right bottom'] as const;

/** The very file of a slot, with what is drawn over it; where it may stand is placed by hand. */
export function OverlayStage({
  name,
  look,
  expected,
  area,
  plain,
  onArea,
  onPick,
}: {
  name: string;
  look: PreviewView | null;
  /** How large the file will be, as far as the slot says it: so that nothing moves once it is there. */
  expected: { width: number; height: number };
  /** Where the title or what is written may stand; null where nothing is placed. */
  area: Area | null;
  /** The pixels without anything over them, while an ink is picked. */
  plain: string | null;
  /** Placed; while the hand still holds it, it is not done. */
  onArea: (area: Area, done: boolean) => void;
  onPick: (ink: string | null) => void;
}) {
  const [room, inside] = useElementSize<HTMLDivElement>();
  const shown = useLoaded(look);
  const file = shown ?? expected;
  const scale = inside
    ? Math.min(1, (inside.width - 2 * margin) / file.width, (inside.height - 2 * margin) / file.height)
    : 0;
  const [width, height] = [file.width * scale, file.height * scale];
  const part = (box: readonly number[]) => ({
    left: box[0]! * scale,
    top: box[1]! * scale,
    width: (box[2]! - box[0]!) * scale,
    height: (box[3]! - box[1]!) * scale,
  });
  const last = shown?.dress?.last;
  return (
    <div ref={room} className="relative min-h-0 overflow-hidden" data-testid="over-stage">
      {inside && (
        <>
          <p
            className="absolute text-small leading-5"
            style={{ left: (inside.width - width) / 2, top: (inside.height - height) / 2 - 22 }}
          >
            {shown
              ? `${sizeWords(shown.width, shown.height)}${scale < 1 ? t('overlay.shownAtScale', { scale: Math.round(scale * 100) }) : t('overlay.shownAt100')}`
              : t('overlay.loading')}
          </p>
          <div
            className="absolute bg-sheet-2"
            style={{
              left: (inside.width - width) / 2,
              top: (inside.height - height) / 2,
              width,
              height,
            }}
          >
            {shown && (
              <img
                src={addresses.look(shown.id)}
                alt={t('overlay.nameAsDelivered', { name })}
                draggable={false}
                className="block h-full w-full select-none"
                data-testid="over-look"
              />
            )}
            {last && !plain && (
              <span
                className="pointer-events-none absolute border border-white outline-1 outline-black"
                style={part(last)}
                title={t('overlay.theLowestContrastIsHere')}
                data-testid="over-last"
              />
            )}
            {area && !plain && <Placed area={area} width={width} height={height} onArea={onArea} />}
            {plain && shown && (
              <ColourPicker source={addresses.look(plain)} width={width} height={height} onPick={onPick} />
            )}
          </div>
        </>
      )}
    </div>
  );
}

/** A look once its pixels are there; the one before until then, so that nothing flickers. */
function useLoaded(look: PreviewView | null): PreviewView | null {
  const [shown, setShown] = useState<PreviewView | null>(null);
  useEffect(() => {
    if (!look) return;
    let gone = false;
    const image = new Image();
    image.src = addresses.look(look.id);
    void image
      .decode()
      .then(() => !gone && setShown(look))
      .catch(() => undefined);
    return () => {
      gone = true;
    };
  }, [look]);
  return shown;
}

/** The area in hand: dragged as a whole, or by a corner. */
function Placed({
  area,
  width,
  height,
  onArea,
}: {
  area: Area;
  width: number;
  height: number;
  onArea: (area: Area, done: boolean) => void;
}) {
  const start = useRef(area);
  const drawing = useRef(0);
  const drag = useDrag(
    ({ first, last, movement: [mx, my], args: [edges] }) => {
      if (first) start.current = area;
      const next = movedArea(start.current, mx / width, my / height, edges as string);
      // A hand moves more often than the screen is drawn: the last place before a drawing counts.
      cancelAnimationFrame(drawing.current);
      if (last) onArea(next, true);
      else drawing.current = requestAnimationFrame(() => onArea(next, false));
    },
    { pointer: { keys: false } },
  );
  const [left, top, right, bottom] = area;
  return (
    <div
      {...drag('all')}
      role="application"
      aria-label={t('overlay.areaForTheTitleArrowKeys')}
      tabIndex={0}
      className="absolute cursor-move touch-none border border-dashed border-white outline-1 outline-black/50 outline-dashed"
      style={{
        left: left * width,
        top: top * height,
        width: (right - left) * width,
        height: (bottom - top) * height,
      }}
      onKeyDown={(event) => {
        const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
        if (!by) return;
        event.preventDefault();
        event.stopPropagation();
        const far = event.shiftKey ? 0.002 : 0.01;
        onArea(movedArea(area, by[0]! * far, by[1]! * far, 'all'), true);
      }}
      data-testid="over-area"
    >
      {corners.map((corner) => {
        const hand = drag(corner);
        return (
          <span
            key={corner}
            {...hand}
            onPointerDown={(event) => {
              // The corner is taken, not the area around it.
              event.stopPropagation();
              hand.onPointerDown?.(event);
            }}
            className={`absolute h-3 w-3 touch-none border border-black bg-white ${
              corner === 'left top' || corner === 'right bottom' ? 'cursor-nwse-resize' : 'cursor-nesw-resize'
            }`}
            style={{
              left: corner.startsWith('left') ? -6 : undefined,
              right: corner.startsWith('right') ? -6 : undefined,
              top: corner.endsWith('top') ? -6 : undefined,
              bottom: corner.endsWith('bottom') ? -6 : undefined,
            }}
            data-corner={corner}
          />
        );
      })}
    </div>
  );
}
