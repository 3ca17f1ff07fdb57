/** The page's end of bringing a piece: files and pasted text to the server and back. */
import { deserialize } from '$app/forms';
import { tunesIn, type BookTune } from '$core/io/abc/book';
import { decode } from '$core/io/decode';
import type { PartChoices } from '$core/players/parts';
import type { Preview } from '$lib/engrave/preview';
import type { ActionResult } from '@sveltejs/kit';

/** What the file chooser offers. */
export const ACCEPTED = '.musicxml,.xml,.mxl,.mid,.midi,.abc,.pro,.cho,.crd,.chordpro,.txt';

/** Pasted or typed text as a file, named by what it looks like. */
export function textFile(text: string): File {
  const ending = /^\s*</.test(text)
    ? 'musicxml'
    : /^(X:\s*\d|K:\s*[A-G])/m.test(text)
      ? 'abc'
      : /^\s*\{\s*[a-z_]+\s*[:}]/im.test(text)
        ? 'pro'
        : 'txt';
  return new File([text], `Typed music.${ending}`, { type: 'text/plain' });
}

/** The tunes of a tune book; none where a file is something else, or has one tune. */
export async function tunesOf(file: File): Promise<BookTune[]> {
  if (!/\.(abc|txt)$/i.test(file.name)) return [];
  const tunes = tunesIn(decode(new Uint8Array(await file.arrayBuffer())));
  return tunes.length > 1 ? tunes : [];
}

/** One tune of a book as a file of its own. */
export const tuneFile = ({ title, text }: BookTune): File =>
  new File([text], `${title.replace(/[/\\:*?"<>|]/g, ' ')}.abc`, { type: 'text/plain' });

/** Looks at a tune and keeps it as it is proposed. Throws an Error with one sentence. */
export async function bringTune(tune: BookTune, rights: string, once: string): Promise<void> {
  const file = tuneFile(tune);
  const { composer, choices } = await look(file);
  await keep(file, { title: tune.title, composer, rights, parts: choices }, once);
}

async function send(action: 'look' | 'keep', fields: Record<string, File | string>): Promise<ActionResult> {
  const body = new FormData();
  for (const [name, value] of Object.entries(fields)) body.append(name, value);
  const response = await fetch(`/pieces?/${action}`, {
    method: 'POST',
    body,
    headers: { 'x-sveltekit-action': 'true' },
  });
  return deserialize(await response.text());
}

const failed = (result: ActionResult): string =>
  result.type === 'failure'
    ? String(result.data?.message ?? 'The file couldn’t be read.')
    : 'The file couldn’t be read. Try again in a moment.';

/** A look at a file, and the piece that was made of the same file before. */
export type Looked = Preview & { readonly already: { readonly id: string; readonly title: string } | null };

/** A look at a file. Throws an Error with one sentence when it cannot be read or sent. */
export async function look(file: File, parts?: PartChoices, shown?: number): Promise<Looked> {
  const result = await send('look', {
    file,
    ...(parts ? { parts: JSON.stringify(parts) } : {}),
    ...(shown ? { shown: String(shown) } : {}),
  });
  if (result.type === 'success' && result.data?.preview)
    return {
      ...(result.data.preview as Preview),
      already: (result.data.already as Looked['already'] | undefined) ?? null,
    };
  throw new Error(failed(result));
}

/** Keeps a file; gives the address of the piece. Throws an Error with one sentence. */
export async function keep(
  file: File,
  wishes: { title: string; composer: string; rights: string; parts: PartChoices },
  once: string,
): Promise<string> {
  const result = await send('keep', { file, ...wishes, once, parts: JSON.stringify(wishes.parts) });
  if (result.type === 'redirect') return result.location;
  throw new Error(failed(result));
}
