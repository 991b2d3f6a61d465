/** Pictures that can be framed as one, by their identities: groups of two and more. */
export type AlikeGroups = readonly (readonly string[])[];

/** The same at every call: a row of the bench is drawn again when it gets another list. */
const none: readonly string[] = [];

/** The pictures that are alike to one, itself among them; empty where there are none. */
export const alikeTo = (groups: AlikeGroups, id: string): readonly string[] =>
  groups.find((group) => group.includes(id)) ?? none;

/** The same list with those of a group side by side, where the first of them stands. */
export function alikeTogether<T>(
  all: readonly T[],
  groups: AlikeGroups,
  idOf: (one: T) => string,
): readonly T[] {
  if (groups.length === 0) return all;
  const byId = new Map(all.map((one) => [idOf(one), one]));
  const put = new Set<string>();
  return all.flatMap((one) => {
    if (put.has(idOf(one))) return [];
    const group = alikeTo(groups, idOf(one));
    const its = group.length === 0 ? [one] : group.flatMap((id) => byId.get(id) ?? []);
    for (const each of its) put.add(idOf(each));
    return its;
  });
}
