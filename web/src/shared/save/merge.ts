// Two people changed one sheet: what only one of them changed is taken from whoever did; where both did, somebody is asked.

/** A place that both changed, and to what. */
export interface Clash {
  path: string[];
  mine: unknown;
  theirs: unknown;
}

export interface Merged<T> {
  /** Everything of both; what was typed here where they clash. */
  mine: T;
  /** The same with what is stored where they clash. */
  theirs: T;
  clashes: Clash[];
}

type Fields = Record<string, unknown>;

const isFields = (value: unknown): value is Fields =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** Whether two values say the same, whatever the order of their fields; a field that is missing is one without a value. */
export function same(one: unknown, other: unknown): boolean {
  if (Object.is(one, other)) return true;
  if (Array.isArray(one) && Array.isArray(other))
    return one.length === other.length && one.every((value, at) => same(value, other[at]));
  if (!isFields(one) || !isFields(other)) return false;
  return [...new Set([...Object.keys(one), ...Object.keys(other)])].every((key) =>
    same(one[key], other[key]),
  );
}

/** Puts together what two made of `base`, field by field; a list is one value, and so is a field that is only told `whole`. */
export function merged<T>(base: T, mine: T, theirs: T, whole: string[] = [], path: string[] = []): Merged<T> {
  if (same(mine, theirs) || same(base, theirs)) return { mine, theirs: mine, clashes: [] };
  if (same(base, mine)) return { mine: theirs, theirs, clashes: [] };
  if (!isFields(mine) || !isFields(theirs) || whole.includes(path.join(" ")))
    return { mine, theirs, clashes: [{ path, mine, theirs }] };
  const before: Fields = isFields(base) ? base : {};
  const both: Merged<Fields> = { mine: {}, theirs: {}, clashes: [] };
  for (const key of new Set([...Object.keys(mine), ...Object.keys(theirs)])) {
    const field = merged(before[key], mine[key], theirs[key], whole, [...path, key]);
    // What one of them took out stays out.
    if (field.mine !== undefined) both.mine[key] = field.mine;
    if (field.theirs !== undefined) both.theirs[key] = field.theirs;
    both.clashes.push(...field.clashes);
  }
  return both as Merged<T>;
}
