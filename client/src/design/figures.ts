/** How figures are written: thin-spaced thousands, units always, decimal units for weights. The same as in the core. */
export const thin = '\u2009';

/**
 * A sentence of the server's as it is shown. Its thin spaces do not break a line, but the font draws that one
 * almost without width; a thin space between two joiners has the width and breaks no line either.
 */
export function sentence(text: string): string {
  return text.replaceAll('\u202f', '\u2060\u2009\u2060');
}

export function count(value: number): string {
  return Math.round(value)
    .toString()
    .replace(/\B(?=(\d{3})+(?!\d))/g, thin);
}

export function size(width: number, height: number): string {
  return `${count(width)} × ${count(height)} px`;
}

export function weight(bytes: number): string {
  if (bytes < 1000) return `${bytes} B`;
  if (bytes < 9_995) return `${trim(bytes / 1000, 2)} kB`;
  if (bytes < 99_950) return `${trim(bytes / 1000, 1)} kB`;
  if (bytes < 999_500) return `${trim(bytes / 1000, 0)} kB`;
  if (bytes < 9_995_000) return `${trim(bytes / 1e6, 2)} MB`;
  if (bytes < 99_950_000) return `${trim(bytes / 1e6, 1)} MB`;
  return `${count(bytes / 1e6)} MB`;
}

export function trim(value: number, decimals: number): string {
  return Number(value.toFixed(decimals)).toString();
}

export function megapixels(width: number, height: number): string {
  return `${trim((width * height) / 1e6, 1)} million pixels`;
}

/** What a density label means on paper. It changes no pixel. */
export function printed(pixels: number, ppi: number): string {
  return trim((pixels / ppi) * 2.54, 1);
}

/** A figure as it is typed, with a point or a comma; not a number where it is none. */
export const figure = (text: string) => (text.trim() === '' ? NaN : Number(text.replace(',', '.')));

/** A number of files in words. */
export const files = (count: number) => `${count} ${count === 1 ? 'file' : 'files'}`;

/** About how long something takes: seconds, minutes or hours, no finer than anybody can tell. */
export function duration(seconds: number): string {
  if (seconds < 10) return 'a few seconds';
  if (seconds < 90) return `about ${Math.round(seconds / 5) * 5} s`;
  if (seconds < 5400) return `about ${Math.round(seconds / 60)} min`;
  return `about ${trim(seconds / 3600, 1)} h`;
}

/** A moment as the browser's locale writes it, to the minute. */
export const moment = (at: string): string =>
  new Date(at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
