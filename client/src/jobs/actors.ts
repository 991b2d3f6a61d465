import { t } from '../texts/texts';

/** Who did something, as it is read: where nobody signs in, a browser or a program of this machine. */
export function actorName(actor: string): string {
  if (actor === 'browser') return t('jobs.somebodyInTheBrowser');
  if (actor === 'program') return t('jobs.aProgram');
  if (actor === 'library') return t('jobs.theLibrary');
  return actor === '' ? t('jobs.somebody') : actor;
}

/** Two letters for a name: of its first and its last word. */
export function initials(name: string): string {
  const words = name
    .replace(/\(.*\)/, '')
    .split(/\s+/)
    .filter(Boolean);
  const letters = [words[0], words.length > 1 ? words.at(-1) : undefined].map(
    (word) => [...(word ?? '')][0] ?? '',
  );
  return letters.join('').toUpperCase() || '?';
}
