/** One phrase to one SVG, in whichever thread this runs. */
import { LRUCache } from 'lru-cache';
import { annotate } from './annotate';
import type { Sheet } from './sheet';
import { toolkit } from './toolkit';

/** CSS pixels of one engraver unit: staff height comes out at about 30 px at scale 1. */
const SCALE = 42;

export class EngravingError extends Error {
  override readonly name = 'EngravingError';
}

/** Everything but the width is the same for every sheet: setting options costs the engraver as much as drawing a phrase. */
const OPTIONS = {
  pageHeight: 60_000,
  scale: SCALE,
  adjustPageHeight: true,
  breaks: 'auto',
  header: 'none',
  footer: 'none',
  svgViewBox: true,
  svgHtml5: true,
  svgAdditionalAttribute: ['fing@startid', 'verse@n'],
  minLastJustification: 0,
  fingeringScale: 0.95,
  lyricSize: 4.5,
  lyricTopMinMargin: 3,
  lyricNoStartHyphen: true,
  spacingStaff: 10,
  spacingSystem: 6,
  spacingNonLinear: 0.6,
  pageMarginLeft: 40,
  pageMarginRight: 20,
  pageMarginTop: 40,
  pageMarginBottom: 40,
  topMarginHarm: 2,
  pedalStyle: 'line',
  xmlIdSeed: 1,
} as const;

let widthNow: number | undefined;

/** Pictures without marks, by the music and the width: another finger, or a decided one, needs no new one. */
const MOST_PICTURES = 300;
const pictures = new LRUCache<string, string>({ max: MOST_PICTURES });

async function drawn({ xml, width }: Sheet): Promise<string> {
  const key = `${width} ${xml}`;
  const known = pictures.get(key);
  if (known) return known;
  const verovio = await toolkit();
  if (widthNow !== width) verovio.setOptions({ ...OPTIONS, pageWidth: (width * 100) / SCALE });
  widthNow = width;
  if (!verovio.loadData(xml)) throw new EngravingError('The engraver could not read this phrase.');
  const svg = verovio.renderToSVG(1);
  pictures.set(key, svg);
  return svg;
}

/** Draws a sheet. Rejects with EngravingError when the engraver cannot read it. */
export const engrave = async (sheet: Sheet): Promise<string> => annotate(await drawn(sheet), sheet);
