/**
 * The idiom of a piece: what its kind of music asks of an accompaniment before any level does. It is seen by what the source says
 * of itself, then by what its hands do; where nothing speaks for one there is none.
 */
import { feelOf } from '../counting/feel';
import { beatLength, isCompound, measureLength, placeInMeasure, pulseLength } from '../score/metre';
import { byMeasure, byOnset, soundingNotes, type SoundingNote } from '../score/query';
import type { Measure, Score } from '../score/score';
import {
  isBossa,
  isBroken,
  isFigureThroughout,
  isInPulses,
  isLowThenChord,
  isMelodic,
  isQuicklyBroken,
  isRunning,
  isTango,
  isWalking,
  shareOf,
  type InMeasure,
} from './figures';
import { idiomNamed, type Idiom } from './idioms';

export interface SeenIdiom {
  readonly idiom: Idiom;
  /** By what it is seen: "it says so above the music"; empty where none is. */
  readonly because: string;
}

/** Share of the measures that must have a figure for it to be the piece's. */
const MOST_MEASURES = 0.5;
/** Quarter notes a minute up to which a piece is slow. */
const SLOW = 84;
/** Share of the measures in which both hands must have a line for the piece to be in two voices, and the rhythms that the lower one has at least. */
const MOST_VOICES = 0.7;
const FEWEST_RHYTHMS = 3;
/** Fewest voices of a hymn, and the share of its strokes in which they move together. */
const [FEWEST_VOICES, TOGETHER] = [3, 0.7];
/** Syncopated strokes of the tune to a measure, from which a march is a rag. */
const RAGGED = 0.75;

/** The idiom of a source. */
export function idiomOf(score: Score): SeenIdiom {
  const words = score.parts.flatMap((p) =>
    (p.marks ?? []).flatMap((m) => (m.kind === 'words' ? [m.text] : [])),
  );
  const said = words.map(idiomNamed).find((idiom) => idiom !== undefined);
  if (said) return { idiom: said, because: 'it is marked above the music' };
  // A title names its kind at its end, or before what it is of: a tune about a march is none.
  const titled = idiomNamed(
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
  const left = (holds: InMeasure): number => (hands ? shareOf(measures, hands.left, holds) : 0);
  const right = (holds: InMeasure): number => (hands ? shareOf(measures, hands.right, holds) : 0);
  if (left(isTango) > MOST_MEASURES)
    return { idiom: 'tango', because: 'its left hand has a dotted note, a short one and two even ones' };
  const lows = left(isLowThenChord);
  if (lows > MOST_MEASURES && !isCompound(time)) {
    if (beats === 3) return { idiom: 'waltz', because: 'its left hand has a low note and the chord twice' };
    if (beats === 2 || beats === 4) {
      const ragged = measures.length > 0 ? syncopations(score, hands!.right) / measures.length : 0;
      return ragged >= RAGGED
        ? { idiom: 'rag', because: 'a syncopated melody over low notes alternating with chords' }
        : { idiom: 'march', because: 'its left hand alternates low notes and chords' };
    }
  }
  if (left(isBossa) > MOST_MEASURES)
    return { idiom: 'bossa', because: 'each half of its measures is pushed by the bass' };
  if (left(isWalking) > MOST_MEASURES)
    return { idiom: 'walking', because: 'its left hand walks in even notes' };
  if (Math.max(left(isRunning), right(isRunning)) > MOST_MEASURES)
    return { idiom: 'study', because: 'it runs in scales' };
  if (right(isQuicklyBroken) > MOST_MEASURES)
    return { idiom: 'prelude', because: 'its chords are broken between the hands' };
  if (hands && isFigureThroughout(measures, hands.left, MOST_MEASURES))
    return { idiom: 'riff', because: 'one figure repeats in the left hand' };
  // Players who strike together are an arrangement, voices that do are a hymn.
  const isBand = score.parts.some((p) => p.role === 'other' && p.instrument !== undefined);
  if (!isBand && isHymn(notes, hands)) return { idiom: 'hymn', because: 'all its voices move together' };
  if (
    hands &&
    left(isMelodic) > MOST_VOICES &&
    right(isMelodic) > MOST_VOICES &&
    isVaried(measures, hands.left)
  )
    return { idiom: 'voices', because: 'each hand plays a melody' };
  const isSung = score.parts.some((p) => p.notes.some((n) => n.lyrics?.some((l) => l.line === 'words')));
  const isSlow = score.tempo > 0 && score.tempo <= SLOW;
  if (isSlow && (isSung || (hands !== undefined && shareOf(measures, hands.left, isBroken) > MOST_MEASURES)))
    return { idiom: 'ballad', because: isSung ? 'a slow song' : 'slow, over broken chords' };
  if (
    isCompound(time) &&
    !isSlow &&
    !isSung &&
    shareOf(measures, hands?.right ?? notes, isInPulses) > MOST_MEASURES
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

/** Voices that strike together, hardly ever one alone; of two hands neither has chords under a line of the other. */
function isHymn(notes: readonly SoundingNote[], hands: Hands | undefined): boolean {
  const strokes = byOnset(notes);
  if (strokes.length < 8) return false;
  const keys = (list: readonly SoundingNote[]): number => new Set(list.map((n) => n.midi)).size;
  const tones = (list: readonly SoundingNote[]): number => new Set(list.map((n) => n.midi % 12)).size;
  const thick = strokes.filter((s) => keys(s.notes) >= FEWEST_VOICES && tones(s.notes) > 1);
  if (thick.length / strokes.length < TOGETHER) return false;
  if (!hands) return true;
  const [right, left] = [hands.right, hands.left].map((hand) => byOnset(hand));
  const share = (own: typeof strokes, holds: (count: number) => boolean): number =>
    own.filter((s) => holds(s.notes.length)).length / Math.max(1, own.length);
  return share(right!, (n) => n >= 2) >= MOST_MEASURES && share(left!, (n) => n <= 2) >= TOGETHER;
}

/** A line whose measures do not all have the same rhythm. */
function isVaried(measures: readonly Measure[], notes: readonly SoundingNote[]): boolean {
  const rhythms = byMeasure(measures, notes)
    .filter((own) => own.length > 0)
    .map((own) => own.map((n) => `${n.onset - own[0]!.onset}/${n.duration}`).join());
  return rhythms.length >= 4 && new Set(rhythms).size >= FEWEST_RHYTHMS;
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
