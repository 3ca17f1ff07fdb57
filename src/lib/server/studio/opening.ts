/** The first pictures of a version, made on the server, so that they come with the page. */
import { engrave } from '$lib/engrave/engrave';
import { sheetOf, type SheetOptions } from '$lib/engrave/sheet';
import type { Version } from '$core/version/realise';
import type { Phrase } from '$core/analysis/form';

/** The pictures of some phrases, in their order. */
export async function picturesOf(
  version: Version,
  phrases: readonly Pick<Phrase, 'from' | 'to'>[],
  options: SheetOptions,
): Promise<string[]> {
  const pictures: string[] = [];
  for (const phrase of phrases) pictures.push(await engrave(sheetOf(version, phrase, options)));
  return pictures;
}
