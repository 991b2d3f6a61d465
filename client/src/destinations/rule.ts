/** A slot's rule as it stands in a rules file. */
export type Rule = Record<string, unknown>;

const inner = (rule: Rule, key: string): Rule => (rule[key] as Rule | undefined) ?? {};

/** The value at a place like "limits.maxBytes". */
export function valueAt(rule: Rule, place: string): unknown {
  const [key = '', sub] = place.split('.');
  return sub ? inner(rule, key)[sub] : rule[key];
}

/** The rule with another value at a place; undefined takes it away, and an empty group with it. */
export function withValue(rule: Rule, place: string, value: unknown): Rule {
  const [key = '', sub] = place.split('.');
  const next = { ...rule };
  if (!sub) {
    if (value === undefined) delete next[key];
    else next[key] = value;
    return next;
  }
  const group = { ...inner(rule, key) };
  if (value === undefined) delete group[sub];
  else group[sub] = value;
  if (Object.keys(group).length === 0) delete next[key];
  else next[key] = group;
  return next;
}

/** The forms that a size can take, with the figures each needs. */
export const sizeForms: { name: string; keys: string[]; first: Rule }[] = [
  { name: 'Exact width and height', keys: ['width', 'height'], first: { width: 800, height: 600 } },
  { name: 'Ratio and width', keys: ['ratio', 'width'], first: { ratio: '3:2', width: 1200 } },
  { name: 'Ratio and height', keys: ['ratio', 'height'], first: { ratio: '3:2', height: 800 } },
  { name: 'Ratio and longest side', keys: ['ratio', 'longSide'], first: { ratio: '5:4', longSide: 2500 } },
  { name: 'Ratio and shortest side', keys: ['ratio', 'shortSide'], first: { ratio: '5:4', shortSide: 2000 } },
  { name: 'Ratio alone, all pixels', keys: ['ratio'], first: { ratio: '3:2' } },
  { name: 'Width alone', keys: ['width'], first: { width: 1200 } },
  { name: 'Height alone', keys: ['height'], first: { height: 800 } },
  { name: 'Longest side', keys: ['longSide'], first: { longSide: 2048 } },
  { name: 'Shortest side', keys: ['shortSide'], first: { shortSide: 1000 } },
  { name: 'Within a box', keys: ['within'], first: { within: { width: 400, height: 160 } } },
  { name: 'Share of the frame', keys: ['share'], first: { share: 0.5 } },
  { name: 'At most so many pixels', keys: ['maxPixels'], first: { maxPixels: 2000000 } },
];

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
