import { useLayoutEffect, useRef } from 'react';
import { keyOf } from './singleKeys';

type Action = (event: KeyboardEvent) => void;

/** True when the element under the keyboard uses this key itself: a text field any, a slider only those that move it. */
export function takesKey(target: EventTarget | null, key: string): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target instanceof HTMLInputElement && target.type === 'range')
    return /^(Arrow|Page|Home|End)/.test(key);
  if (target instanceof HTMLInputElement && /^(checkbox|radio)$/.test(target.type)) return key === ' ';
  if (target instanceof HTMLButtonElement || target instanceof HTMLAnchorElement)
    return key === ' ' || key === 'Enter';
  if (target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement) return true;
  return target instanceof HTMLSelectElement || target.isContentEditable;
}

/**
 * Binds keys while the caller is on screen. Names are those of KeyboardEvent.key in lower case, with "ctrl+" before
 * them where the control or command key is held; a binding with Shift is written "shift+...".
 */
export function useShortcuts(bindings: Record<string, Action>) {
  const current = useRef(bindings);
  useLayoutEffect(() => {
    current.current = bindings;
  });
  // Before the screen is drawn: a key pressed as soon as it is seen must not be lost.
  useLayoutEffect(() => {
    const press = (event: KeyboardEvent) => {
      const key = keyOf(event);
      if (key === null || takesKey(event.target, event.key) || document.querySelector('[role=dialog]'))
        return;
      const control = event.ctrlKey || event.metaKey ? 'ctrl+' : '';
      const action =
        (event.shiftKey ? current.current[`${control}shift+${key}`] : undefined) ??
        current.current[control + key];
      if (!action) return;
      event.preventDefault();
      action(event);
    };
    addEventListener('keydown', press);
    return () => removeEventListener('keydown', press);
  }, []);
}
