import { useGesture } from '@use-gesture/react';
import { type RefObject, useEffect, useRef } from 'react';
import { type Edges, type JobPicture, type JobSlot } from '../api/client';
import { type Box, type Corner, cornerTo, moved, zoomed } from '../domain/box';

const settleAfter = 220;

/** What the pointer does on the picture. */
export type Tool = 'frame' | 'keep' | 'focus';

interface Stage {
  picture: JobPicture;
  slot: JobSlot;
  box: Box;
  scale: number;
  tool: Tool;
  onHold: (address: string, box: Box) => void;
  onCommit: (address: string, box: Box) => void;
  onDraw: (edges: Edges, done: boolean) => void;
  onFocus: (at: { x: number; y: number }) => void;
}

/** The box between two points, whichever is where. */
const between = (from: { x: number; y: number }, to: { x: number; y: number }): Edges => ({
  left: Math.min(from.x, to.x),
  top: Math.min(from.y, to.y),
  right: Math.max(from.x, to.x),
  bottom: Math.max(from.y, to.y),
});

/** Where the pointer is on the picture: in its pixels, and as fractions of it. */
const placesOn = (target: RefObject<HTMLDivElement | null>, { picture, scale }: Stage) => {
  const at = (clientX: number, clientY: number) => {
    const edges = target.current!.getBoundingClientRect();
    return { x: (clientX - edges.left) / scale, y: (clientY - edges.top) / scale };
  };
  const inUnit = (value: number) => Math.min(1, Math.max(0, value));
  return {
    at,
    part: (clientX: number, clientY: number) => {
      const point = at(clientX, clientY);
      return { x: inUnit(point.x / picture.width), y: inUnit(point.y / picture.height) };
    },
  };
};

/** Drag moves the frame or draws a corner or a keep box; wheel and pinch tighten around the pointer. */
export function useStageGestures(stage: Stage) {
  const { picture, slot, box, scale, tool, onHold, onCommit, onDraw, onFocus } = stage;
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

  const { at, part } = placesOn(target, stage);
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
          onDraw(between(part(ix, iy), part(x, y)), last);
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
