import { useState } from 'react';
import { useLocation } from 'wouter';
import { useSetFraming } from '../api/queries';
import type { PlacedPicture } from '../app/Placed';
import { StageHeader } from '../app/StageHeader';
import { useKeys } from '../app/useKeys';
import { type Box, boxOf, frameOf, moved, zoomed } from './box';
import { FramingPanel } from './FramingPanel';
import { PictureStage } from './PictureStage';
import { type Setting, useFrameHistory } from './useFrameHistory';

/** One picture for one slot: its frame is set here. */
export function FramingScreen({ place, picture, destination, slot, framing }: PlacedPicture) {
  const [, go] = useLocation();
  const save = useSetFraming(place);
  // While a hand is on the frame, this box is shown; the stored one otherwise.
  const [held, setHeld] = useState<Box | null>(null);
  const stored = boxOf(framing.frame, picture);
  const box = held ?? stored;
  const setting: Setting = framing.origin === 'hand' ? frameOf(stored, picture) : null;
  const history = useFrameHistory((wanted) => {
    const sent = wanted ? boxOf(wanted, picture) : null;
    setHeld(sent);
    // A hand that took the frame again in the meantime keeps it. Each change needs an end of its own: callbacks
    // given to `mutate` are told of the latest change only, and a box let go before it would be held for ever.
    save
      .mutateAsync(wanted)
      .catch(() => undefined) // save.error is on the screen
      .finally(() => setHeld((now) => (now === sent ? null : now)));
  });
  const commit = (next: Box) => history.change(setting, frameOf(next, picture));
  const step = (dx: number, dy: number) => (event: KeyboardEvent) => {
    const [x, y] = event.shiftKey ? [1, 1] : [picture.width / 100, picture.height / 100];
    commit(moved(box, dx * x, dy * y, picture));
  };
  const zoom = (factor: number) => () =>
    commit(zoomed(box, factor, { x: box.x + box.width / 2, y: box.y + box.height / 2 }, picture, slot.ratio));
  const widest = () => setting && history.change(setting, null);
  const undo = () => history.undo(setting);
  const redo = () => history.redo(setting);
  const weigh = () => go(`/picture/${place.id}/${place.destination}/${place.slot}/weighing`);
  useKeys({
    arrowleft: step(-1, 0),
    arrowright: step(1, 0),
    arrowup: step(0, -1),
    arrowdown: step(0, 1),
    t: zoom(0.95),
    l: zoom(1 / 0.95),
    '0': widest,
    'ctrl+z': undo,
    'ctrl+shift+z': redo,
    'ctrl+y': redo,
    g: weigh,
    p: () => go('/'),
  });
  return (
    <div className="grid h-full min-h-0 grid-rows-[auto_1fr]">
      <StageHeader place={place} picture={picture} destination={destination} slot={slot} stage="framing" />
      <div className="grid min-h-0 grid-cols-[1fr_348px]">
        <PictureStage picture={picture} slot={slot} box={box} onHold={setHeld} onCommit={commit} />
        <FramingPanel
          picture={picture}
          slot={slot}
          framing={framing}
          box={box}
          held={held !== null}
          fault={save.error?.message}
          onHold={setHeld}
          onCommit={commit}
          onWeigh={weigh}
          history={{
            undo,
            redo,
            widest,
            canUndo: history.canUndo,
            canRedo: history.canRedo,
            byHand: setting !== null,
          }}
        />
      </div>
    </div>
  );
}
