import { useDrag, useGesture } from '@use-gesture/react';
import { useEffect, useRef } from 'react';
import type { JobPicture, JobSlot } from '../api/client';
import { type Box, moved, zoomed } from '../domain/box';

const settleAfter = 220;

/** A slot's frame, and what a hand does with it. */
export interface FrameInHand {
  picture: JobPicture;
  slot: JobSlot;
  box: Box;
  active: boolean;
  onActive: (address: string) => void;
  onHold: (address: string, box: Box) => void;
  onCommit: (address: string, box: Box) => void;
}

/** Dragging a slot's window moves what is seen in it; wheel and pinch tighten the frame around the pointer. */
export function useWindowGestures({
  picture,
  slot,
  box,
  active,
  scale,
  onActive,
  onHold,
  onCommit,
}: FrameInHand & {
  /** Pixels on the screen for one pixel of the picture. */
  scale: number;
}) {
  const address = slot.address;
  const start = useRef(box);
  const latest = useRef(box);
  const settle = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    latest.current = box;
  });
  useEffect(() => () => clearTimeout(settle.current), []);
  const target = useRef<HTMLDivElement>(null);
  const drag = useDrag(
    ({ first, last, movement: [mx, my] }) => {
      if (first) {
        start.current = latest.current;
        onActive(address);
      }
      if (mx === 0 && my === 0) return;
      const next = moved(start.current, -mx / scale, -my / scale, picture);
      if (last) onCommit(address, next);
      else onHold(address, next);
    },
    { threshold: 0, pointer: { keys: false } },
  );
  const tighten = (factor: number, clientX: number, clientY: number) => {
    const edges = target.current!.getBoundingClientRect();
    const at = {
      x: latest.current.x + (clientX - edges.left) / scale,
      y: latest.current.y + (clientY - edges.top) / scale,
    };
    const next = zoomed(latest.current, factor, at, picture, slot.slot.ratio);
    latest.current = next;
    onHold(address, next);
    clearTimeout(settle.current);
    settle.current = setTimeout(() => onCommit(address, next), settleAfter);
  };
  useGesture(
    {
      onWheel: ({ event, delta: [, dy] }) => {
        // Without a key the wheel scrolls the list of slots; over the active slot it tightens.
        if (!active || event.ctrlKey || dy === 0) return;
        event.preventDefault();
        tighten(Math.exp(dy * 0.0012), event.clientX, event.clientY);
      },
      onPinch: ({ origin: [x, y], delta: [factor] }) => factor !== 0 && tighten(Math.exp(-factor), x, y),
    },
    { target, eventOptions: { passive: false } },
  );
  return { target, drag };
}
