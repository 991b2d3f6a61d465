import type { JobPicture } from '../api/client';
import { byName, isCalled } from '../jobs/jobOrder';
import { type AlikeGroups, alikeTogether } from '../domain/alike';
import type { Cells } from '../jobs/JobStore';

/** The order of the rows: as they were added with alike pictures side by side, those with most to review first, or by name. */
export type RowOrder = 'added' | 'to-review' | 'name';

/** What a picture is called on the bench. */
export const nameOf = ({ words, picture }: JobPicture) => words ?? picture.name;

/** How many cells of each picture are to review. */
export const countByPicture = (
  pictures: readonly JobPicture[],
  slots: readonly { address: string }[],
  cells: Cells,
): ReadonlyMap<string, number> =>
  new Map(
    pictures.map(({ picture: { id } }) => [
      id,
      slots.filter(({ address }) => (cells.at(id, address)?.toReview.length ?? 0) > 0).length,
    ]),
  );

/**
 * The pictures whose name, or file's name, has the words, in order.
 * @param alike Pictures that are alike.
 * @param toReview How many cells were to review when the order was chosen: rows stay where they are while they are worked off.
 */
export function rowsIn(
  pictures: readonly JobPicture[],
  order: RowOrder,
  words: string,
  toReview: ReadonlyMap<string, number>,
  alike: AlikeGroups = [],
): readonly JobPicture[] {
  const called =
    words.trim() === ''
      ? pictures
      : pictures.filter((one) => isCalled(nameOf(one), words) || isCalled(one.picture.name, words));
  if (order === 'added') return alikeTogether(called, alike, (one) => one.picture.id);
  if (order === 'name') return called.toSorted((a, b) => byName.compare(nameOf(a), nameOf(b)));
  const countOf = (one: JobPicture) => toReview.get(one.picture.id) ?? 0;
  return called.toSorted((a, b) => countOf(b) - countOf(a));
}
