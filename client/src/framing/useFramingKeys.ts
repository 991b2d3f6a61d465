import { newId } from '../api/newId';
import { useRef } from 'react';
import { useShortcuts } from '../design/useShortcuts';
import { moved, zoomed } from '../domain/box';
import type { FramingState } from './useFraming';

/** The shortcuts of framing: the arrows move the frame, plus and minus tighten it. */
export function useFramingKeys({
  picture,
  slot,
  box,
  tool,
  setTool,
  commit,
  going,
  actions,
}: FramingState): void {
  // A key that is held down repeats itself: that is one gesture, and one step of undo.
  const gesture = useRef('');
  const gestureOf = (event: KeyboardEvent) => {
    if (!event.repeat) gesture.current = newId();
    return gesture.current;
  };
  const step = (dx: number, dy: number) => (event: KeyboardEvent) => {
    const [x, y] = event.shiftKey ? [1, 1] : [picture.width / 100, picture.height / 100];
    commit(slot.address, moved(box, dx * x, dy * y, picture), gestureOf(event));
  };
  const zoom = (factor: number) => (event: KeyboardEvent) =>
    commit(
      slot.address,
      zoomed(box, factor, { x: box.x + box.width / 2, y: box.y + box.height / 2 }, picture, slot.slot.ratio),
      gestureOf(event),
    );
  useShortcuts({
    arrowleft: step(-1, 0),
    arrowright: step(1, 0),
    arrowup: step(0, -1),
    arrowdown: step(0, 1),
    '+': zoom(0.95),
    '=': zoom(0.95),
    '-': zoom(1 / 0.95),
    '0': actions.automatic,
    k: () => setTool(tool === 'keep' ? 'frame' : 'keep'),
    f: () => setTool(tool === 'focus' ? 'frame' : 'focus'),
    escape: () => (tool === 'frame' ? going.bench() : setTool('frame')),
    u: actions.confirm,
    l: actions.unlink,
    t: actions.link,
    a: actions.accept,
    x: actions.skip,
    e: going.nextToReview,
    n: (event) => going.neighbour(event.shiftKey ? -1 : 1),
    'shift+n': () => going.neighbour(-1),
    '.': () => going.nextSlot(1),
    ',': () => going.nextSlot(-1),
    c: actions.copy,
    g: going.weigh,
    o: going.over,
    b: going.bench,
  });
}
