import { useGesture } from '@use-gesture/react';
import { useEffect, useRef } from 'react';
import { addresses, type Edges, type JobPicture, type JobSlot } from '../api/client';
import { DimensionLine } from '../design/DimensionLine';
import { count } from '../design/figures';
import { type Box, type Corner, cornerTo, moved, zoomed } from '../domain/box';
import { toBox } from '../domain/solver';
import { useElementSize } from '../design/useElementSize';
import { t } from '../texts/texts';

const margin = 56;
const corners: Corner[] = ['top-left', 'top-right', 'bottom-left', 'bottom-right'];
const settleAfter = 220;
/** Frames of kindred shapes share edges: their names take turns at the corners. */

export type Tool = 'frame' | 'keep' | 'focus';

/** The picture large, the frames of all slots as thin lines, the active one with its measures; keep boxes and focus are set on it. */
export function PictureStage({
  picture,
  slot,
  box,
  others,
  pointed,
  keep,
  suggestion,
  focus,
  tool,
  onHold,
  onCommit,
  onKeep,
  onFocus,
}: {
  picture: JobPicture;
  slot: JobSlot;
  box: Box;
  /** The frames of the other slots, each shape once. */
  others: readonly { key: string; name: string; box: Box; slots: readonly string[] }[];
  /** The slot whose frame is shown whole. */
  pointed: string | null;
  keep: readonly Edges[];
  suggestion: Edges | null;
  focus: { x: number; y: number } | null;
  tool: Tool;
  onHold: (address: string, box: Box) => void;
  onCommit: (address: string, box: Box) => void;
  onKeep: (box: Edges, done: boolean) => void;
  onFocus: (at: { x: number; y: number }) => void;
}) {
  const [room, size] = useElementSize<HTMLDivElement>();
  const scale = size
    ? Math.max(
        0.001,
        Math.min((size.width - 2 * margin) / picture.width, (size.height - 2 * margin) / picture.height),
      )
    : 0;
  const [width, height] = [picture.width * scale, picture.height * scale];
  const place = (one: Box) => ({
    left: one.x * scale,
    top: one.y * scale,
    width: one.width * scale,
    height: one.height * scale,
  });
  const shown = place(box);
  const stage = useStageGestures({
    picture,
    slot,
    box,
    scale,
    tool,
    onHold,
    onCommit,
    onDraw: (edges, done) => {
      if (edges.right - edges.left > 0.005 && edges.bottom - edges.top > 0.005) onKeep(edges, done);
    },
    onFocus,
  });

  return (
    <div ref={room} className="relative min-h-0 overflow-hidden" data-testid="stage">
      {size && (
        <div
          ref={stage}
          className={`absolute touch-none select-none ${tool === 'frame' ? '' : 'cursor-crosshair'}`}
          style={{ left: (size.width - width) / 2, top: (size.height - height) / 2, width, height }}
        >
          <img
            src={addresses.preview(picture.picture.id, picture.shown, 1800)}
            alt={t('framing.nameWholePicture', { name: picture.picture.name })}
            draggable={false}
            className={`block h-full w-full bg-cover ${picture.picture.hasAlpha ? 'transparent-ground' : ''}`}
            style={
              picture.picture.hasAlpha
                ? undefined
                : { backgroundImage: `url(${addresses.preview(picture.picture.id, picture.shown, 480)})` }
            }
          />
          <div className="pointer-events-none absolute inset-0 overflow-hidden">
            <div className="absolute shadow-[0_0_0_9999px_rgb(60_60_60/0.5)]" style={shown} />
            {others.map((other) =>
              pointed && other.slots.includes(pointed) ? (
                <div
                  key={other.key}
                  data-testid="other-frame"
                  className="absolute border border-white/90 outline-1 -outline-offset-2 outline-black/35"
                  style={place(other.box)}
                >
                  <span className="absolute right-0 bottom-0 bg-black/60 px-1 text-note leading-[14px] whitespace-nowrap text-white">
                    {other.name}
                  </span>
                </div>
              ) : (
                <TrimMarks key={other.key} style={place(other.box)} />
              ),
            )}
          </div>
          <div
            data-part={tool === 'frame' ? 'frame' : undefined}
            role="application"
            aria-label={t('framing.frameWidthByHeightPixelsArrow', {
              width: count(box.width),
              height: count(box.height),
            })}
            tabIndex={0}
            className={`absolute outline-1 outline-white ${tool === 'frame' ? 'cursor-move' : 'pointer-events-none'}`}
            style={shown}
          >
            <div className="pointer-events-none absolute inset-0 border border-black/60" />
            {tool === 'frame' && corners.map((corner) => <CornerGrip key={corner} corner={corner} />)}
          </div>
          {keep.map((edges, i) => (
            <KeepBox key={i} style={place(toBox(edges, picture))} name={t('framing.keep')} />
          ))}
          {keep.length === 0 && !focus && suggestion && (
            <KeepBox style={place(toBox(suggestion, picture))} name={t('framing.suggested')} suggested />
          )}
          {focus && (
            <span
              aria-hidden
              data-testid="focus"
              className="pointer-events-none absolute h-6 w-6 -translate-x-1/2 -translate-y-1/2"
              style={{ left: focus.x * width, top: focus.y * height }}
            >
              <span className="absolute top-1/2 left-0 h-0.5 w-full -translate-y-1/2 bg-white outline-1 outline-black/60" />
              <span className="absolute top-0 left-1/2 h-full w-0.5 -translate-x-1/2 bg-white outline-1 outline-black/60" />
            </span>
          )}
          <div className="absolute text-surround-line" style={{ left: shown.left, top: -24 }}>
            <DimensionLine along="width" length={shown.width}>
              {shown.width > 90 ? t('framing.widthPx', { width: count(box.width) }) : ''}
            </DimensionLine>
          </div>
          <div className="absolute text-surround-line" style={{ top: shown.top, left: -24 }}>
            <DimensionLine along="height" length={shown.height}>
              {shown.height > 70 ? t('framing.heightPx', { height: count(box.height) }) : ''}
            </DimensionLine>
          </div>
          <div className="absolute text-surround-line" style={{ left: 0, top: height + 8 }}>
            <DimensionLine along="width" length={width}>
              {t('framing.ofWidth', { width: count(picture.width) })}
            </DimensionLine>
          </div>
          <div className="absolute text-surround-line" style={{ top: 0, left: width + 8 }}>
            <DimensionLine along="height" length={height}>
              {t('framing.ofHeight', { height: count(picture.height) })}
            </DimensionLine>
          </div>
        </div>
      )}
    </div>
  );
}

const trims = [
  'top-0 left-0 border-t border-l',
  'top-0 right-0 border-t border-r',
  'bottom-0 left-0 border-b border-l',
  'right-0 bottom-0 border-r border-b',
];

/** The corners of another shape's frame: lines that cross lines cannot be read. */
function TrimMarks({ style }: { style: React.CSSProperties }) {
  return (
    <div data-testid="trim-marks" className="absolute" style={style}>
      {trims.map((corner) => (
        <span
          key={corner}
          className={`absolute h-2.5 w-2.5 border-white drop-shadow-[0_0_1px_black] ${corner}`}
        />
      ))}
    </div>
  );
}

function KeepBox({
  style,
  name,
  suggested = false,
}: {
  style: { left: number; top: number; width: number; height: number };
  name: string;
  suggested?: boolean;
}) {
  return (
    <span
      aria-hidden
      data-testid={suggested ? 'suggestion' : 'keep'}
      className={`pointer-events-none absolute border-2 ${suggested ? 'border-dashed' : ''} border-white mix-blend-normal outline-1 outline-black/50`}
      style={style}
    >
      <span className="absolute top-0 left-0 bg-white px-1 text-note leading-[14px] text-black">{name}</span>
    </span>
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

/** Drag moves the frame or draws a corner or a keep box; wheel and pinch tighten around the pointer. */
function useStageGestures({
  picture,
  slot,
  box,
  scale,
  tool,
  onHold,
  onCommit,
  onDraw,
  onFocus,
}: {
  picture: JobPicture;
  slot: JobSlot;
  box: Box;
  scale: number;
  tool: Tool;
  onHold: (address: string, box: Box) => void;
  onCommit: (address: string, box: Box) => void;
  onDraw: (edges: Edges, done: boolean) => void;
  onFocus: (at: { x: number; y: number }) => void;
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
  const address = slot.address;
  const ratio = slot.slot.ratio;

  const at = (clientX: number, clientY: number) => {
    const edges = target.current!.getBoundingClientRect();
    return { x: (clientX - edges.left) / scale, y: (clientY - edges.top) / scale };
  };
  const part = (clientX: number, clientY: number) => {
    const point = at(clientX, clientY);
    const inUnit = (value: number) => Math.min(1, Math.max(0, value));
    return { x: inUnit(point.x / picture.width), y: inUnit(point.y / picture.height) };
  };
  const tighten = (from: Box, factor: number, clientX: number, clientY: number) => {
    const next = zoomed(from, factor, at(clientX, clientY), picture, ratio);
    latest.current = next;
    onHold(address, next);
    return next;
  };

  useGesture(
    {
      onDrag: ({ first, last, movement: [mx, my], initial: [ix, iy], xy: [x, y], event, memo, pinching }) => {
        if (pinching) return memo;
        if (tool === 'focus') {
          if (last) onFocus(part(x, y));
          return memo;
        }
        if (tool === 'keep') {
          const [from, to] = [part(ix, iy), part(x, y)];
          onDraw(
            {
              left: Math.min(from.x, to.x),
              top: Math.min(from.y, to.y),
              right: Math.max(from.x, to.x),
              bottom: Math.max(from.y, to.y),
            },
            last,
          );
          return memo;
        }
        const start =
          first || !memo
            ? { box: latest.current, part: (event.target as HTMLElement).dataset?.part }
            : (memo as { box: Box; part?: string });
        if (!start.part || (mx === 0 && my === 0)) return start;
        const next =
          start.part === 'frame'
            ? moved(start.box, mx / scale, my / scale, picture)
            : cornerTo(start.box, start.part as Corner, at(x, y), picture, ratio);
        if (last) onCommit(address, next);
        else onHold(address, next);
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
          if (latest.current === next) commitLatest.current(address, next);
        }, settleAfter);
      },
      onPinch: ({ first, last, origin: [x, y], movement: [factor], memo }) => {
        const start = first ? latest.current : (memo as Box);
        const next = tighten(start, 1 / factor, x, y);
        if (last) onCommit(address, next);
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
