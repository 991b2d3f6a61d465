/** The language of the interface: figures in a sentence are written as its sentences are. */
const language = 'en';

/** Thousands are set apart by a thin space, whatever the language uses. */
export const thin = '\u2009';

const formats = new Map<number, Intl.NumberFormat>();

/** A number as it is read, with at most so many decimals; no decimals that are zero. */
export function figure(value: number, decimals = 0): string {
  let format = formats.get(decimals);
  if (!format) {
    format = new Intl.NumberFormat(language, { maximumFractionDigits: decimals });
    formats.set(decimals, format);
  }
  return format
    .formatToParts(value)
    .map((part) => (part.type === 'group' ? thin : part.value))
    .join('');
}

/** A moment as the browser's locale writes it, to the minute. */
export const moment = (at: string): string =>
  new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' }).format(new Date(at));

/** A day as the browser's locale writes it. */
export const day = (at: string): string =>
  new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' }).format(new Date(at));

/** A list as a sentence has it: "a, b, or c". */
export const listOr = (items: readonly string[]): string =>
  new Intl.ListFormat(language, { style: 'long', type: 'disjunction' }).format(items);

/** A list as a sentence has it: "a, b, and c". */
export const list = (items: readonly string[]): string =>
  new Intl.ListFormat(language, { style: 'long', type: 'conjunction' }).format(items);
