import { useState } from 'react';
import { useLocation } from 'wouter';
import { Key } from '../design/Button';
import { Sheet } from '../design/Sheet';
import { useKeys } from './useKeys';

const groups: { name: string; keys: [string[], string][] }[] = [
  {
    name: 'Bench',
    keys: [
      [['←', '→', '↑', '↓'], 'go to a cell; with Shift choose a rectangle'],
      [['+', '−'], 'larger, smaller crops'],
      [['P'], 'all crops in proportion to each other, or alike in height'],
      [['B'], 'from the cells to review back to the bench'],
      [['E'], 'the next cell to review'],
      [['A'], 'accept what was given up'],
      [['U'], 'confirm the suggested crop'],
      [['F'], 'focus on the place last clicked'],
      [['L'], 'unlink from the slots of its shape'],
      [['T'], 'link to them again'],
      [['X'], 'skip, or include again'],
      [['V'], 'allow it although it breaks a limit'],
      [['M'], 'make the files again'],
      [['D'], 'put the chosen pictures side by side'],
      [['Enter'], 'frame'],
      [['W'], 'weigh'],
      [['G'], 'go on to handing over'],
      [['R'], 'read pictures in'],
      [['S'], 'slots to fill'],
      [['Del'], 'take whole rows out of the job'],
      [['Ctrl', 'A'], 'choose all'],
    ],
  },
  {
    name: 'Framing',
    keys: [
      [['←', '→', '↑', '↓'], 'move the frame by a hundredth; with Shift by one pixel'],
      [['+', '−'], 'tighten, loosen'],
      [['0'], 'the frame that follows the marks'],
      [['K'], 'draw a keep box'],
      [['F'], 'set the focus'],
      [['U'], 'confirm the suggestion'],
      [['L', 'T'], 'unlink from its shape, link again'],
      [[',', '.'], 'the slot before, the next slot'],
      [['N'], 'the next picture; with Shift the one before'],
      [['E'], 'the next cell to review'],
      [['C'], 'copy frames and marks to other pictures'],
      [['O'], 'a title, a fade and colours over the picture'],
      [['G'], 'go on to weighing'],
    ],
  },
  {
    name: 'Page check',
    keys: [
      [['↑', '↓'], 'the picture before, the next one'],
      [['C'], 'what would be enough beside what is loaded; again for the page'],
      [['←', '→'], 'move the divider'],
      [['R'], 'measure any part of the page, and make a slot of it'],
    ],
  },
  {
    name: 'Text and overlay',
    keys: [
      [['Enter'], 'done; with Ctrl on to the next picture'],
      [['←', '→', '↑', '↓'], 'move where it may stand, once that has the keyboard'],
      [['C'], 'copy the colour that is pointed at'],
      [['Esc'], 'leave it as it was'],
    ],
  },
  {
    name: 'Weighing',
    keys: [
      [['←', '→'], 'move the divider'],
      [['S'], 'hold to see the lossless picture'],
      [['W'], 'bring the worst place to the middle'],
      [['+', '−'], 'a quality more, a quality less'],
      [['A'], 'find the quality automatically'],
      [['1', '2', '3'], 'keep the choice for this one, this slot, all slots'],
      [['O'], 'compare file types, or not'],
      [['D'], 'download the file'],
      [['F'], 'frame'],
    ],
  },
  {
    name: 'HTML',
    keys: [
      [['C'], 'copy the markup of the picture'],
      [['Shift', 'C'], 'copy the markup of the whole job'],
      [['N'], 'the next picture; with Shift the one before'],
      [['E'], 'the next picture that does not say what it shows'],
      [['P'], 'make the job live, in live links'],
    ],
  },
  {
    name: 'Everywhere',
    keys: [
      [['Ctrl', 'Z'], 'undo; with Shift redo'],
      [['B'], 'back to the bench'],
      [['D'], 'download the bundle, or hand over to the receiver'],
      [['N'], 'a new job, in the list of jobs'],
      [['/'], 'search the pictures, in the library'],
      [['J'], 'all jobs'],
      [['?'], 'this list'],
    ],
  },
];

/** All keys, in one place. */
export function KeysHelp() {
  const [open, setOpen] = useState(false);
  const [, go] = useLocation();
  useKeys({ '?': () => setOpen(true), j: () => go('/') });
  return (
    <Sheet
      title="Shortcuts"
      width="wide"
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button type="button" className="flex items-center gap-2 px-2 py-1 text-ink-2 hover:text-ink">
          <Key>?</Key> Shortcuts
        </button>
      }
    >
      <div className="columns-2 gap-8">
        {groups.map((group) => (
          <section key={group.name} className="mt-4 break-inside-avoid">
            <h3 className="mb-1 text-ink-2">{group.name}</h3>
            <dl className="grid grid-cols-[130px_1fr] gap-y-1.5 border-t border-line pt-2">
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
      </div>
    </Sheet>
  );
}
