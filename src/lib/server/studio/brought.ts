/**
 * A file as it was sent, looked at or read: the form around it is parsed where the file is read, not where everybody's requests are
 * answered. Runs in the pool.
 */
import { InputError } from '$core/io/inputError';
import { MOST_BYTES, tooLarge } from '$core/io/limits';
import { lineText } from '$core/plainText';
import { partChoicesSchema } from '$core/players/parts';
import { previewOf, type Preview } from '$lib/engrave/preview';
import { and, eq, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { jsonText } from '../jsonText';
import type { Db } from '../db/open';
import { piece } from '../db/schema';
import { hashOf } from './contentKey';
import { RIGHTS } from './pieces';
import { readPiece, type ReadPiece } from './prepared';

const wishesSchema = z.object({
  rights: z.enum(RIGHTS).catch('not known'),
  title: lineText().max(200, 'A title has at most 200 letters.').optional(),
  composer: lineText().max(200, 'A name has at most 200 letters.').optional(),
  parts: jsonText.pipe(partChoicesSchema).optional(),
  /** Measures to be shown at most. */
  shown: z.coerce.number().int().min(1).max(64).optional(),
  once: z.string().optional(),
});

/** A request's body as it came, with what it says of itself. */
interface BroughtBody {
  readonly body: Uint8Array;
  readonly type: string;
}

/** What a form brought. */
interface Brought extends z.infer<typeof wishesSchema> {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** The form in a body. Throws InputError where there is none, or no file in it. */
async function broughtIn({ body, type }: BroughtBody): Promise<Brought> {
  const data = await new Response(new Uint8Array(body), { headers: { 'content-type': type } })
    .formData()
    .catch(() => undefined);
  const file = data?.get('file');
  if (!data || !(file instanceof File) || file.name === '')
    throw new InputError('No file arrived. Choose a file and try again.');
  if (file.size > MOST_BYTES) throw new InputError(tooLarge(file.name, file.size)!);
  const wishes = wishesSchema.safeParse(
    Object.fromEntries([...data].filter((entry) => typeof entry[1] === 'string')),
  );
  if (!wishes.success) throw new InputError(wishes.error.issues[0]!.message);
  return { ...wishes.data, name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) };
}

/** A piece of the studio that was made of the same file. */
interface Already {
  readonly id: string;
  readonly title: string;
}

const alreadyHere = (db: Db, bytes: Uint8Array): Already | null =>
  db
    .select({ id: piece.id, title: piece.title })
    .from(piece)
    .where(and(eq(piece.sourceHash, hashOf(bytes)), isNull(piece.deletedAt)))
    .get() ?? null;

/** What is in a file that was sent; with `keeps`, what is needed to keep it. */
export async function broughtFile(
  db: Db,
  { keeps, ...sent }: BroughtBody & { readonly keeps: boolean },
): Promise<
  | { readonly preview: Preview; readonly already: Already | null }
  | { readonly file: Brought; readonly found: ReadPiece }
> {
  const file = await broughtIn(sent);
  if (keeps) return { file, found: readPiece(db, file) };
  const { name, bytes, parts, shown } = file;
  return { preview: await previewOf({ name, bytes }, parts, shown), already: alreadyHere(db, bytes) };
}
