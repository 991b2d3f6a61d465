import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { Button, Key } from '../design/Button';
import { useKeys } from './useKeys';

const groups: { name: string; keys: [string[], string][] }[] = [
  {
    name: 'Framing',
    keys: [
      [['←', '→', '↑', '↓'], 'move the frame by a hundredth; with Shift by one pixel'],
      [['T'], 'tighten'],
      [['L'], 'loosen'],
      [['0'], 'the widest frame, found automatically'],
      [['Ctrl', 'Z'], 'undo'],
      [['Ctrl', 'Shift', 'Z'], 'redo'],
      [['G'], 'go on to weighing'],
    ],
  },
  {
    name: 'Weighing',
    keys: [
      [['←', '→'], 'move the divider'],
      [['S'], 'hold to see through to the picture without loss'],
      [['W'], 'bring the worst place to the middle'],
      [['+', '−'], 'a quality more, a quality less'],
      [['A'], 'find the quality automatically'],
      [['D'], 'download the file'],
      [['B'], 'back to framing'],
    ],
  },
  {
    name: 'Everywhere',
    keys: [
      [['?'], 'this list'],
      [['P'], 'all pictures'],
    ],
  },
];

/** All keys, in one place. */
export function KeysHelp() {
  const [open, setOpen] = useState(false);
  useKeys({ '?': () => setOpen(true) });
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <button type="button" className="flex items-center gap-2 px-2 py-1 text-ink-2 hover:text-ink">
          <Key>?</Key> Keys
        </button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          className="fixed top-1/2 left-1/2 z-50 max-h-[85vh] w-[560px] -translate-x-1/2 -translate-y-1/2 overflow-y-auto border border-line bg-sheet p-6"
          aria-describedby={undefined}
        >
          <Dialog.Title className="text-base font-semibold">Keys</Dialog.Title>
          {groups.map((group) => (
            <section key={group.name} className="mt-4">
              <h3 className="mb-1 text-ink-2">{group.name}</h3>
              <dl className="grid grid-cols-[170px_1fr] gap-y-1.5 border-t border-line pt-2">
                {group.keys.map(([keys, does]) => (
                  <div key={does} className="contents">
                    <dt className="flex gap-1">
                      {keys.map((key) => (
                        <Key key={key}>{key}</Key>
                      ))}
                    </dt>
                    <dd>{does}</dd>
                  </div>
                ))}
              </dl>
            </section>
          ))}
          <Dialog.Close asChild>
            <Button className="mt-5">Close</Button>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
