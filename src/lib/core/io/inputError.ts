/** A file that cannot be used, with one plain sentence for the person who brought it. */
export class InputError extends Error {
  override readonly name = 'InputError';
}
