import table from './ruleKeys.json';

/** One key of a slot's rule, as the core describes it: what may stand there, and what holds where nothing does. */
export interface RuleKey {
  key: string;
  kind: string;
  /** What it decides, as a sentence. */
  about: string;
  /** True where it must be given. */
  needed?: boolean;
  default?: unknown;
  /** True where it is written also when it is the default. */
  always?: boolean;
  /** The key beside which alone it has a meaning. */
  with?: string;
  least?: number;
  most?: number;
  choices?: readonly string[];
  keys?: readonly RuleKey[];
}

const keys: readonly RuleKey[] = table;

/** The key at a place like "limits.maxBytes". */
export function ruleKey(place: string): RuleKey {
  let among: readonly RuleKey[] | undefined = keys;
  let found: RuleKey | undefined;
  for (const name of place.split('.')) {
    found = among?.find((one) => one.key === name);
    among = found?.keys;
  }
  if (!found) throw new Error(`A slot's rule has no key ${place}.`);
  return found;
}

/** What holds where nothing stands at a place. */
export const usual = <T>(place: string): T => ruleKey(place).default as T;

const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other);

/** An object at a place as the server writes it: in the order of the table, and without what is usual where that is left out. */
export const writtenAt = (place: string, rule: object): Record<string, unknown> =>
  written(ruleKey(place).keys ?? [], rule as Record<string, unknown>);

function written(among: readonly RuleKey[], rule: Record<string, unknown>): Record<string, unknown> {
  const result: Record<string, unknown> = {};
  for (const key of among) {
    if (key.with !== undefined && rule[key.with] === undefined) continue;
    const value = rule[key.key] ?? (key.always ? key.default : undefined);
    if (value === undefined || (!key.always && !key.needed && same(value, key.default))) continue;
    result[key.key] = key.keys ? written(key.keys, value as Record<string, unknown>) : value;
  }
  return result;
}
