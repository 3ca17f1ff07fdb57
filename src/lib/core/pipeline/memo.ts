/**
 * A stage is kept by exactly what it reads. Large data (a score, a form) is told apart by identity: a stage that was not run
 * again gives back the very object that it gave before, and whatever reads only that is not run again either. Small plain data
 * (settings, decisions) goes through `sameData` first, which makes equal data one object.
 */
import { LRUCache } from 'lru-cache';
import { listening, tell } from './progress';

let lastIdentity = 0;
const identities = new WeakMap<object, number>();

/** A number for each object, a text for everything else: what a stage is kept by. */
function identityOf(value: unknown): string {
  if (typeof value !== 'object' || value === null) return `${typeof value}:${String(value)}`;
  const known = identities.get(value) ?? ++lastIdentity;
  identities.set(value, known);
  return `#${known}`;
}

const MOST_DATA = 5000;
const data = new LRUCache<string, object>({ max: MOST_DATA });

/** The same object for equal plain data. For small JSON only. */
export function sameData<T extends object>(value: T): T {
  const key = JSON.stringify(value);
  const known = data.get(key);
  if (known) return known as T;
  data.set(key, value);
  return value;
}

/** Results that a stage keeps: enough for six levels and all keys of one piece. */
let mostResults = 40;

/** Sets how many results each stage keeps in this thread; said before the first is run. A thread that many share keeps few of each. */
export const keepResults = (most: number): void => void (mostResults = most);

const forgetting: (() => void)[] = [];

/** A stage of the pipeline: a pure function that is run only for what it has not seen lately. */
export function stage<Input extends readonly unknown[], Output extends object>(
  name: string,
  run: (...input: Input) => Output,
): (...input: Input) => Output {
  let results: LRUCache<string, Output> | undefined;
  forgetting.push(() => results?.clear());
  return (...input) => {
    const key = input.map(identityOf).join(' ');
    results ??= new LRUCache<string, Output>({ max: mostResults });
    const known = results.get(key);
    if (known) return known;
    tell(name);
    const output = run(...input);
    results.set(key, output);
    return output;
  };
}

/** Forgets every result, for measuring and tests. */
export const forgetStages = (): void => forgetting.forEach((forget) => forget());

/** The names of the stages that are really run while something is done, in order. */
export function stagesRun(what: () => void): string[] {
  const names: string[] = [];
  listening((name) => void names.push(name), what);
  return names;
}
