import { useGesture } from '@use-gesture/react';
import { useEffect, useRef } from 'react';
import { addresses, type Picture, type Slot } from '../api/client';
import { DimensionLine } from '../design/DimensionLine';
import { count } from '../design/figures';
import { type Box, type Corner, cornerTo, moved, zoomed } from './box';
import { useElementSize } from './useElementSize';

const margin = 56;
const corners: Corner[] = ['top-left', 'top-right', 'bottom-left', 'bottom-right'];
const settleAfter = 220;

/** The picture large, with the frame on it and the frame's measures along the edges in real pixels. */
export function PictureStage({
  picture,
  slot,
  box,
  onHold,
  onCommit,
}: {
  picture: Picture;
  slot: Slot;
  box: Box;
  onHold: (box: Box | null) => void;
  onCommit: (box: Box) => void;
}) {
  const [room, size] = useElementSize<HTMLDivElement>();
  const scale = size
    ? Math.max(
        0.001,
        Math.min((size.width - 2 * margin) / picture.width, (size.height - 2 * margin) / picture.height),
      )
    : 0;
  const [width, height] = [picture.width * scale, picture.height * scale];
  const shown = {
    left: box.x * scale,
    top: box.y * scale,
    width: box.width * scale,
    height: box.height * scale,
  };
  const stage = useStageGestures({ picture, slot, box, scale, onHold, onCommit });
  return (
    <div ref={room} className="relative min-h-0 overflow-hidden" data-testid="stage">
      {size && (
        <div
          ref={stage}
          className="absolute touch-none select-none"
          style={{ left: (size.width - width) / 2, top: (size.height - height) / 2, width, height }}
        >
          <img
            src={addresses.preview(picture.id, 1800)}
            alt={`${picture.name}, whole`}
            draggable={false}
            className={`block h-full w-full bg-cover ${picture.hasAlpha ? 'transparent-ground' : ''}`}
            style={
              picture.hasAlpha ? undefined : { backgroundImage: `url(${addresses.preview(picture.id, 480)})` }
            }
          />
          <div className="pointer-events-none absolute inset-0 overflow-hidden">
            <div className="absolute shadow-[0_0_0_9999px_rgb(60_60_60/0.62)]" style={shown} />
          </div>
          <div
            data-part="frame"
            role="application"
            aria-label={`Frame, ${count(box.width)} by ${count(box.height)} pixels. Arrow keys move it, T tightens, L loosens.`}
            tabIndex={0}
            className="absolute cursor-move outline-1 outline-white"
            style={shown}
          >
            <div className="pointer-events-none absolute inset-0 border border-black/60" />
            {corners.map((corner) => (
              <CornerGrip key={corner} corner={corner} />
            ))}
          </div>
          <div className="absolute text-surround-line" style={{ left: shown.left, top: -24 }}>
            <DimensionLine along="width" length={shown.width}>
              {shown.width > 90 ? `${count(box.width)} px` : ''}
            </DimensionLine>
          </div>
          <div className="absolute text-surround-line" style={{ top: shown.top, left: -24 }}>
            <DimensionLine along="height" length={shown.height}>
              {shown.height > 70 ? `${count(box.height)} px` : ''}
            </DimensionLine>
          </div>
          <div className="absolute text-surround-line" style={{ left: 0, top: height + 8 }}>
            <DimensionLine along="width" length={width}>
              {`whole ${count(picture.width)}`}
            </DimensionLine>
          </div>
          <div className="absolute text-surround-line" style={{ top: 0, left: width + 8 }}>
            <DimensionLine along="height" length={height}>
              {`whole ${count(picture.height)}`}
            </DimensionLine>
          </div>
        </div>
      )}
    </div>
  );
}

function CornerGrip({ corner }: { corner: Corner }) {
  const right = corner.endsWith('right');
  const bottom = corner.startsWith('bottom');
  return (
    <span
      data-part={corner}
      className={`absolute h-6 w-6 ${right ? '-right-3' : '-left-3'} ${bottom ? '-bottom-3' : '-top-3'} ${right === bottom ? 'cursor-nwse-resize' : 'cursor-nesw-resize'}`}
    >
      {/* Trim marks, as printers cut by: outside the frame, so that they cover nothing of it. */}
      <span
        aria-hidden
        className={`pointer-events-none absolute h-0.5 w-3 bg-white outline-1 outline-black/60 ${right ? 'left-3.5' : 'right-3.5'} ${bottom ? 'bottom-[11px]' : 'top-[11px]'}`}
      />
      <span
        aria-hidden
        className={`pointer-events-none absolute h-3 w-0.5 bg-white outline-1 outline-black/60 ${bottom ? 'top-3.5' : 'bottom-3.5'} ${right ? 'right-[11px]' : 'left-[11px]'}`}
      />
    </span>
  );
}

/** Drag moves the frame or draws a corner; wheel and pinch tighten around the pointer. */
function useStageGestures({
  picture,
  slot,
  box,
  scale,
  onHold,
  onCommit,
}: {
  picture: Picture;
  slot: Slot;
  box: Box;
  scale: number;
  onHold: (box: Box | null) => void;
  onCommit: (box: Box) => void;
}) {
  const target = useRef<HTMLDivElement>(null);
  const settle = useRef<ReturnType<typeof setTimeout>>(undefined);
  const latest = useRef(box);
  const commitLatest = useRef(onCommit);
  useEffect(() => {
    latest.current = box;
    commitLatest.current = onCommit;
  });
  useEffect(() => () => clearTimeout(settle.current), []);
  const at = (clientX: number, clientY: number) => {
    const edges = target.current!.getBoundingClientRect();
    return { x: (clientX - edges.left) / scale, y: (clientY - edges.top) / scale };
  };
  const tighten = (from: Box, factor: number, clientX: number, clientY: number) => {
    const next = zoomed(from, factor, at(clientX, clientY), picture, slot.ratio);
    latest.current = next;
    onHold(next);
    return next;
  };
  useGesture(
    {
      onDrag: ({ first, last, movement: [mx, my], xy: [x, y], event, memo, pinching }) => {
        if (pinching) return memo;
        const start =
          first || !memo
            ? { box: latest.current, part: (event.target as HTMLElement).dataset?.part }
            : (memo as { box: Box; part?: string });
        if (!start.part || (mx === 0 && my === 0)) return start;
        const next =
          start.part === 'frame'
            ? moved(start.box, mx / scale, my / scale, picture)
            : cornerTo(start.box, start.part as Corner, at(x, y), picture, slot.ratio);
        if (last) onCommit(next);
        else onHold(next);
        return start;
      },
      onWheel: ({ event, delta: [, dy] }) => {
        event.preventDefault();
        // With the control key it is a pinch on a touch pad, and comes through onPinch as well.
        // The end of a turn of the wheel is told as well, with nothing left to do.
        if (event.ctrlKey || dy === 0) return;
        const next = tighten(latest.current, Math.exp(dy * 0.0012), event.clientX, event.clientY);
        clearTimeout(settle.current);
        settle.current = setTimeout(() => {
          // Something else may have set the frame since; then this is no longer what is wanted.
          if (latest.current === next) commitLatest.current(next);
        }, settleAfter);
      },
      onPinch: ({ first, last, origin: [x, y], movement: [factor], memo }) => {
        const start = first ? latest.current : (memo as Box);
        const next = tighten(start, 1 / factor, x, y);
        if (last) onCommit(next);
        return start;
      },
    },
    {
      target,
      eventOptions: { passive: false },
      drag: { threshold: 0, pointer: { keys: false } },
      wheel: { preventDefault: true },
    },
  );
  return target;
}
