import { sizeFormValues } from '../api/schema';

/** A slot's rule as it stands in a rules file. */
export type Rule = Record<string, unknown>;

const inner = (rule: Rule, key: string): Rule => (rule[key] as Rule | undefined) ?? {};

/** The value at a place like "limits.maxBytes". */
export const valueAt = (rule: Rule, place: string): unknown =>
  place.split('.').reduce<unknown>((part, key) => (part as Rule | undefined)?.[key], rule);

/** The rule with another value at a place; undefined takes it away, and groups that are empty then with it. */
export function withValue(rule: Rule, place: string, value: unknown): Rule {
  const [key = '', ...rest] = place.split('.');
  const inside = rest.length > 0 ? withValue(inner(rule, key), rest.join('.'), value) : value;
  const gone = inside === undefined || (rest.length > 0 && Object.keys(inside as Rule).length === 0);
  return gone ? without(rule, key) : { ...rule, [key]: inside };
}

/** A rule without some of its keys. */
export const without = (rule: Rule, ...keys: readonly string[]): Rule =>
  Object.fromEntries(Object.entries(rule).filter(([key]) => !keys.includes(key)));

type SizeForm = (typeof sizeFormValues)[number];

const forms: Record<SizeForm, { name: string; first: Rule }> = {
  'width+height': { name: 'Exact width and height', first: { width: 800, height: 600 } },
  'ratio+width': { name: 'Ratio and width', first: { ratio: '3:2', width: 1200 } },
  'ratio+height': { name: 'Ratio and height', first: { ratio: '3:2', height: 800 } },
  'ratio+longSide': { name: 'Ratio and longest side', first: { ratio: '5:4', longSide: 2500 } },
  'ratio+shortSide': { name: 'Ratio and shortest side', first: { ratio: '5:4', shortSide: 2000 } },
  ratio: { name: 'Ratio alone, all pixels', first: { ratio: '3:2' } },
  width: { name: 'Width alone', first: { width: 1200 } },
  height: { name: 'Height alone', first: { height: 800 } },
  longSide: { name: 'Longest side', first: { longSide: 2048 } },
  shortSide: { name: 'Shortest side', first: { shortSide: 1000 } },
  within: { name: 'Within a box', first: { within: { width: 400, height: 160 } } },
  share: { name: 'Share of the frame', first: { share: 0.5 } },
  maxPixels: { name: 'At most so many pixels', first: { maxPixels: 2000000 } },
};

/** The forms that a size can take, with the figures each needs and those it begins with. */
export const sizeForms = sizeFormValues.map((form) => ({ ...forms[form], keys: form.split('+') }));

export const sizeWords: Record<string, string> = {
  width: 'Width',
  height: 'Height',
  longSide: 'Longest side',
  shortSide: 'Shortest side',
  ratio: 'Ratio',
  share: 'Share, 0 to 1',
  maxPixels: 'Pixels',
};

export function formOf(size: Rule): number {
  const keys = Object.keys(size).toSorted().join();
  return Math.max(
    0,
    sizeForms.findIndex((form) => form.keys.toSorted().join() === keys),
  );
}

/** A weight as people write it: 300000 is 300 kB. */
export function weightText(value: unknown): string {
  if (typeof value !== 'number') return value === undefined ? '' : String(value);
  if (value % 1_000_000 === 0) return `${value / 1_000_000} MB`;
  return value % 1000 === 0 ? `${value / 1000} kB` : String(value);
}

/** What was typed, as a rules file has it: a number where it is one, else the text; nothing for nothing. */
export function typed(text: string): unknown {
  const plain = text.trim();
  if (plain === '') return undefined;
  const number = Number(plain.replace(',', '.'));
  return Number.isFinite(number) ? number : plain;
}
