/**
 * Puts our own marks into the engraver's picture: finger badges (round for the right hand, square for the left;
 * outlined where proposed, filled where decided), counts with their held beats, measure numbers, and an area behind
 * each measure that can be chosen. Works on the SVG's text, so that it runs in a worker and on the server alike.
 */
import { SaxesParser } from 'saxes';
import type { Sheet } from './sheet';

interface Geometry {
  /** Middle of each notehead by note id. */
  readonly noteX: ReadonlyMap<string, number>;
  readonly measures: readonly MeasureBox[];
  /** Baseline of the counts in each system. */
  readonly countY: ReadonlyMap<number, number>;
}

interface MeasureBox {
  readonly system: number;
  left: number;
  right: number;
  top: number;
  bottom: number;
  /** Bottom line of the upper staff. */
  upperBottom: number;
}

/** Half a notehead in the engraver's units. */
const HALF_NOTEHEAD = 113;
const COUNT_SIZE = 420;
/** Held beats and rests are smaller as well as lighter. */
const HELD_SIZE = 340;
const WORD_SIZE = 300;
/** Of the size, in the monospaced face that counts are set in. */
const CHARACTER_WIDTH = 0.6;
const COUNT_GAP = 40;
/** Left-hand badges stand a little off the notes above them. */
const BADGE_GAP = 90;

/** Returns the SVG with the sheet's marks drawn in. */
export function annotate(svg: string, sheet: Sheet): string {
  const geometry = measureSvg(svg);
  const areas = geometry.measures.map((box, i) => measureArea(box, sheet.measures[i]));
  const marks = [
    ...countMarks(geometry, sheet),
    ...geometry.measures
      .slice(0, 1)
      .filter(() => sheet.measures[0]!.number !== '0') // a pickup has no number of its own
      .map((box) => measureNumber(box, sheet.measures[0]!.number)),
  ];
  return withMarks(withBadges(withoutOwnTexts(svg), sheet), areas.join(''), marks.join(''));
}

/** Reads where the engraver has put notes, staves and the lyric line. */
function measureSvg(svg: string): Geometry {
  const noteX = new Map<string, number>();
  const countY = new Map<number, number>();
  const measures: MeasureBox[] = [];
  const stack: { type: string; id: string }[] = [];
  let system = -1;
  let staffLines: number[] = [];
  let staffInMeasure = 0;
  const inside = (type: string): boolean => stack.some((s) => s.type === type);
  const parser = new SaxesParser();
  parser.on('opentag', (tag) => {
    const attributes = tag.attributes as Record<string, string>;
    const type = tag.name === 'g' ? (attributes['data-class'] ?? '') : '';
    const parent = stack.at(-1);
    if (type === 'system') system += 1;
    if (type === 'measure') {
      measures.push({ system, left: Infinity, right: 0, top: Infinity, bottom: 0, upperBottom: 0 });
      staffInMeasure = 0;
    }
    if (type === 'staff') {
      staffInMeasure += 1;
      staffLines = [];
    }
    const box = measures.at(-1);
    if (tag.name === 'path' && parent?.type === 'staff' && box) {
      const line = /^M(-?\d+) (-?\d+) L(-?\d+) (-?\d+)/.exec(attributes.d ?? '');
      if (line && line[2] === line[4]) {
        const y = Number(line[2]);
        staffLines.push(y);
        box.left = Math.min(box.left, Number(line[1]));
        box.right = Math.max(box.right, Number(line[3]));
        box.top = Math.min(box.top, y);
        box.bottom = Math.max(box.bottom, y);
        if (staffInMeasure === 1) box.upperBottom = Math.max(...staffLines);
      }
    }
    if (tag.name === 'use' && parent?.type === 'notehead') {
      const note = stack.findLast((s) => s.type === 'note');
      const at = /translate\((-?\d+)/.exec(attributes.transform ?? '');
      if (note && at && !noteX.has(note.id)) noteX.set(note.id, Number(at[1]) + HALF_NOTEHEAD);
    }
    if (tag.name === 'text' && inside('verse') && attributes.y) {
      // Line 1 is the counts': the uppermost verse.
      const y = Number(attributes.y);
      countY.set(system, Math.min(countY.get(system) ?? Infinity, y));
    }
    stack.push({ type, id: attributes['data-id'] ?? '' });
  });
  parser.on('closetag', () => void stack.pop());
  parser.write(svg).close();
  return { noteX, measures, countY };
}

/** Accidentals in chord names, by the places that the engraver's music font gives them. */
const TEXT_ACCIDENTALS: Readonly<Record<string, string>> = {
  '\uEA63': '𝄫',
  '\uEA64': '♭',
  '\uEA65': '♮',
  '\uEA66': '♯',
  '\uEA67': '𝄪',
};

/** Chord names are set in our own face, in which the signs of the music font are not to be had. */
const withTextAccidentals = (svg: string): string =>
  svg.replace(/<g [^>]*data-class="harm"[^>]*(?<!\/)>[\s\S]*?<\/g>/g, (harm) => {
    const size = /<tspan font-size="([1-9]\d*)px">/.exec(harm)?.[1] ?? '405';
    return harm.replace(
      /<tspan font-family="Leipzig" font-size="\d+px">([\uEA63-\uEA67])<\/tspan>/g,
      (_all, sign: string) => `<tspan font-size="${size}px">${TEXT_ACCIDENTALS[sign]}</tspan>`,
    );
  });

/** Takes away what the engraver wrote and we write ourselves: counts (the room kept for them stays) and measure numbers. */
const withoutOwnTexts = (svg: string): string =>
  withTextAccidentals(svg)
    // A style in every picture makes the browser style the whole page anew for each: ours has them once (app.css).
    .replace(/<style[\s\S]*?<\/style>/g, '')
    .replace(/<g [^>]*data-class="mNum"[^>]*(?<!\/)>[\s\S]*?<\/g>/g, '')
    .replace(
      /<g [^>]*data-class="verse"[^>]*data-n="1"[^>]*(?<!\/)>\s*<title class="labelAttr">counts<\/title>\s*<g [^>]*data-class="syl"[^>]*>\s*<text[\s\S]*?<\/text>\s*<\/g>\s*<\/g>/g,
      '',
    );

const FINGERING =
  /<g [^>]*data-class="fing"[^>]*data-startid="#([^"]+)"[^>]*(?<!\/)>\s*<text x="(-?\d+)" y="(-?\d+)"[^>]*>[\s\S]*?<tspan font-size="\d+px">(\d)<\/tspan>[\s\S]*?<\/text>\s*<\/g>/g;

/** Height of one badge in a stack. */
const BADGE_STEP = 345;

/** Redraws every finger number as a badge. The badges of a chord stand in one column in the order of its notes. */
function withBadges(svg: string, sheet: Sheet): string {
  const places = badgePlaces(svg, sheet);
  return svg.replace(FINGERING, (_all, id: string, _x: string, _y: string, finger: string) => {
    const note = sheet.notes[id];
    const { x, y } = places.get(id)!;
    const state = note?.decided ? 'decided' : 'proposed';
    const shape =
      note?.hand === 'left'
        ? `<rect x="${x - 162}" y="${y - 166}" width="324" height="332" rx="50"/>`
        : `<circle cx="${x}" cy="${y}" r="178"/>`;
    return `<g class="badge ${note?.hand ?? 'right'} ${state}" data-finger-of="${id}">${shape}<text x="${x}" y="${y + 102}" text-anchor="middle" font-size="290px">${finger}</text></g>`;
  });
}

function badgePlaces(svg: string, sheet: Sheet): Map<string, { x: number; y: number }> {
  const columns = new Map<string, { id: string; midi: number; x: number; y: number }[]>();
  for (const [, id, x, y] of svg.matchAll(FINGERING)) {
    const note = sheet.notes[id!];
    const key = note ? `${note.hand}${note.onset}` : id!;
    const badge = { id: id!, midi: note?.midi ?? 0, x: Number(x), y: Number(y) - 140 };
    columns.set(key, [...(columns.get(key) ?? []), badge]);
  }
  const places = new Map<string, { x: number; y: number }>();
  for (const column of columns.values()) {
    const isLeft = sheet.notes[column[0]!.id]?.hand === 'left';
    // The right hand's column grows upwards from its lowest note, the left hand's downwards from its highest.
    const ordered = [...column].sort((a, b) => (isLeft ? b.midi - a.midi : a.midi - b.midi));
    const ys = column.map((badge) => badge.y);
    const nearest = isLeft ? Math.min(...ys) + BADGE_GAP : Math.max(...ys);
    const x = Math.max(...column.map((badge) => badge.x));
    ordered.forEach(({ id }, i) => places.set(id, { x, y: nearest + (isLeft ? 1 : -1) * i * BADGE_STEP }));
  }
  return places;
}

function countMarks(geometry: Geometry, sheet: Sheet): string[] {
  if (sheet.counts.length === 0) return [];
  const anchors = anchorsOf(geometry, sheet);
  const placed = sheet.counts.flatMap((count) => {
    const place = sheet.measures.findIndex((m) => m.index === count.measure);
    const box = geometry.measures[place];
    if (!box) return [];
    // Words such as “trip let” are set smaller than numbers: they share a beat.
    const size = count.kind !== 'onset' ? HELD_SIZE : count.text.length > 2 ? WORD_SIZE : COUNT_SIZE;
    return [
      {
        ...count,
        size,
        half: (count.text.length * size * CHARACTER_WIDTH) / 2,
        x: interpolate(anchors[place]!, count.tick),
        y: geometry.countY.get(box.system) ?? box.upperBottom + 620,
      },
    ];
  });
  // Held beats give way to the onset after them; onsets stay under their notes.
  for (let i = placed.length - 2; i >= 0; i--) {
    const [here, next] = [placed[i]!, placed[i + 1]!];
    if (here.kind !== 'onset' && here.y === next.y)
      here.x = Math.min(here.x, next.x - next.half - here.half - COUNT_GAP);
  }
  return placed.map(
    ({ kind, x, y, size, text }) =>
      `<text class="count ${kind}" x="${Math.round(x)}" y="${y}" text-anchor="middle" font-size="${size}px">${text.replace('&', '&amp;')}</text>`,
  );
}

/** For each measure where ticks stand: at its notes, and at its right barline. */
function anchorsOf(geometry: Geometry, sheet: Sheet): { tick: number; x: number }[][] {
  return sheet.measures.map((measure, i) => {
    const box = geometry.measures[i];
    if (!box) return [];
    const byTick = new Map<number, number>();
    for (const [id, note] of Object.entries(sheet.notes)) {
      const x = geometry.noteX.get(id);
      if (x === undefined || note.onset < measure.start || note.onset >= measure.end) continue;
      // Where both hands play the upper staff's notehead counts: chords with seconds shift the others.
      if (!byTick.has(note.onset) || note.hand === 'right') byTick.set(note.onset, x);
    }
    const anchors = [...byTick].map(([tick, x]) => ({ tick, x }));
    if (!byTick.has(measure.start)) anchors.push({ tick: measure.start, x: box.left + 600 });
    anchors.push({ tick: measure.end, x: box.right });
    return anchors.sort((a, b) => a.tick - b.tick);
  });
}

function interpolate(anchors: readonly { tick: number; x: number }[], tick: number): number {
  const after = anchors.findIndex((a) => a.tick >= tick);
  if (after <= 0) return anchors[0]?.x ?? 0;
  const [a, b] = [anchors[after - 1]!, anchors[after]!];
  return a.x + ((b.x - a.x) * (tick - a.tick)) / (b.tick - a.tick);
}

const measureArea = (box: MeasureBox, measure: Sheet['measures'][number] | undefined): string =>
  measure
    ? `<rect class="measure-area" data-measure="${measure.index}" x="${box.left}" y="${box.top - 760}" width="${box.right - box.left}" height="${box.bottom - box.top + 1620}"/>`
    : '';

const measureNumber = (box: MeasureBox, number: string): string =>
  `<text class="measure-number" x="${box.left - 60}" y="${box.top - 260}" text-anchor="start" font-size="300px">${number.replace(/[<&]/g, '')}</text>`;

/** Areas go behind the music, marks in front of it. */
function withMarks(svg: string, behind: string, before: string): string {
  const margin = /<g class="page-margin"[^>]*>/.exec(svg);
  if (!margin) return svg;
  const start = margin.index + margin[0].length;
  const end = svg.lastIndexOf('</g>');
  return svg.slice(0, start) + behind + svg.slice(start, end) + before + svg.slice(end);
}
