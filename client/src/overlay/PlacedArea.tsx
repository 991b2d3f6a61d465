import { useDrag } from '@use-gesture/react';
import { type HTMLAttributes, useRef } from 'react';
import { type Area, movedArea } from '../domain/overlay';
import { t } from '../texts/texts';

const corners = ['left top', 'right top', 'left bottom', 'right bottom'] as const;

/** The area in hand: dragged as a whole, or by a corner. */
export function PlacedArea({
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
      className="absolute cursor-move touch-none select-none border border-dashed border-white outline-1 outline-black/50 outline-dashed"
      style={{
        left: left * width,
        top: top * height,
        width: (right - left) * width,
        height: (bottom - top) * height,
      }}
      // What is selected around it would be dragged by the browser, and the hand would lose the corner.
      onDragStart={(event) => event.preventDefault()}
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
      {corners.map((corner) => (
        <Corner key={corner} corner={corner} hand={drag(corner)} />
      ))}
    </div>
  );
}

function Corner({ corner, hand }: { corner: (typeof corners)[number]; hand: HTMLAttributes<HTMLElement> }) {
  return (
    <span
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
}
