import type { PageCheck } from '../api/client';

/** Where a page check stands, as a sentence. */
export function progressWords({ state, trouble, progress }: PageCheck): string {
  switch (state) {
    case 'receiving':
      return 'Its files are on their way.';
    case 'waiting':
      if (!progress) return 'It waits for its turn.';
      return progress.making
        ? `Making the lighter files: ${progress.done} of ${progress.of} pictures.`
        : `Looking at it: ${progress.done} of ${progress.of} screens.`;
    case 'stopped':
      return 'It was stopped.';
    case 'failed':
      return trouble ?? 'It could not be measured.';
    default:
      return 'It is measured.';
  }
}
