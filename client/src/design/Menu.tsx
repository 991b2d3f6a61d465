import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';

/** What is rarely done with a thing, behind one button with three dots. */
export function Menu({ label, children }: { label: string; children: ReactNode }) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        aria-label={label}
        title={label}
        className="grid size-7 place-items-center rounded-md border border-line bg-sheet hover:border-ink-2"
      >
        <svg viewBox="0 0 14 4" width="14" height="4" aria-hidden fill="currentColor">
          <circle cx="2" cy="2" r="1.4" />
          <circle cx="7" cy="2" r="1.4" />
          <circle cx="12" cy="2" r="1.4" />
        </svg>
      </DropdownMenu.Trigger>
      <MenuContent align="end">{children}</MenuContent>
    </DropdownMenu.Root>
  );
}

/** The list of a menu, below its button. */
export function MenuContent({ align, children }: { align: 'start' | 'end'; children: ReactNode }) {
  return (
    <DropdownMenu.Portal>
      <DropdownMenu.Content
        align={align}
        sideOffset={4}
        className="z-50 min-w-44 border border-line bg-sheet py-1 shadow-md"
      >
        {children}
      </DropdownMenu.Content>
    </DropdownMenu.Portal>
  );
}

/** How an item of a menu looks. */
export const menuItem =
  'block w-full cursor-pointer px-4 py-1.5 text-left outline-none data-highlighted:bg-sheet-2';

export function MenuItem({ act, title, children }: { act: () => void; title?: string; children: string }) {
  return (
    <DropdownMenu.Item className={menuItem} title={title} onSelect={act}>
      {children}
    </DropdownMenu.Item>
  );
}

/** An item that leads to a file. */
export function MenuDownload({ href, children }: { href: string; children: string }) {
  return (
    <DropdownMenu.Item asChild>
      <a className={menuItem} href={href} download>
        {children}
      </a>
    </DropdownMenu.Item>
  );
}
