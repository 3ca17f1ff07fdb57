/** A `<note>` element apart from its place in time: pitch and marks. */
import { STEPS, type Pitch, type Step } from '../../../theory/pitch';
import {
  ARTICULATIONS,
  ORNAMENTS,
  type Articulation,
  type Lyric,
  type Note,
  type Ornament,
  type Slur,
  type Tuplet,
  type TupletBracket,
} from '../../../score/score';
import { NOTE_TYPES } from './readDirection';
import { child, childrenOf, numberOf, textOf, type XmlElement } from './xml';

/** The written pitch; undefined where the element names none. */
export function readPitch(element: XmlElement | undefined): Pitch | undefined {
  const step = textOf(element, 'step')?.toUpperCase() as Step | undefined;
  const octave = numberOf(element, 'octave');
  if (!step || !STEPS.includes(step) || octave === undefined) return undefined;
  return { step, alter: Math.round(numberOf(element, 'alter') ?? 0), octave: Math.round(octave) };
}

/** Duration in quarter notes from the note's type, dots and tuplet, for files that leave `<duration>` out. */
export function impliedDuration(note: XmlElement): number {
  const type = NOTE_TYPES[textOf(note, 'type') ?? ''];
  if (!type) return 0;
  const dots = childrenOf(note, 'dot').length;
  const tuplet = tupletOf(note);
  return ((4 / type) * (2 - 1 / 2 ** dots) * (tuplet?.normal ?? 1)) / (tuplet?.actual ?? 1);
}

function tupletOf(note: XmlElement): Tuplet | undefined {
  const modification = child(note, 'time-modification');
  const actual = numberOf(modification, 'actual-notes');
  const normal = numberOf(modification, 'normal-notes');
  const isUsable = actual && normal && actual > 0 && normal > 0 && actual !== normal;
  return isUsable ? { actual, normal } : undefined;
}

/** The children of a note that hold what is neither pitch nor time. */
const HOLDS_MARKS = new Set(['notations', 'tie', 'time-modification', 'lyric', 'accidental']);

/** Everything about a note that is neither pitch nor time. `countsAbove`: counts take the first line of lyrics. */
export function readMarks(note: XmlElement, countsAbove: boolean): Partial<Note> {
  // Most notes of a large score have none.
  if (!note.children.some((c) => HOLDS_MARKS.has(c.name))) return {};
  const notations = childrenOf(note, 'notations').flatMap((n) => n.children);
  const named = (name: string): XmlElement[] => notations.filter((n) => n.name === name);
  const tie = readTie(note, named('tied'));
  const tuplet = tupletOf(note);
  const brackets = named('tuplet').flatMap(readBracket);
  const articulations = named('articulations')
    .flatMap((n) => n.children)
    .map((a) => a.name as Articulation)
    .filter((name) => ARTICULATIONS.includes(name));
  const ornaments = named('ornaments').flatMap(readOrnaments);
  const arpeggio = readArpeggio(named('arpeggiate')[0], named('non-arpeggiate')[0]);
  const slurs = named('slur').flatMap(readSlur);
  const lyrics = childrenOf(note, 'lyric').flatMap((l) => readLyric(l, countsAbove));
  const accidental = child(note, 'accidental');
  const inBrackets = ['cautionary', 'editorial', 'parentheses', 'bracket'].some(
    (name) => accidental?.attributes[name] === 'yes',
  );
  return {
    ...(tie ? { tie } : {}),
    ...(tuplet ? { tuplet } : {}),
    ...(brackets.length ? { brackets } : {}),
    ...(articulations.length ? { articulations: [...new Set(articulations)] } : {}),
    ...(ornaments.length ? { ornaments } : {}),
    ...(arpeggio ? { arpeggio } : {}),
    ...(named('fermata').length ? { fermata: true } : {}),
    ...(slurs.length ? { slurs } : {}),
    ...readFingers(named('technical').flatMap((t) => childrenOf(t, 'fingering'))),
    ...(lyrics.length ? { lyrics } : {}),
    // Whether the measure needs the accidental is known only when all of it has been read.
    ...(accidental ? { reminder: inBrackets ? 'brackets' : 'plain' } : {}),
  };
}

function readTie(note: XmlElement, tied: readonly XmlElement[]): Note['tie'] {
  const types = [...childrenOf(note, 'tie'), ...tied].map((t) => t.attributes.type);
  const starts = types.includes('start');
  const stops = types.includes('stop');
  return starts && stops ? 'both' : starts ? 'start' : stops ? 'stop' : undefined;
}

function readBracket(element: XmlElement): TupletBracket[] {
  const { type } = element.attributes;
  if (type !== 'start' && type !== 'stop') return [];
  const count = (name: string): number | undefined =>
    numberOf(child(element, name), 'tuplet-number') || undefined;
  const [actual, normal] = [count('tuplet-actual'), count('tuplet-normal')];
  return [
    {
      type,
      number: Number(element.attributes.number) || 1,
      ...(actual && normal ? { ratio: { actual, normal } } : {}),
    },
  ];
}

const ACCIDENTAL_ALTER: Readonly<Record<string, number>> = {
  'flat-flat': -2,
  flat: -1,
  natural: 0,
  sharp: 1,
  'double-sharp': 2,
};

/** Ornaments with the accidental that follows each of them. */
function readOrnaments(element: XmlElement): Ornament[] {
  const result: Ornament[] = [];
  for (const item of element.children) {
    const last = result.at(-1);
    if (item.name === 'accidental-mark') {
      const alter = ACCIDENTAL_ALTER[item.text.trim()];
      if (last && alter !== undefined) result[result.length - 1] = { ...last, alter };
      continue;
    }
    const kind = ORNAMENTS.find((name) => name === item.name);
    if (!kind) continue;
    const { type } = item.attributes;
    const beams = Number(item.text.trim());
    result.push({
      kind,
      ...((kind === 'tremolo' || kind === 'wavy-line') &&
      (type === 'single' || type === 'start' || type === 'stop' || type === 'continue')
        ? { type }
        : {}),
      ...(kind === 'tremolo' && beams >= 1 && beams <= 8 ? { beams } : {}),
    });
  }
  return result;
}

function readArpeggio(rolled: XmlElement | undefined, bracketed: XmlElement | undefined): Note['arpeggio'] {
  if (bracketed) return 'bracket';
  if (!rolled) return undefined;
  const { direction } = rolled.attributes;
  return direction === 'up' || direction === 'down' ? direction : 'plain';
}

function readSlur(element: XmlElement): Slur[] {
  const { type } = element.attributes;
  return type === 'start' || type === 'stop'
    ? [{ type, number: Number(element.attributes.number) || 1 }]
    : [];
}

const asFinger = (text: string | undefined): number | undefined =>
  text && /^[1-5]$/.test(text) ? Number(text) : undefined;

/** "3", or "3" with a substitution "1"; some programs write "3-1" or "3_1" in one. Alternatives are left out. */
function readFingers(elements: readonly XmlElement[]): Pick<Note, 'finger' | 'substitution'> {
  const own = elements.filter((e) => e.attributes.alternate !== 'yes');
  const first = own.find((e) => e.attributes.substitution !== 'yes')?.text.trim();
  const [before, after] = first?.split(/[-–_]/).map((t) => t.trim()) ?? [];
  const second = own.find((e) => e.attributes.substitution === 'yes')?.text.trim();
  const finger = asFinger(before);
  const substitution = asFinger(second ?? after);
  return {
    ...(finger ? { finger } : {}),
    ...(finger && substitution ? { substitution } : {}),
  };
}

/** Words below a note; several syllables on one note are joined. Counts are made anew and not read. */
function readLyric(element: XmlElement, countsAbove: boolean): Lyric[] {
  const texts = childrenOf(element, 'text').map((t) => t.text.trim());
  const text = texts.filter((t) => t).join('\u203f');
  if (!text || element.attributes.name === 'counts') return [];
  const syllabic = element.children
    .filter((c) => c.name === 'syllabic')
    .at(-1)
    ?.text.trim();
  const line = Number(/(\d+)\s*$/.exec(element.attributes.number ?? '')?.[1]) || 1;
  const verse = countsAbove && element.attributes.name === 'words' ? Math.max(1, line - 1) : line;
  return [
    {
      line: 'words',
      verse,
      text,
      syllabic: syllabic === 'begin' || syllabic === 'middle' || syllabic === 'end' ? syllabic : 'single',
      ...(child(element, 'extend') ? { extend: true } : {}),
    },
  ];
}
