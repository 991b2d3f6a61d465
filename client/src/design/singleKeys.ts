import { useSyncExternalStore } from 'react';

/*
 * Somebody who speaks to the machine, or whose hand slips, must be able to switch single letters off; each is then reached with Alt
 * (WCAG 2.2, 2.1.4 Character Key Shortcuts). Arrows, Enter and the like do nothing by being typed and stay as they are.
 */

const storageKey = 'pantomet-single-keys';
const listeners = new Set<() => void>();

const areOn = () => localStorage.getItem(storageKey) !== 'off';

/** Whether letters, digits and signs act by themselves, and the switch. */
export function useSingleKeys(): [boolean, (on: boolean) => void] {
  const on = useSyncExternalStore(
    (changed) => {
      listeners.add(changed);
      return () => listeners.delete(changed);
    },
    areOn,
    () => true,
  );
  return [
    on,
    (to) => {
      localStorage.setItem(storageKey, to ? 'on' : 'off');
      for (const one of listeners) one();
    },
  ];
}

type Press = Pick<KeyboardEvent, 'key' | 'code' | 'altKey' | 'ctrlKey' | 'metaKey'>;

/** The key that a binding is named by; null where the press means nothing here. */
export function keyOf(press: Press, singleKeys = areOn()): string | null {
  const isTyped = press.key.length === 1 && !press.ctrlKey && !press.metaKey;
  if (singleKeys || !isTyped) return press.altKey ? null : press.key.toLowerCase();
  if (!press.altKey) return null;
  // With Alt a letter may give another sign: the place of the key says which was meant.
  const letter = /^(?:Key|Digit)(.)$/.exec(press.code)?.[1];
  return letter && /[\p{L}\d]/u.test(letter) ? letter.toLowerCase() : press.key.toLowerCase();
}
