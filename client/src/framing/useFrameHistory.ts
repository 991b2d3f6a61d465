import { useRef, useState } from 'react';
import type { Frame } from '../api/client';

/** A frame set by hand, or null for the one found automatically. */
export type Setting = Frame | null;

/** Undo and redo for one framing. */
export function useFrameHistory(apply: (setting: Setting) => void) {
  const past = useRef<Setting[]>([]);
  const future = useRef<Setting[]>([]);
  const [, redraw] = useState(0);
  const go = (from: typeof past, onto: typeof past, current: Setting) => {
    const setting = from.current.pop();
    if (setting === undefined) return;
    onto.current.push(current);
    apply(setting);
    redraw((n) => n + 1);
  };
  return {
    canUndo: past.current.length > 0,
    canRedo: future.current.length > 0,
    /** Remembers what stood before a change, then makes the change. */
    change(before: Setting, after: Setting) {
      past.current.push(before);
      future.current = [];
      apply(after);
      redraw((n) => n + 1);
    },
    undo: (current: Setting) => go(past, future, current),
    redo: (current: Setting) => go(future, past, current),
  };
}
