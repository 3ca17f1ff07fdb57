/**
 * The idiom of a piece: what its kind of music asks of an accompaniment before any level does. It is seen by what the source says
 * of itself, then by what its hands do; where nothing speaks for one there is none.
 */
import { feelOf } from '../counting/feel';
import { beatLength, isCompound, measureLength, placeInMeasure, pulseLength } from '../score/metre';
import { byMeasure, byOnset, soundingNotes, type SoundingNote } from '../score/query';
import type { Measure, Score } from '../score/score';

export const IDIOMS = {
  waltz: { name: 'Waltz', says: 'a low note, then the chord twice' },
  march: { name: 'March', says: 'low notes alternating with chords, without pedal' },
  rag: { name: 'Rag', says: 'low notes alternating with chords under a syncopated tune, without pedal' },
  swing: { name: 'Swing', says: 'swung eighths over a walking or swinging bass' },
  hymn: { name: 'Hymn', says: 'all voices move together' },
  ballad: { name: 'Ballad', says: 'slow, over broken chords held by the pedal' },
  dance: { name: 'Dance', says: 'light on its beats, without pedal' },
  plain: { name: 'Plain', says: 'none of these' },
} as const satisfies Record<string, { readonly name: string; readonly says: string }>;

export type Idiom = keyof typeof IDIOMS;

export const IDIOM_IDS = Object.keys(IDIOMS) as Idiom[];

export interface SeenIdiom {
  readonly idiom: Idiom;
  /** By what it is seen: "it says so above the music"; empty where none is. */
  readonly because: string;
}

/** Words by which pieces name their kind, in several languages. */
const NAMES: readonly (readonly [RegExp, Idiom])[] = [
  [/\b(waltz|valse|walzer|vals)\b/i, 'waltz'],
  [/\b(rag|ragtime)\b/i, 'rag'],
  [/\b(march|marche|marcia|marsch|quickstep)\b/i, 'march'],
  [/\b(swing|swung|shuffle|blues|jazz)\b/i, 'swing'],
  [/\b(hymn|hymne|chorale?|choral|psalm|carol)\b/i, 'hymn'],
  [/\b(ballad|ballade|lullaby|berceuse|nocturne|slow air)\b/i, 'ballad'],
  [
    /\b(dance|tanz|danse|jig|reel|polka|hornpipe|gigue|minuet|menuet|menuett|gavotte|bourr[ée]e|mazurka|schottische|strathspey|galop|tango|l[äa]ndler|tarantella)\b/i,
    'dance',
  ],
];

const named = (text: string): Idiom | undefined => NAMES.find(([pattern]) => pattern.test(text))?.[1];

/** Share of the measures that must have a figure for it to be the piece's. */
const MOST_MEASURES = 0.5;
/** Quarter notes a minute up to which a piece is slow. */
const SLOW = 84;
/** Fewest voices of a hymn, and the share of its strokes in which they move together. */
const [FEWEST_VOICES, TOGETHER] = [3, 0.7];
/** Syncopated strokes of the tune to a measure, from which a march is a rag. */
const RAGGED = 0.75;

/** The idiom of a source. */
export function idiomOf(score: Score): SeenIdiom {
  const words = score.parts.flatMap((p) =>
    (p.marks ?? []).flatMap((m) => (m.kind === 'words' ? [m.text] : [])),
  );
  const said = words.map(named).find((idiom) => idiom !== undefined);
  if (said) return { idiom: said, because: 'it is marked above the music' };
  // A title names its kind at its end, or before what it is of: a tune about a march is none.
  const titled = named(
    [/\S+$/, /^\S+(?= (of|in|for|no)\b)/i]
      .map((place) => place.exec(score.title.trim())?.[0] ?? '')
      .join(' '),
  );
  if (titled) return { idiom: titled, because: 'its title says so' };
  return seenIn(score);
}

function seenIn(score: Score): SeenIdiom {
  const { measures } = score;
  if (measures.length === 0) return NONE;
  if (feelOf(score) === 'swing') return { idiom: 'swing', because: 'its eighths swing' };
  const notes = score.parts.flatMap((p) => soundingNotes(p.notes));
  const hands = handsOf(score);
  const time = measures[Math.floor(measures.length / 2)]!.time;
  const beats = measureLength(time) / beatLength(time);
  const lows = hands ? shareOf(measures, hands.left, isLowThenChord) : 0;
  if (lows > MOST_MEASURES && !isCompound(time)) {
    if (beats === 3) return { idiom: 'waltz', because: 'its left hand has a low note and the chord twice' };
    if (beats === 2 || beats === 4) {
      const ragged = measures.length > 0 ? syncopations(score, hands!.right) / measures.length : 0;
      return ragged >= RAGGED
        ? { idiom: 'rag', because: 'a syncopated tune over low notes alternating with chords' }
        : { idiom: 'march', because: 'its left hand alternates low notes and chords' };
    }
  }
  // Players who strike together are an arrangement, voices that do are a hymn.
  const isBand = score.parts.some((p) => p.role === 'other' && p.instrument !== undefined);
  if (!isBand && isHymn(notes)) return { idiom: 'hymn', because: 'all its voices move together' };
  const isSung = score.parts.some((p) => p.notes.some((n) => n.lyrics?.some((l) => l.line === 'words')));
  const isSlow = score.tempo > 0 && score.tempo <= SLOW;
  if (isSlow && (isSung || (hands !== undefined && shareOf(measures, hands.left, isBroken) > MOST_MEASURES)))
    return { idiom: 'ballad', because: isSung ? 'a slow song' : 'slow, over broken chords' };
  if (
    isCompound(time) &&
    !isSlow &&
    !isSung &&
    shareOf(measures, hands?.right ?? notes, isRunning) > MOST_MEASURES
  )
    return {
      idiom: 'dance',
      because: `running ${time.beatType === 8 ? 'eighths' : 'notes'} in groups of three`,
    };
  return NONE;
}

const NONE: SeenIdiom = { idiom: 'plain', because: '' };

interface Hands {
  readonly right: readonly SoundingNote[];
  readonly left: readonly SoundingNote[];
}

/** The hands of a source that has two staves for them. */
function handsOf(score: Score): Hands | undefined {
  const part =
    score.parts.find((p) => p.role === 'keyboard' && p.staves > 1) ?? score.parts.find((p) => p.staves > 1);
  if (!part) return undefined;
  const on = (staff: number): readonly SoundingNote[] =>
    soundingNotes(part.notes.filter((n) => n.staff === staff));
  return { right: on(1), left: on(2) };
}

type InMeasure = (measure: Measure, notes: readonly SoundingNote[]) => boolean;

/** Share of the measures with notes in which something holds. */
function shareOf(measures: readonly Measure[], notes: readonly SoundingNote[], holds: InMeasure): number {
  const full = byMeasure(measures, notes).flatMap((own, i) =>
    own.length > 0 && measures[i]!.beginsAt === 0 ? [holds(measures[i]!, own)] : [],
  );
  return full.length === 0 ? 0 : full.filter(Boolean).length / full.length;
}

/** A single low note (or an octave) on the first beat, and chords above it after it. */
const isLowThenChord: InMeasure = (measure, notes) => {
  const strokes = byOnset(notes);
  const [first, ...rest] = strokes;
  if (!first || rest.length === 0 || placeInMeasure(measure, first.onset) !== 0) return false;
  const low = Math.max(...first.notes.map((n) => n.midi));
  const isSingle = first.notes.every((n) => (low - n.midi) % 12 === 0);
  const chords = rest.filter((s) => s.notes.length > 1 && s.notes.every((n) => n.midi > low));
  return isSingle && chords.length > 0 && chords.length >= rest.length / 2;
};

/** Single notes one after another over at least a fifth. */
const isBroken: InMeasure = (_, notes) => {
  const strokes = byOnset(notes);
  const keys = notes.map((n) => n.midi);
  return (
    strokes.length >= 3 &&
    strokes.filter((s) => s.notes.length === 1).length >= strokes.length - 1 &&
    Math.max(...keys) - Math.min(...keys) >= 7
  );
};

/** More than half of it goes in pulses. */
const isRunning: InMeasure = (measure, notes) =>
  notes.filter((n) => n.duration <= pulseLength(measure.time)).length * pulseLength(measure.time) * 2 >
  measure.length;

/** Voices that strike together, hardly ever one alone. */
function isHymn(notes: readonly SoundingNote[]): boolean {
  const strokes = byOnset(notes);
  if (strokes.length < 8) return false;
  const thick = strokes.filter((s) => new Set(s.notes.map((n) => n.midi)).size >= FEWEST_VOICES);
  return thick.length / strokes.length >= TOGETHER;
}

/** Notes of the tune struck between beats that last over the next one, or off the pulse over the next. */
function syncopations(score: Score, tune: readonly SoundingNote[]): number {
  let count = 0;
  byMeasure(score.measures, tune).forEach((own, i) => {
    const measure = score.measures[i]!;
    const pulse = pulseLength(measure.time);
    for (const { onset, notes } of byOnset(own)) {
      const place = placeInMeasure(measure, onset);
      const unit = place % pulse === 0 ? beatLength(measure.time) : pulse;
      const inUnit = place % unit;
      if (inUnit > 0 && inUnit + Math.min(...notes.map((n) => n.duration)) > unit) count += 1;
    }
  });
  return count;
}
