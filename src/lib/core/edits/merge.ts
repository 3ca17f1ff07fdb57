/**
 * Where two changes of the same thing meet: what each was made from says what it changed. Fields that only one of them touched take
 * its value; where both touched a field and differ, the later change conflicts there.
 *
 * @example
 * merged({ name: 'A', day: 1 }, { name: 'A', day: 2 }, { name: 'B', day: 1 });
 * // { value: { name: 'B', day: 2 }, conflicts: [] }
 */

const same = (a: unknown, b: unknown): boolean =>
  a === b || JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

interface Merged<T> {
  /** What is there now with all that the change touches alone. */
  readonly value: T;
  /** Fields that both touched, and differ in. */
  readonly conflicts: readonly (keyof T & string)[];
}

/**
 * A change of some fields on what is there now.
 *
 * @param was what the change was made from; a field that it does not name was not seen, and is taken as it is now
 * @param now what is there
 * @param wanted the fields as they are to be; what it does not name stays
 */
export function merged<T extends object>(was: Partial<T>, now: T, wanted: Partial<T>): Merged<T> {
  const conflicts: (keyof T & string)[] = [];
  const value = { ...now };
  for (const key of Object.keys(wanted) as (keyof T & string)[]) {
    const before = key in was ? was[key] : now[key];
    if (same(wanted[key], before) || same(wanted[key], now[key])) continue;
    if (same(now[key], before)) value[key] = wanted[key]!;
    else conflicts.push(key);
  }
  return { value, conflicts };
}

/** A change of a set of names on the set that is there now: who was added is in, who was taken out is not. */
export function mergedSet(
  was: readonly string[],
  now: readonly string[],
  wanted: readonly string[],
): readonly string[] {
  const added = wanted.filter((name) => !was.includes(name) && !now.includes(name));
  const removed = was.filter((name) => !wanted.includes(name));
  return [...now.filter((name) => !removed.includes(name)), ...added];
}
