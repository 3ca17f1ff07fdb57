/**
 * Pictures of sheets, one after the other, always in the quick lane: the engraver's own memory, which no limit holds, is then there
 * once, and pages are drawn between the phrases of a long piece.
 */
import type { Sheet } from '$lib/engrave/sheet';
import { work } from '.';
import type { Asked } from './work';

export async function drawn(sheets: readonly Sheet[], asked: Asked): Promise<string[]> {
  const pictures: string[] = [];
  for (const [i, sheet] of sheets.entries())
    pictures.push(await work('draw', { sheet, share: i / sheets.length }, { ...asked, isLong: false }));
  return pictures;
}
