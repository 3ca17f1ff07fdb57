/** One phrase to one SVG, in whichever thread this runs. */
import { annotate } from './annotate';
import type { Sheet } from './sheet';
import { toolkit } from './toolkit';

/** CSS pixels of one engraver unit: staff height comes out at about 30 px at scale 1. */
const SCALE = 42;

export class EngravingError extends Error {
  override readonly name = 'EngravingError';
}

/** Draws a sheet. Rejects with EngravingError when the engraver cannot read it. */
export async function engrave(sheet: Sheet): Promise<string> {
  const verovio = await toolkit();
  verovio.setOptions({
    pageWidth: (sheet.width * 100) / SCALE,
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
  });
  if (!verovio.loadData(sheet.xml)) throw new EngravingError('The engraver could not read this phrase.');
  return annotate(verovio.renderToSVG(1), sheet);
}
