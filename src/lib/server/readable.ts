/** Pages about music that cannot be read: they say why, and give the file back. */
import { InputError } from '$core/io/inputError';
import { error } from '@sveltejs/kit';
import { WorkStopped } from './pool/work';

/**
 * What a page needs of a piece. Where the music cannot be read, or took too long or too much room, the page is one with that
 * sentence and the piece's file to be taken away.
 */
export async function readable<T>(pieceId: string, needed: () => T | Promise<T>): Promise<T> {
  try {
    return await needed();
  } catch (cause) {
    if (cause instanceof InputError || cause instanceof WorkStopped)
      error(422, { message: cause.message, pieceId });
    throw cause;
  }
}
