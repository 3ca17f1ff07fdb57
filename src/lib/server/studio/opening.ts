/** The first pictures of a version, made on the server, so that they come with the page. */
import { engrave } from '$lib/engrave/engrave';
import { sheetOf, type SheetOptions } from '$lib/engrave/sheet';
import type { Version } from '$core/version/realise';
import type { Phrase } from '$core/analysis/form';

/** Lets other requests be answered between two phrases. */
const breath = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

/** The pictures of some phrases, in their order. */
export async function picturesOf(
  version: Version,
  phrases: readonly Pick<Phrase, 'from' | 'to'>[],
  options: SheetOptions,
): Promise<string[]> {
  const pictures: string[] = [];
  for (const phrase of phrases) {
    if (pictures.length > 0) await breath();
    pictures.push(await engrave(sheetOf(version, phrase, options)));
  }
  return pictures;
}
