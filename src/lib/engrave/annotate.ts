/**
 * Puts our own marks into the engraver's picture: finger badges (round for the right hand, square for the left; outlined where
 * proposed, filled where decided), counts with their held beats, measure numbers, and an area behind each measure that can be
 * chosen. The picture carries its own colours and faces as attributes, so it is whole wherever it stands; a page's style sheet
 * says only what changes while one works (app.css). Works on the tree of the SVG, the same in a worker and on the server.
 */
import { clearChords, clearPedals, clearWords } from './clear';
import { fitted, type PlacedCount } from './fitCounts';
import { geometryOf, HALF_NOTEHEAD, labelOf, type Geometry, type MeasureBox } from './geometry';
import { HAND_COLOURS, HELD, INK, liftOf, MONO, PAPER, QUIET, SANS, WORDS } from './look';
import type { Sheet } from './sheet';
import { classOf, element, elements, escaped, find, parseSvg, walk, writeSvg, type SvgElement } from './svg';
import { drawSigns, simplify } from './tidy';
import { wordWidth } from './wordWidth';

const COUNT_SIZE = 420;
/** Held beats and rests are smaller as well as lighter. */
const HELD_SIZE = 340;
const WORD_SIZE = 300;
/** Left-hand badges stand a little off the notes above them. */
const BADGE_GAP = 90;
/** Height of one badge in a stack. */
const BADGE_STEP = 360;

/**
 * A picture with everything in it but what may differ where the same phrase comes again, and where another finger is chosen: its
 * badges, the ids of its notes, its measures' places and numbers. None of that needs a new picture.
 */
export interface Template {
  /** The text of the SVG; every other piece says what goes there. */
  readonly pieces: readonly string[];
  readonly badges: readonly { readonly note: string; readonly x: number; readonly y: number }[];
}

/** Around what is filled in. No text of a picture holds this character: XML forbids it. */
const EDGE = '\u0001';
const hole = (what: 'badge' | 'id' | 'measure' | 'number', which: string | number): string =>
  `${EDGE}${what} ${which}${EDGE}`;

/** Puts the sheet's marks into the engraver's picture, and leaves room for its badges. */
export function templateOf(svg: string, sheet: Sheet): Template {
  const root = parseSvg(svg);
  const geometry = geometryOf(root);
  const badges = placeBadges(geometry, sheet);
  clearWords(root, geometry);
  clearChords(root, badges);
  clearPedals(root, geometry, badges, (note) => sheet.notes[note]?.hand === 'left');
  clean(root, sheet);
  const margin = find(root, (at) => at.attributes.class === 'page-margin');
  if (margin) {
    margin.attributes.stroke = 'currentColor';
    margin.children = [
      ...geometry.measures.flatMap((box, i) => (sheet.measures[i] ? measureArea(box, i) : [])),
      ...margin.children,
      ...countMarks(geometry, sheet),
      ...sungWords(geometry, sheet),
      ...namesInHeads(geometry, sheet),
      ...geometry.measures.flatMap((box, i) => {
        const isFirst = box.system !== geometry.measures[i - 1]?.system;
        // A pickup has no number of its own.
        return isFirst && sheet.measures[i] && sheet.measures[i].number !== '0'
          ? [measureNumber(box, hole('number', i))]
          : [];
      }),
    ];
  }
  root.attributes.color = INK;
  const scaled = find(root, (at) => at.attributes.class === 'definition-scale');
  if (scaled) scaled.attributes['font-family'] = WORDS;
  // The engraver names each picture by chance: the same music is the same picture, wherever it is made.
  delete root.attributes.id;
  drawSigns(root);
  simplify(root, (name) => hole('id', name));
  return { pieces: writeSvg(root).split(EDGE), badges };
}

/** The picture of a sheet: its fingers, ids and numbers in the template of its music. */
export function filled({ pieces, badges }: Template, sheet: Sheet): string {
  const fillings: Readonly<Record<string, (which: string) => string>> = {
    badge: (which) => {
      const badge = badges[Number(which)]!;
      const note = sheet.notes[badge.note];
      return writeSvg(badgeOf(badge, note, !sheet.alike && note?.decided === true));
    },
    id: (name) => escaped(sheet.notes[name]?.id ?? name),
    measure: (place) => String(sheet.measures[Number(place)]!.index),
    number: (place) => escaped(sheet.measures[Number(place)]!.number),
  };
  return pieces
    .map((piece, i) => {
      if (i % 2 === 0) return piece;
      const [what = '', which = ''] = piece.split(' ');
      return fillings[what]!(which);
    })
    .join('');
}

/** Accidentals in chord names, by the places that the engraver's music font gives them. */
const TEXT_ACCIDENTALS: Readonly<Record<string, string>> = {
  '\uEA63': '𝄫',
  '\uEA64': '♭',
  '\uEA65': '♮',
  '\uEA66': '♯',
  '\uEA67': '𝄪',
};

/** Notes and dots of tempo marks, by the places that the engraver's music font gives them: elsewhere nobody has them. */
const TEXT_NOTES: Readonly<Record<string, string>> = {
  '\uECA2': '\u{1D15D}',
  '\uECA3': '\u{1D15E}',
  '\uECA4': '\u{1D15E}',
  '\uECA5': '\u{1D15F}',
  '\uECA6': '\u{1D15F}',
  '\uECA7': '\u{1D160}',
  '\uECA8': '\u{1D160}',
  '\uECA9': '\u{1D161}',
  '\uECAA': '\u{1D161}',
  '\uECAB': '\u{1D162}',
  '\uECAC': '\u{1D162}',
  '\uECB7': '.',
};
const IN_TEXT: Readonly<Record<string, string>> = { ...TEXT_ACCIDENTALS, ...TEXT_NOTES };

const BOLD = new Set(['ending', 'reh', 'tempo']);
const ITALIC = new Set(['dir', 'dynam']);

/** Faces as attributes; and what the engraver wrote and we write ourselves is taken away, the room kept for it stays. */
function clean(root: SvgElement, { degrees = [], namesNoChords }: Sheet): void {
  let chords = 0;
  const visit = (at: SvgElement): void => {
    at.children = at.children.filter((child) => typeof child === 'string' || !isOwnText(child));
    const kind = classOf(at);
    if (at.name === 'text' && !at.attributes.stroke) at.attributes.stroke = 'none';
    if (kind === 'tempo') tempoMark(at);
    if (kind === 'harm') chordName(at, degrees[chords++] ?? '', !namesNoChords);
    if (kind === 'verse' && labelOf(at) === 'names') noteName(at);
    if (BOLD.has(kind)) at.attributes['font-weight'] = 'bold';
    if (ITALIC.has(kind)) at.attributes['font-style'] = 'italic';
    for (const child of elements(at)) visit(child);
  };
  visit(root);
}

/** Notes in a tempo mark in signs that our faces have. */
function tempoMark(tempo: SvgElement): void {
  for (const at of walk(tempo)) {
    if (at.name !== 'text' && at.name !== 'tspan') continue;
    const hasSign = at.children.some((child) => typeof child === 'string' && /[\uEA00-\uEFFF]/.test(child));
    at.children = at.children.map((child) =>
      typeof child === 'string' ? child.replace(/[\uEA00-\uEFFF]/g, (sign) => IN_TEXT[sign] ?? '') : child,
    );
    if (hasSign) at.attributes['font-family'] = SANS;
  }
}

const isOwnText = (at: SvgElement): boolean =>
  at.name === 'style' ||
  classOf(at) === 'mNum' ||
  (classOf(at) === 'verse' && at.attributes['data-n'] === '1' && isCounts(at)) ||
  (classOf(at) === 'verse' && labelOf(at) === 'sung');

const isCounts = (verse: SvgElement): boolean => labelOf(verse) === 'counts';

/** Names of notes are set in our own face, lighter than the words. */
function noteName(verse: SvgElement): void {
  for (const at of walk(verse)) {
    if (at.name !== 'text' && at.name !== 'tspan') continue;
    at.attributes['font-family'] = SANS;
    at.attributes['font-style'] = 'normal';
    at.attributes.fill = QUIET;
    if (at.attributes['font-size'] && at.attributes['font-size'] !== '0px')
      at.attributes['font-size'] = '300px';
  }
}

const SIGN_SCALE = 1.25;

/** Chord names are set in our own face, in which the signs of the music font are not to be had. */
function chordName(harm: SvgElement, degree: string, isNamed: boolean): void {
  let size = '405';
  let lifted = 0;
  for (const at of walk(harm)) {
    if (at.name !== 'text' && at.name !== 'tspan') continue;
    const [sign] = at.children;
    const own = typeof sign === 'string' ? TEXT_ACCIDENTALS[sign] : undefined;
    const given = /^([1-9]\d*)px$/.exec(at.attributes['font-size'] ?? '')?.[1];
    if (own) {
      at.children = [own];
      // Signs are drawn small in their face.
      at.attributes['font-size'] = `${Math.round(Number(size) * SIGN_SCALE)}px`;
    } else if (given) size = given;
    if (typeof sign === 'string') {
      const lift = Math.round(liftOf(own ?? '') * Number(size));
      if (lift !== lifted) at.attributes.dy = String(lifted - lift);
      lifted = lift;
    }
    at.attributes['font-family'] = SANS;
    at.attributes['font-weight'] = '600';
  }
  const text = find(harm, (at) => at.name === 'text');
  if (!text || !degree) return;
  if (!isNamed) text.children = [];
  text.children.push(
    element(
      'tspan',
      {
        'font-family': SANS,
        'font-weight': isNamed ? '400' : '600',
        'font-size': `${isNamed ? 330 : 405}px`,
        fill: isNamed ? QUIET : INK,
        ...(isNamed ? { dx: '90', dy: String(lifted) } : {}),
      },
      degree,
    ),
  );
}

/** Takes the engraver's finger numbers away and says where our badges stand, in the order of the picture. */
function placeBadges({ fingers }: Geometry, sheet: Sheet): Template['badges'] {
  const places = badgePlaces(fingers, sheet);
  return fingers.map(({ note, at }, i) => {
    for (const key of Object.keys(at.attributes)) delete at.attributes[key];
    at.children = [hole('badge', i)];
    return { note, ...places.get(note)! };
  });
}

function badgeOf(
  { note: name, x, y }: Template['badges'][number],
  note: Sheet['notes'][string] | undefined,
  isDecided: boolean,
): SvgElement {
  const hand = note?.hand ?? 'right';
  const colour = HAND_COLOURS[hand];
  const look = { fill: isDecided ? colour : PAPER, stroke: colour, 'stroke-width': 22 };
  return element(
    'g',
    { class: `badge ${hand} ${isDecided ? 'decided' : 'proposed'}`, 'data-finger-of': note?.id ?? name },
    hand === 'left'
      ? element('rect', { x: x - 162, y: y - 166, width: 324, height: 332, rx: 50, ...look })
      : element('circle', { cx: x, cy: y, r: 178, ...look }),
    element(
      'text',
      {
        x,
        y: y + 102,
        'text-anchor': 'middle',
        'font-size': '290px',
        'font-family': SANS,
        'font-weight': 650,
        fill: isDecided ? PAPER : colour,
        stroke: 'none',
      },
      String(note?.finger ?? ''),
    ),
  );
}

function badgePlaces(fingers: Geometry['fingers'], sheet: Sheet): Map<string, { x: number; y: number }> {
  const columns = new Map<string, { id: string; midi: number; x: number; y: number }[]>();
  for (const { note: id, x, y } of fingers) {
    const note = sheet.notes[id];
    const key = note ? `${note.hand}${note.onset}` : id;
    columns.set(key, [...(columns.get(key) ?? []), { id, midi: note?.midi ?? 0, x, y }]);
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

/** Room of a repeat sign, or of a double barline, inside its measure. */
const REPEAT_WIDTH = 260;

function countMarks(geometry: Geometry, sheet: Sheet): SvgElement[] {
  if (sheet.counts.length === 0) return [];
  const anchors = anchorsOf(geometry, sheet);
  const placed = sheet.counts.flatMap(({ measure, tick, kind, text }): PlacedCount[] => {
    const place = sheet.measures.findIndex((m) => m.index === measure);
    const box = geometry.measures[place];
    if (!box) return [];
    const { repeatStart, thickEnd } = sheet.measures[place]!;
    const room = {
      left: box.left + (repeatStart ? REPEAT_WIDTH : 0),
      right: box.right - (thickEnd ? REPEAT_WIDTH : 0),
    };
    // Words such as “trip let” are set smaller than numbers: they share a beat.
    const size = kind !== 'onset' ? HELD_SIZE : text.length > 2 ? WORD_SIZE : COUNT_SIZE;
    const y = geometry.countY.get(box.system) ?? box.upperBottom + 620;
    return [{ text, kind, size, x: interpolate(anchors[place]!, tick), y, ...room }];
  });
  return fitted(placed).map(({ kind, x, y, size, text }) =>
    element(
      'text',
      {
        class: `count ${kind}`,
        x: Math.round(x),
        y,
        'text-anchor': 'middle',
        'font-size': `${size}px`,
        'font-family': MONO,
        fill: kind === 'onset' ? INK : HELD,
        stroke: 'none',
      },
      text,
    ),
  );
}

/** Heads that hold a name are a little larger than the engraver's, which they cover; a name with its sign is set smaller. */
const NAMED_HEAD = { rx: 146, ry: 102, line: 26 } as const;
const HEAD_SIZE = { letter: 210, signed: 150 } as const;
/** Of the size: from the middle of a capital letter down to its line. */
const HALF_CAPITAL = 0.335;

function namesInHeads({ heads }: Geometry, { notes }: Sheet): SvgElement[] {
  return Object.entries(notes).flatMap(([id, { name }]) => {
    const head = heads.get(id);
    if (!head || name === undefined) return [];
    const size = name.length > 1 ? HEAD_SIZE.signed : HEAD_SIZE.letter;
    return [
      element('ellipse', {
        class: 'named-head',
        cx: head.x,
        cy: head.y,
        rx: NAMED_HEAD.rx,
        ry: NAMED_HEAD.ry,
        fill: head.isFilled ? INK : PAPER,
        stroke: INK,
        'stroke-width': NAMED_HEAD.line,
      }),
      element(
        'text',
        {
          class: 'in-head',
          x: head.x,
          y: Math.round(head.y + size * HALF_CAPITAL),
          'text-anchor': 'middle',
          'font-size': `${size}px`,
          'font-family': SANS,
          'font-weight': 700,
          fill: head.isFilled ? PAPER : INK,
          stroke: 'none',
        },
        name,
      ),
    ];
  });
}

const SUNG_SIZE = 405;
const WORD_GAP = 130;

/** The words of a chart, each at its beat, on one line across a system; what would touch gives way to the right. */
function sungWords(geometry: Geometry, sheet: Sheet): SvgElement[] {
  if (!sheet.sung) return [];
  const anchors = anchorsOf(geometry, sheet);
  const ends = new Map<number, number>();
  return sheet.sung.flatMap(({ tick, text }) => {
    const place = sheet.measures.findIndex((m) => tick >= m.start && tick < m.end);
    const box = geometry.measures[place];
    const y = box && geometry.sungY.get(box.system);
    if (!box || y === undefined) return [];
    const wanted = interpolate(anchors[place]!, tick) - HALF_NOTEHEAD;
    const x = Math.max(wanted, (ends.get(box.system) ?? -Infinity) + WORD_GAP);
    ends.set(box.system, x + wordWidth(text) * SUNG_SIZE);
    return [
      element(
        'text',
        {
          class: 'sung',
          x: Math.round(x),
          y,
          'font-size': `${SUNG_SIZE}px`,
          'font-family': WORDS,
          fill: INK,
          stroke: 'none',
        },
        text,
      ),
    ];
  });
}

/** For each measure where ticks stand: at its notes, and at its right barline. */
function anchorsOf(geometry: Geometry, sheet: Sheet): { tick: number; x: number }[][] {
  return sheet.measures.map((measure, i) => {
    const box = geometry.measures[i];
    if (!box) return [];
    const byTick = new Map<number, number>();
    for (const [id, note] of Object.entries(sheet.notes)) {
      const x = geometry.heads.get(id)?.x;
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

const measureArea = (box: MeasureBox, place: number): SvgElement[] => [
  element('rect', {
    class: 'measure-area',
    'data-measure': hole('measure', place),
    x: box.left,
    y: box.top - 760,
    width: box.right - box.left,
    height: box.bottom - box.top + 1620,
    fill: 'transparent',
    stroke: 'none',
  }),
];

const measureNumber = (box: MeasureBox, number: string): SvgElement =>
  element(
    'text',
    {
      class: 'measure-number',
      x: box.left - 60,
      y: box.top - 260,
      'text-anchor': 'start',
      'font-size': '300px',
      'font-family': MONO,
      fill: QUIET,
      stroke: 'none',
    },
    number,
  );
