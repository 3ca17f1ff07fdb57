/** How many letters of a PDF have no glyph: readers draw a box for each. An independent look at the file as it is, for tests and scripts. */
import { unzlibSync } from 'fflate';

/** Number of the glyph that stands for what a font does not have. */
const NOT_DEFINED = 0;

/** The strings shown by the pages of a PDF whose streams are deflated, as numbers of glyphs of two bytes each. */
function* glyphsOf(bytes: Uint8Array): Generator<number> {
  const text = new TextDecoder('latin1').decode(bytes);
  for (const match of text.matchAll(/>>\s*stream\r?\n/g)) {
    const from = match.index + match[0].length;
    const to = text.indexOf('endstream', from);
    let content: string;
    try {
      content = new TextDecoder('latin1').decode(unzlibSync(bytes.subarray(from, to)));
    } catch {
      // A picture or a font that is stored in another way shows no text.
      continue;
    }
    if (!content.includes('BT')) continue;
    for (const [, hex] of content.matchAll(/<([0-9a-fA-F\s]+)>/g)) {
      const digits = hex!.replace(/\s/g, '');
      for (let i = 0; i + 4 <= digits.length; i += 4) yield parseInt(digits.slice(i, i + 4), 16);
    }
  }
}

/** Letters without a glyph, and letters in all. */
export function missingGlyphs(bytes: Uint8Array): { readonly missing: number; readonly letters: number } {
  let missing = 0;
  let letters = 0;
  for (const glyph of glyphsOf(bytes)) {
    letters += 1;
    if (glyph === NOT_DEFINED) missing += 1;
  }
  return { missing, letters };
}
