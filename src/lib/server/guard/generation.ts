/**
 * Every answer names the generation of the studio's file, and what a page of ours changes names the one that the page was opened on: what
 * was meant for a file that another has taken the place of is not written into that one.
 */

/** The header, both ways. */
export const GENERATION = 'x-keypath-generation';

/** Whether a request was meant for another file than the one there is. A page without script says nothing, and is taken. */
export function isForAnother({ method, headers }: Pick<Request, 'method' | 'headers'>, now: string): boolean {
  const meant = headers.get(GENERATION);
  return !['GET', 'HEAD'].includes(method) && meant !== null && meant !== now;
}
