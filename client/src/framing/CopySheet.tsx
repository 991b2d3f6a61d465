import { Dialog } from 'radix-ui';
import { useMemo, useState } from 'react';
import type { JobPicture, JobSlot } from '../api/client';
import { Button } from '../design/Button';
import { alikeTo, alikeTogether } from '../domain/alike';
import { useAlike } from '../jobs/useAlike';
import { useHead } from '../jobs/useJob';
import { t } from '../texts/texts';
import { CopyTarget } from './CopyTarget';

/** Gives other pictures the same frames and marks: the same product, photographed twelve times. What changes is shown before it is done. */
export function CopySheet({
  picture,
  slot,
  onClose,
  onCopy,
}: {
  picture: JobPicture;
  /** The slot in which the change is shown. */
  slot: JobSlot;
  onClose: () => void;
  onCopy: (pictures: JobPicture[]) => void;
}) {
  const head = useHead();
  const groups = useAlike();
  const others = useMemo(
    () =>
      alikeTogether(head.pictures, [alikeTo(groups, picture.picture.id)], (one) => one.picture.id).filter(
        (one) => one.picture.id !== picture.picture.id && !one.parts,
      ),
    [head.pictures, groups, picture.picture.id],
  );
  const mine = new Set(alikeTo(groups, picture.picture.id));
  // Pictures that are alike are chosen at first; where there are none, those of one shape.
  const [chosen, setChosen] = useState<ReadonlySet<string> | null>(null);
  const first = others.filter((one) => (mine.size > 0 ? mine.has(one.picture.id) : isOfShape(one, picture)));
  const ticked = chosen ?? new Set(first.map((one) => one.picture.id));
  const toggle = (id: string) => {
    const next = new Set(ticked);
    if (!next.delete(id)) next.add(id);
    setChosen(next);
  };
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-50 flex max-h-[90vh] w-[880px] max-w-[96vw] -translate-x-1/2 -translate-y-1/2 flex-col border border-line bg-sheet"
        >
          <header className="border-b border-line px-6 py-4">
            <Dialog.Title className="text-head font-semibold">
              {t('framing.copyTheseFramesAndMarksTo')}
            </Dialog.Title>
            <p className="mt-1 text-ink-2">
              {t(mine.size > 0 ? 'framing.alikePicturesAreChosen' : 'framing.picturesOfTheSameShapeAre', {
                slot: slot.slot.name,
              })}
            </p>
          </header>
          <ul className="grid min-h-0 flex-1 grid-cols-2 gap-x-6 gap-y-4 overflow-y-auto px-6 py-4 sm:grid-cols-3">
            {others.map((one) => (
              <CopyTarget
                key={one.picture.id}
                from={picture}
                picture={one}
                slot={slot}
                ticked={ticked.has(one.picture.id)}
                onToggle={() => toggle(one.picture.id)}
              />
            ))}
            {others.length === 0 && (
              <li className="col-span-full text-ink-2">{t('framing.theJobHasNoOtherPictures')}</li>
            )}
          </ul>
          <footer className="flex justify-end gap-2 border-t border-line px-6 py-3">
            <Button onClick={onClose}>{t('framing.cancel')}</Button>
            <Button
              kind="main"
              disabled={ticked.size === 0}
              onClick={() => onCopy(others.filter((one) => ticked.has(one.picture.id)))}
            >
              {t('framing.copyToPictures', { count: ticked.size })}
            </Button>
          </footer>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

const isOfShape = (one: JobPicture, other: JobPicture) =>
  Math.abs(one.width / one.height / (other.width / other.height) - 1) < 0.01;
