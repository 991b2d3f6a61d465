import type { PictureFolder } from '../api/client';
import { duration, weight } from '../design/figures';

/** What is under way with a folder, or how it stands, as a sentence. */
export function stateWords({
  state,
  progress,
  secondsLeft,
  mended,
  trouble,
  outcome,
}: PictureFolder): string {
  const far = progress ? `: ${progress.done} of ${progress.of} pictures` : '';
  const left = secondsLeft === null ? '' : `, ${duration(secondsLeft)} left`;
  switch (state) {
    case 'receiving':
      return 'Its files are on their way.';
    case 'looking':
      return `Looking it through${far}.`;
    case 'trying':
      return `Trying some of its pictures${far}.`;
    case 'mending':
      return `Putting it right${far}${left}.`;
    case 'restoring':
      return `Putting originals back${far}.`;
    case 'paused':
      return `Held: ${outcome.looked} pictures are done, and it can go on.`;
    default:
      return (
        trouble ?? (mended ? `Put right: ${weight(outcome.before - outcome.after)} less.` : 'Looked through.')
      );
  }
}
