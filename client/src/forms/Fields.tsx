import type { ReactNode } from 'react';

const box = 'h-7 w-full min-w-0 rounded-md border bg-sheet px-2';

/** A field of the rule with its fault below it, if there is one. */
export function Field({
  name,
  children,
  fault,
  hint,
}: {
  name: string;
  children: ReactNode;
  fault?: string;
  hint?: string;
}) {
  return (
    <label className="block min-w-0">
      <span className="block text-small text-ink-2" title={hint}>
        {name}
      </span>
      {children}
      {fault && <span className="block text-small text-breaks">{fault}</span>}
    </label>
  );
}

export function TextField({
  name,
  value,
  onSet,
  fault,
  hint,
  unit,
  placeholder,
  readOnly = false,
}: {
  name: string;
  value: string;
  onSet: (text: string) => void;
  fault?: string;
  hint?: string;
  unit?: string;
  placeholder?: string;
  readOnly?: boolean;
}) {
  return (
    <Field name={name} fault={fault} hint={hint}>
      <span className="flex items-center gap-1">
        <input
          className={`${box} ${fault ? 'border-breaks' : 'border-line'} placeholder:text-ink-2 ${readOnly ? 'text-ink-2' : ''}`}
          value={value}
          placeholder={placeholder}
          aria-invalid={fault !== undefined}
          readOnly={readOnly}
          onChange={(event) => onSet(event.target.value)}
        />
        {unit && <span className="text-small text-ink-2">{unit}</span>}
      </span>
    </Field>
  );
}

export function SelectField({
  name,
  value,
  options,
  onSet,
  fault,
  hint,
}: {
  name: string;
  value: string;
  options: readonly (readonly [string, string])[];
  onSet: (value: string) => void;
  fault?: string;
  hint?: string;
}) {
  return (
    <Field name={name} fault={fault} hint={hint}>
      <select
        className={`${box} ${fault ? 'border-breaks' : 'border-line'} px-1`}
        value={value}
        onChange={(event) => onSet(event.target.value)}
      >
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </Field>
  );
}

export function TickField({
  name,
  value,
  onSet,
}: {
  name: ReactNode;
  value: boolean;
  onSet: (value: boolean) => void;
}) {
  return (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        className="h-4 w-4 accent-(--pm-accent)"
        checked={value}
        onChange={(event) => onSet(event.target.checked)}
      />
      {name}
    </label>
  );
}

export function Group({ name, children }: { name: string; children: ReactNode }) {
  return (
    <fieldset className="border-t border-line px-5 pt-2 pb-3">
      <legend className="float-left mb-1.5 w-full font-semibold">{name}</legend>
      <div className="clear-both grid grid-cols-4 gap-x-2.5 gap-y-2">{children}</div>
    </fieldset>
  );
}
