import { figure } from '../texts/numbers';
import { t } from '../texts/texts';
/* How figures are written: thin-spaced thousands, units always, decimal units for weights. The same as in the core. */

/**
 * A sentence of the server's as it is shown. Its thin spaces do not break a line, but the font draws that one
 * almost without width; a thin space between two joiners has the width and breaks no line either.
 */
export function sentence(text: string): string {
  return text.replaceAll('\u202f', '\u2060\u2009\u2060');
}

export function count(value: number): string {
  return figure(value);
}

export function size(width: number, height: number): string {
  return `${count(width)} × ${count(height)} px`;
}

export function weight(bytes: number): string {
  if (bytes < 1000) return `${bytes} B`;
  if (bytes < 9_995) return `${figure(bytes / 1000, 2)} kB`;
  if (bytes < 99_950) return `${figure(bytes / 1000, 1)} kB`;
  if (bytes < 999_500) return `${figure(bytes / 1000)} kB`;
  if (bytes < 9_995_000) return `${figure(bytes / 1e6, 2)} MB`;
  if (bytes < 99_950_000) return `${figure(bytes / 1e6, 1)} MB`;
  return `${figure(bytes / 1e6)} MB`;
}

/** A number as a field takes it: without thousands set apart. */
export function trim(value: number, decimals: number): string {
  return Number(value.toFixed(decimals)).toString();
}

export function megapixels(width: number, height: number): string {
  return t('common.millionPixels', { n: figure((width * height) / 1e6, 1) });
}

/** What a density label means on paper. It changes no pixel. */
export function printed(pixels: number, ppi: number): string {
  return trim((pixels / ppi) * 2.54, 1);
}

/** A figure as it is typed, with a point or a comma, thousands set apart or not; not a number where it is none. */
export const typedNumber = (text: string) =>
  text.trim() === '' ? NaN : Number(text.replace(/\s/g, '').replace(',', '.'));

/** A number of files in words. */
export const files = (count: number) => t('common.files', { count });

/** About how long something takes: seconds, minutes or hours, no finer than anybody can tell. */
export function duration(seconds: number): string {
  if (seconds < 10) return t('common.aFewSeconds');
  if (seconds < 90) return t('common.aboutSeconds', { seconds: Math.round(seconds / 5) * 5 });
  if (seconds < 5400) return t('common.aboutMinutes', { minutes: Math.round(seconds / 60) });
  return t('common.aboutHours', { hours: trim(seconds / 3600, 1) });
}
