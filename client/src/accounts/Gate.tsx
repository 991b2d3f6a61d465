import type { FormEvent, ReactNode } from 'react';
import { ProductSign } from '../design/ProductSign';

/** The sheet on which somebody comes in: one title, a few fields, one button. */
export function Gate({
  title,
  children,
  onSubmit,
}: {
  title: string;
  children: ReactNode;
  onSubmit?: () => void;
}) {
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onSubmit?.();
  };
  return (
    <main className="grid h-full place-items-center overflow-y-auto p-5">
      <form
        noValidate
        onSubmit={submit}
        className="w-full max-w-[400px] border border-line bg-sheet px-7 pt-6 pb-7"
      >
        <p className="flex items-center gap-2.5 text-head font-bold">
          <ProductSign />
          Pantomet
        </p>
        <h1 className="mt-6 text-title">{title}</h1>
        <div className="mt-4 flex flex-col gap-3.5">{children}</div>
      </form>
    </main>
  );
}

/** A field with its name above and a sentence below. */
export function GateField({
  name,
  hint,
  value,
  onSet,
  ...rest
}: {
  name: string;
  hint?: string;
  value: string;
  onSet: (value: string) => void;
  type?: 'text' | 'password';
  autoComplete?: string;
  inputMode?: 'numeric' | 'text';
  first?: boolean;
}) {
  const { first, ...input } = rest;
  return (
    <label className="block">
      <span className="block">{name}</span>
      <input
        {...input}
        // The one thing to be done on this screen.
        // eslint-disable-next-line jsx-a11y/no-autofocus
        autoFocus={first}
        value={value}
        onChange={(event) => onSet(event.target.value)}
        className="mt-1 h-9 w-full rounded-md border border-line bg-sheet px-2.5 hover:border-ink-2"
      />
      {hint && <span className="mt-1 block text-small text-ink-2">{hint}</span>}
    </label>
  );
}

/** What was refused, as a sentence. */
export function GateFault({ fault }: { fault?: Error | null }) {
  return fault ? (
    <p role="alert" className="text-breaks">
      {fault.message}
    </p>
  ) : null;
}
