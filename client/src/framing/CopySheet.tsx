import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { addresses, type JobPicture } from '../api/client';
import { Button } from '../design/Button';
import { useHead } from '../jobs/useJob';
import { t } from '../texts/texts';

/** Gives other pictures the same frames and marks: the same product, photographed twelve times. */
export function CopySheet({
  picture,
  onClose,
  onCopy,
}: {
  picture: JobPicture;
  onClose: () => void;
  onCopy: (pictures: JobPicture[]) => void;
}) {
  const head = useHead();
  const others = head.pictures.filter((one) => one.picture.id !== picture.picture.id);
  const alike = (one: JobPicture) =>
    Math.abs(one.width / one.height / (picture.width / picture.height) - 1) < 0.01;
  const [ticked, setTicked] = useState(() => new Set(others.filter(alike).map((one) => one.picture.id)));
  const toggle = (id: string) =>
    setTicked((now) => {
      const next = new Set(now);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-50 flex max-h-[85vh] w-[620px] -translate-x-1/2 -translate-y-1/2 flex-col border border-line bg-sheet"
        >
          <header className="border-b border-line px-6 py-4">
            <Dialog.Title className="text-head font-semibold">
              {t('framing.copyTheseFramesAndMarksTo')}
            </Dialog.Title>
            <p className="mt-1 text-ink-2">{t('framing.picturesOfTheSameShapeAre')}</p>
          </header>
          <ul className="grid min-h-0 flex-1 grid-cols-4 gap-3 overflow-y-auto px-6 py-4">
            {others.map((one) => (
              <li key={one.picture.id}>
                <label className="block cursor-pointer">
                  <span
                    className={`grid h-24 place-items-center bg-surround ${ticked.has(one.picture.id) ? 'outline-2 outline-accent' : ''}`}
                  >
                    <img
                      src={addresses.preview(one.picture.id, one.shown, 480)}
                      alt=""
                      className="max-h-24 max-w-full"
                    />
                  </span>
                  <span className="mt-1 flex items-center gap-1.5">
                    <input
                      type="checkbox"
                      className="accent-(--pm-accent)"
                      checked={ticked.has(one.picture.id)}
                      onChange={() => toggle(one.picture.id)}
                    />
                    <span className="wrap-anywhere">{one.words ?? one.picture.name}</span>
                  </span>
                </label>
              </li>
            ))}
            {others.length === 0 && (
              <li className="col-span-4 text-ink-2">{t('framing.theJobHasNoOtherPictures')}</li>
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
