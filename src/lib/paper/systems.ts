/** Music on paper: a stretch of a version engraved in lines, and each line as a block. */
import type { Places } from '$core/score/places';
import type { WrittenVersion } from '$core/version/realise';
import { engrave, naturalWidths } from '$lib/engrave/engrave';
import { WORDS } from '$lib/engrave/look';
import { sheetOf, type SheetWish } from '$lib/engrave/sheet';
import { element, elements, find, parseSvg, walk, type SvgElement } from '$lib/engrave/svg';
import { boxOf, union, type Box } from './boxes';
import { block, type Block } from './block';
import { linesOn, type Line } from './lines';
import { round } from './text';

/** What stands on the page of a sheet. */
export type Shown = Omit<SheetWish, 'width' | 'breaks' | 'metre'>;

/** How large the notes are: height of a staff in points (7, 8.5 and 11 mm). */
export const SIZES = {
  normal: { name: 'Normal', staff: 19.5 },
  large: { name: 'Large', staff: 24 },
  'very large': { name: 'Very large', staff: 31 },
} as const;

/** Height of a staff, and what a CSS pixel is at scale 1, in the engraver's units. */
const STAFF = 720;
const UNITS_PER_PIXEL = 1000 / 42;

interface System {
  readonly line: Line;
  readonly block: Block;
}

interface Wish extends Places {
  readonly show: Shown;
  /** Of the paper, in points. */
  readonly width: number;
  readonly staff: number;
  readonly metre?: boolean;
}

/** What the engraver leaves empty at both sides, in its units. */
const MARGINS = 600;

/** The width at which the engraver's staff comes out at a height of so many points. */
export const engravedWidth = (width: number, staff: number): number =>
  ((width / staff) * STAFF + MARGINS) / UNITS_PER_PIXEL;

/** A stretch of music as blocks, a line each. Notes are smaller where a measure by itself is wider than the paper. */
export async function systemsOf(version: WrittenVersion, wish: Wish): Promise<System[]> {
  const { from, to, fromBeat, toBeat, show, metre = false } = wish;
  const places = { from, to, fromBeat, toBeat };
  const wanted = engravedWidth(wish.width, wish.staff);
  const plain = { ...show, width: wanted, metre };
  const natural = await naturalWidths(sheetOf(version, places, plain));
  const { form, score } = version;
  const room = wanted - MARGINS / UNITS_PER_PIXEL;
  const lines = linesOn({ form, measures: score.measures }, { from, to }, natural, room);
  const width = Math.min(4000, wanted / Math.min(1, ...lines.map((l) => l.ratio)));
  const breaks = lines.map((l) => l.from);
  const sheet = sheetOf(version, places, { ...plain, width, breaks });
  return systemsIn(await engrave(sheet), wish.width, width, lines);
}

/** Room left above and below a system, in the engraver's units. */
const AIR = 60;
const GAP = 10;

/** A picture of several lines, engraved so many CSS pixels wide, parted into them: each as wide as the paper. */
export function systemsIn(svg: string, paper: number, css: number, lines: readonly Line[]): System[] {
  const scale = paper / (css * UNITS_PER_PIXEL - MARGINS);
  const root = parseSvg(svg);
  const margin = find(root, (at) => at.attributes.class === 'page-margin')!;
  const parts = elements(margin).filter((at) => at.attributes.class !== 'measure-area');
  const staves = elements(margin).filter((at) => at.attributes.class === 'measure');
  const bands = bandsOf(staves);
  const own = bands.map((): { at: SvgElement; box: Box }[] => []);
  for (const at of parts) {
    const box = boxOf(at);
    if (box) own[nearest(bands, (box.top + box.bottom) / 2)]!.push({ at, box });
  }
  return own.flatMap((list, i): System[] => {
    const box = union(list.map((l) => l.box));
    const line = lines[i];
    if (!box || !line) return [];
    const top = box.top - AIR;
    const height = (box.bottom + AIR - top) * scale;
    const drawn = element(
      'g',
      {
        transform: `scale(${scale.toFixed(6)}) translate(0, ${round(-top)})`,
        stroke: 'currentColor',
        'stroke-width': 1,
        'font-family': WORDS,
      },
      ...list.map((l) => l.at),
    );
    return [
      {
        line,
        block: block({ height, drawn: [drawn], gap: GAP, isSystem: true }),
      },
    ];
  });
}

interface Band {
  top: number;
  bottom: number;
}

/** Where each system's staves lie: measures of one system stand side by side. */
function bandsOf(measures: readonly SvgElement[]): Band[] {
  const bands: (Band & { left: number })[] = [];
  for (const measure of measures) {
    const box = union(
      [...walk(measure)].flatMap((at) => {
        if (at.attributes.class !== 'staff') return [];
        const lines = elements(at)
          .filter((e) => e.name === 'path' && !e.attributes.transform)
          .slice(0, 1);
        return lines.flatMap((e) => boxOf(e) ?? []);
      }),
    );
    if (!box) continue;
    const last = bands.at(-1);
    if (last && box.left > last.left) {
      last.top = Math.min(last.top, box.top);
      last.bottom = Math.max(last.bottom, box.bottom);
      last.left = box.left;
    } else bands.push({ top: box.top, bottom: box.bottom, left: box.left });
  }
  return bands;
}

function nearest(bands: readonly Band[], y: number): number {
  const away = ({ top, bottom }: Band): number => Math.max(top - y, y - bottom, 0);
  let best = 0;
  bands.forEach((band, i) => {
    if (away(band) < away(bands[best]!)) best = i;
  });
  return best;
}
