/** One phrase to one SVG, in whichever thread this runs. */
import { LRUCache } from 'lru-cache';
import { filled, templateOf, type Template } from './annotate';
import { clefsWidth, fitsOnOneSystem } from './fits';
import { measureSpans } from './geometry';
import { NEW_LINE, type Sheet } from './sheet';
import { parseSvg } from './svg';
import { toolkit } from './toolkit';

/** CSS pixels of one engraver unit: staff height comes out at about 30 px at scale 1. */
const SCALE = 42;

class EngravingError extends Error {
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
  svgFormatRaw: true,
  // Its texts are set in faces of ours: see clean() in annotate.ts.
  smuflTextFont: 'none',
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

/** Templates by the music that they show: another finger, and the same phrase elsewhere, need no new one. */
let mostPictures = 300;
let kept: LRUCache<string, Template> | undefined;
const templatesKept = (): LRUCache<string, Template> => (kept ??= new LRUCache({ max: mostPictures }));

/** Sets how many pictures are kept as templates in this thread; said before the first is drawn. */
export const keepPictures = (most: number): void => void (mostPictures = most);

/** Where the engraver looks for line breaks: nowhere if it need not, which is half of its time. */
function breaksOf(sheet: Sheet): 'encoded' | 'none' | 'auto' {
  if (sheet.isBroken) return sheet.xml.includes(NEW_LINE) ? 'encoded' : 'none';
  return fitsOnOneSystem(sheet) ? 'none' : 'auto';
}

async function templateFor(sheet: Sheet): Promise<Template> {
  const { xml, width, measures, notes, counts, degrees, namesNoChords, sung } = sheet;
  const [first] = measures;
  const start = first?.start ?? 0;
  const key = `${width} ${JSON.stringify([
    first?.number === '0',
    measures.map((m) => [m.start - start, m.end - start]),
    degrees,
    namesNoChords,
    sung?.map((s) => [s.tick - start, s.text]),
    Object.values(notes).flatMap((n) => n.name ?? []),
    counts.map((c) => [c.tick - start, c.measure - (first?.index ?? 0), c.text, c.kind]),
  ])} ${xml}`;
  const templates = templatesKept();
  const known = templates.get(key);
  if (known) return known;
  const verovio = await toolkit();
  if (widthNow !== width) verovio.setOptions({ ...OPTIONS, pageWidth: (width * 100) / SCALE });
  widthNow = width;
  // Loaded without line breaks the music is laid out once and not twice; given breaks again it is justified all the same.
  const breaks = breaksOf(sheet);
  verovio.setOptions({ breaks });
  const isLoaded = verovio.loadData(xml);
  if (breaks === 'none') verovio.setOptions({ breaks: OPTIONS.breaks });
  if (!isLoaded) throw new EngravingError('The engraver could not read this phrase.');
  const template = templateOf(verovio.renderToSVG(1), sheet);
  templates.set(key, template);
  return template;
}

/** Draws a sheet. Rejects with EngravingError when the engraver cannot read it. */
export const engrave = async (sheet: Sheet): Promise<string> => filled(await templateFor(sheet), sheet);

/** What the measures of a sheet take on one line without being stretched, and the clefs and signature of every line, in CSS pixels at scale 1. */
export interface NaturalWidths {
  readonly clefs: number;
  readonly measures: readonly number[];
}

const MOST_WIDTHS = 300;
const natural = new LRUCache<string, NaturalWidths>({ max: MOST_WIDTHS });

/** Rejects with EngravingError when the engraver cannot read the sheet. */
export async function naturalWidths(sheet: Sheet): Promise<NaturalWidths> {
  const known = natural.get(sheet.xml);
  if (known) return known;
  const verovio = await toolkit();
  verovio.setOptions({ ...OPTIONS, pageWidth: (sheet.width * 100) / SCALE, breaks: 'none' });
  widthNow = undefined;
  if (!verovio.loadData(sheet.xml)) throw new EngravingError('The engraver could not read this music.');
  const clefs = clefsWidth(sheet);
  const spans = measureSpans(parseSvg(verovio.renderToSVG(1)));
  const measures = spans.map(({ left, right }, i) => {
    const width = ((right - left) * SCALE) / 1000;
    return i === 0 ? Math.max(width / 4, width - clefs) : width;
  });
  natural.set(sheet.xml, { clefs, measures });
  return { clefs, measures };
}
