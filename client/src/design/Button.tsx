import type { ComponentProps } from 'react';
import { useOffWithout } from './rights';
import type { Right } from '../api/me';
import { useSingleKeys } from './singleKeys';

const kinds = {
  main: 'bg-accent text-on-accent border-accent hover:brightness-110 disabled:opacity-50',
  plain: 'bg-sheet text-ink border-line hover:border-ink-2 disabled:opacity-50 disabled:hover:border-line',
};

export const buttonShape =
  'inline-flex h-8 items-center justify-center gap-2 rounded-md border px-3 font-medium whitespace-nowrap select-none';

export function Button({
  kind = 'plain',
  needs,
  className = '',
  ...rest
}: ComponentProps<'button'> & {
  kind?: keyof typeof kinds;
  /** The right without which it is off, and says why. */
  needs?: Right;
}) {
  const off = useOffWithout(needs);
  return <button type="button" className={`${buttonShape} ${kinds[kind]} ${className}`} {...rest} {...off} />;
}

/** A link that is the next step. */
export function MainLink({ className = '', children, ...rest }: ComponentProps<'a'>) {
  return (
    <a className={`${buttonShape} ${kinds.main} ${className}`} {...rest}>
      {children}
    </a>
  );
}

/** The cap of a key, for saying which key does a thing; with Alt where single keys are off. */
export function Key({ children }: { children: string }) {
  const [single] = useSingleKeys();
  return (
    <kbd className="inline-block min-w-5 rounded-sm border border-current px-1 opacity-75 text-center font-sans text-note leading-[17px]">
      {single || !/^[A-Z0-9?/+−,.]$/.test(children) ? children : `Alt ${children}`}
    </kbd>
  );
}

/** An action with the key that does it as well. */
export function KeyButton({
  name,
  k,
  act,
  off = false,
  main = false,
  title,
  needs,
  className = '',
}: {
  name: string;
  k: string;
  act: () => void;
  off?: boolean;
  main?: boolean;
  title?: string;
  needs?: Right;
  className?: string;
}) {
  return (
    <Button
      kind={main ? 'main' : 'plain'}
      className={`justify-between! px-2! ${className}`}
      onClick={act}
      disabled={off}
      title={title}
      needs={needs}
    >
      {name} <Key>{k}</Key>
    </Button>
  );
}

/** An action that is not the next step: quiet until the pointer or the keyboard is there. */
export function QuietKey({
  name,
  k,
  act,
  title,
}: {
  name: string;
  k: string;
  act: () => void;
  title?: string;
}) {
  return (
    <button
      type="button"
      title={title}
      onClick={act}
      className="inline-flex h-7 items-center gap-1.5 rounded-md px-2 whitespace-nowrap text-ink-2 hover:bg-sheet-2 hover:text-ink"
    >
      {name} <Key>{k}</Key>
    </button>
  );
}
