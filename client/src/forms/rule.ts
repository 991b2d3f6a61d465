import { sizeFormValues } from '../api/schema';
import { t } from '../texts/texts';

/** A slot's rule as it stands in a rules file. */
export type Rule = Record<string, unknown>;

const inner = (rule: Rule, key: string): Rule => (rule[key] as Rule | undefined) ?? {};

/** The value at a place like "limits.maxBytes". */
export const valueAt = (rule: Rule, place: string): unknown =>
  place.split('.').reduce<unknown>((part, key) => (part as Rule | undefined)?.[key], rule);

/** The rule with another value at a place; undefined removes it, and groups that are empty then with it. */
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
  'width+height': { name: t('destinations.widthAndHeight'), first: { width: 800, height: 600 } },
  'ratio+width': { name: t('destinations.ratioAndWidth'), first: { ratio: '3:2', width: 1200 } },
  'ratio+height': { name: t('destinations.ratioAndHeight'), first: { ratio: '3:2', height: 800 } },
  'ratio+longSide': { name: t('destinations.ratioAndLongestSide'), first: { ratio: '5:4', longSide: 2500 } },
  'ratio+shortSide': {
    name: t('destinations.ratioAndShortestSide'),
    first: { ratio: '5:4', shortSide: 2000 },
  },
  ratio: { name: t('destinations.ratioOnlyAllPixels'), first: { ratio: '3:2' } },
  width: { name: t('destinations.widthOnly'), first: { width: 1200 } },
  height: { name: t('destinations.heightOnly'), first: { height: 800 } },
  longSide: { name: t('destinations.longestSide'), first: { longSide: 2048 } },
  shortSide: { name: t('destinations.shortestSide'), first: { shortSide: 1000 } },
  within: { name: t('destinations.fitInsideABox'), first: { within: { width: 400, height: 160 } } },
  share: { name: t('destinations.shareOfTheFrame'), first: { share: 0.5 } },
  maxPixels: { name: t('destinations.maximumNumberOfPixels'), first: { maxPixels: 2000000 } },
};

/** The forms that a size can take, with the figures each needs and those it begins with. */
export const sizeForms = sizeFormValues.map((form) => ({ ...forms[form], keys: form.split('+') }));

export const sizeWords: Record<string, string> = {
  width: t('destinations.width'),
  height: t('destinations.height'),
  longSide: t('destinations.longestSide'),
  shortSide: t('destinations.shortestSide'),
  ratio: t('destinations.ratio'),
  share: t('destinations.share0To1'),
  maxPixels: t('destinations.pixels'),
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
