import type { ReactNode } from 'react';
import { SelectField, TextField, TickField } from './Fields';
import { typed } from './rule';
import { usePlace } from './slotForm';
import { ruleKey, usual } from '../domain/ruleKeys';
import { figure } from '../texts/numbers';
import { t } from '../texts/texts';

/** What a place of the rule decides, with its range where it is a number. */
function hintOf(place: string): string {
  const { about, kind, least, most } = ruleKey(place);
  return kind === 'number' && least !== undefined && most !== undefined
    ? t('destinations.aboutWithRange', { about, least: figure(least), most: figure(most) })
    : about;
}

/** A place of the rule as a line of text. */
export function RuleText({
  place,
  show = (value) => String(value ?? ''),
  read = typed,
  ...more
}: {
  name: string;
  place: string;
  show?: (value: unknown) => string;
  read?: (text: string) => unknown;
  unit?: string;
  hint?: string;
  placeholder?: string;
  readOnly?: boolean;
}) {
  const { value, set, fault } = usePlace(place);
  const byDefault = ruleKey(place).default;
  return (
    <TextField
      hint={hintOf(place)}
      placeholder={byDefault === undefined ? undefined : show(byDefault)}
      value={show(value)}
      onSet={(text) => set(read(text))}
      fault={fault}
      {...more}
    />
  );
}

/** A place of the rule as a choice; what is usual is not written down. */
export function RuleSelect({
  name,
  place,
  options,
  read = String,
}: {
  name: string;
  place: string;
  options: readonly (readonly [string, string])[];
  read?: (next: string) => unknown;
}) {
  const { value, set, fault } = usePlace(place);
  const byDefault = ruleKey(place).default;
  return (
    <SelectField
      name={name}
      hint={hintOf(place)}
      value={String(value ?? byDefault)}
      options={options}
      onSet={(next) => set(next === String(byDefault) ? undefined : read(next))}
      fault={fault}
    />
  );
}

/** A place of the rule that is true or not said. */
export function RuleTick({ name, place }: { name: string; place: string }) {
  const { value, set } = usePlace(place);
  return <TickField name={name} value={value === true} onSet={(on) => set(on || undefined)} />;
}

/** Two figures of one place, from and to. */
export function RulePair({
  place,
  name,
  show = (value) => String(value ?? ''),
  placeholders = (usual<unknown[] | undefined>(place) ?? []).map(show),
  names = [t('destinations.nameFrom', { name }), 'to'],
}: {
  place: string;
  name: string;
  show?: (value: unknown) => string;
  placeholders?: readonly string[];
  names?: readonly [string, string];
}) {
  const { value, set, fault } = usePlace(place);
  const both = (value as unknown[] | undefined) ?? [];
  const setOne = (index: number, text: string) => {
    const next = [0, 1].map((i) => (i === index ? typed(text) : both[i]) ?? '');
    set(next.every((one) => one === '') ? undefined : next);
  };
  return [0, 1].map((i) => (
    <TextField
      key={i}
      name={names[i as 0 | 1]}
      hint={hintOf(place)}
      placeholder={placeholders[i]}
      value={show(both[i])}
      onSet={(text) => setOne(i, text)}
      fault={i === 0 ? fault : undefined}
    />
  ));
}

/** So many of the four columns. */
export function Wide({ columns, children }: { columns: 2 | 3 | 4; children?: ReactNode }) {
  return <span className={{ 2: 'col-span-2', 3: 'col-span-3', 4: 'col-span-4' }[columns]}>{children}</span>;
}
