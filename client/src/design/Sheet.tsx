import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { useRef, useState } from 'react';
import { Button } from './Button';
import { t } from '../texts/texts';

const widths = { narrow: 'w-[520px]', wide: 'w-[920px]', full: 'w-[min(1200px,94vw)]' };

/**
 * A sheet over the page, opened by its trigger, or by a key through `open`. When it closes, focus goes back to where it was: the chosen
 * cell when a key opened it, not the button that a pointer would have pressed.
 */
export function Sheet({
  title,
  trigger,
  width = 'narrow',
  open,
  onOpenChange,
  children,
}: {
  title: string;
  trigger: ReactNode;
  width?: keyof typeof widths;
  open?: boolean;
  onOpenChange?: (open: boolean) => void;
  children: ReactNode;
}) {
  const [mine, setMine] = useState(false);
  const before = useRef<Element | null>(null);
  return (
    <Dialog.Root open={open ?? mine} onOpenChange={onOpenChange ?? setMine}>
      <Dialog.Trigger asChild>{trigger}</Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className={`fixed top-1/2 left-1/2 z-50 max-h-[92vh] ${widths[width]} -translate-x-1/2 -translate-y-1/2 overflow-y-auto border border-line bg-sheet px-6 py-5`}
          onOpenAutoFocus={() => (before.current = document.activeElement)}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            if (before.current instanceof HTMLElement) before.current.focus();
          }}
        >
          <Dialog.Title className="text-head font-semibold">{title}</Dialog.Title>
          {children}
          <Dialog.Close asChild>
            <Button className="mt-3">{t('common.close')}</Button>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
