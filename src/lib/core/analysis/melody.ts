/**
 * The melody of a source. A voice with words is the melody wherever it sings; elsewhere the keyboard's lines are weighed measure
 * by measure (how they move, how varied they are, how high they lie), and the best way through them is taken, so that a
 * melody in the left hand under repeated chords is found, and a line is not left for a single measure.
 */
import { cheapestPath } from '../cheapestPath';
import { endOf } from '../score/metre';
import { byMeasure, byOnset, keyboardPart, soundingNotes, type SoundingNote } from '../score/query';
import type { Measure, Note, Part, Score } from '../score/score';
import { riffMeasures } from './figures';

/** Where a melody can lie: sung, or the upper, inner or lower line of the keyboard. */
export const MELODY_LINES = ['voice', 'upper', 'inner', 'lower'] as const;
export type MelodyLine = (typeof MELODY_LINES)[number];

export const MELODY_LINE_NAMES: Readonly<Record<MelodyLine, string>> = {
  voice: 'the voice',
  upper: 'the upper line',
  inner: 'an inner line of the right hand',
  lower: 'the left hand',
};

export interface Melody {
  /** One line of notes, none overlapping the next. */
  readonly notes: readonly SoundingNote[];
  /** The line that has the melody in each measure. */
  readonly lines: readonly MelodyLine[];
  /** The lines that the source has. */
  readonly has: readonly MelodyLine[];
}

const hasWords = (notes: readonly Note[]): boolean =>
  notes.some((n) => n.lyrics?.some((l) => l.line === 'words'));

/** The part that carries the melody, if it is not the keyboard's own. */
export const voicePart = (score: Score): Part | undefined =>
  score.parts.find((p) => p.role === 'melody') ??
  score.parts.find((p) => p.role === undefined && p.staves === 1 && hasWords(p.notes));

/** The part that carries the melody. */
export const melodyPart = (score: Score): Part => voicePart(score) ?? keyboardPart(score);

/**
 * One line of notes: at each onset the highest note struck, unless a higher one of the line is still held. A note that goes on
 * below the next one of the line is let go there.
 */
export function upperLine(notes: readonly SoundingNote[]): SoundingNote[] {
  const line: SoundingNote[] = [];
  for (const note of notes) {
    const last = line.at(-1);
    if (!last || last.onset + last.duration <= note.onset) line.push(note);
    else if (note.midi > last.midi) {
      line.pop();
      if (last.onset < note.onset) line.push({ ...last, duration: note.onset - last.onset });
      line.push(note);
    }
  }
  return line;
}

/** The lowest notes of a hand that strikes or holds more than one. */
function innerLine(notes: readonly SoundingNote[], upper: readonly SoundingNote[]): SoundingNote[] {
  const tops = new Set(upper.map((n) => n.id));
  const below = notes.filter((n) => !tops.has(n.id));
  return upperLine(below);
}

/** The melody, or what `chosen` says for a measure. */
export function findMelody(
  score: Score,
  chosen: (measure: number) => MelodyLine | undefined = () => undefined,
  phraseStarts: ReadonlySet<number> = new Set(),
): Melody {
  const voice = voicePart(score);
  const part = score.parts.length > 0 ? keyboardPart(score) : undefined;
  const lines = new Map<MelodyLine, SoundingNote[]>();
  if (voice) lines.set('voice', upperLine(soundingNotes(voice.notes)));
  if (part && part !== voice) {
    const sung = sungVoice(part);
    const right = soundingNotes(part.notes.filter((n) => n.staff === 1));
    const upper = sung
      ? upperLine(soundingNotes(part.notes.filter((n) => n.voice === sung)))
      : upperLine(right);
    lines.set('upper', upper);
    lines.set('inner', innerLine(right, upper));
    lines.set('lower', upperLine(soundingNotes(part.notes.filter((n) => n.staff > 1))));
  }
  const has = [...lines].filter(([, notes]) => notes.length > 0).map(([line]) => line);
  if (has.length === 0) return { notes: [], lines: score.measures.map(() => 'upper'), has };
  const groups = new Map([...lines].map(([line, notes]) => [line, byMeasure(score.measures, notes)]));
  const thick = thicknessOf(part);
  const riffs = riffMeasures(score.measures, groups.get('lower') ?? []);
  const weigh = (line: MelodyLine, own: readonly SoundingNote[], measure: number): number =>
    melodiousness(line, own, thick) - (line === 'lower' && riffs.has(measure) ? RIFF : 0);
  const best = bestLines(score.measures, has, groups, weigh, phraseStarts);
  const by = score.measures.map((_, i) => {
    const own = chosen(i);
    return own && has.includes(own) ? own : best[i]!;
  });
  const notes = score.measures
    .flatMap((m, i) => {
      const next = by[i + 1];
      // Where the melody goes on in another line, this one stops at the barline.
      const own = groups.get(by[i]!)![i]!;
      return next === undefined || next === by[i]
        ? own
        : own.map((n) => ({ ...n, duration: Math.min(n.duration, endOf(m) - n.onset) }));
    })
    .filter((n) => n.duration > 0);
  return { notes, lines: by, has };
}

/** The melody as one line of notes. */
export const melodyOf = (score: Score): SoundingNote[] => [...findMelody(score).notes];

/** The voice of the upper staff that has words, where only one of several has. */
function sungVoice(part: Part): number | undefined {
  if (!hasWords(part.notes)) return undefined;
  const count = new Map<number, number>();
  for (const n of part.notes)
    if (n.staff === 1 && n.lyrics?.some((l) => l.line === 'words'))
      count.set(n.voice, (count.get(n.voice) ?? 0) + 1);
  const voices = new Set(part.notes.filter((n) => n.staff === 1).map((n) => n.voice));
  return count.size === 1 && voices.size > 1 ? [...count.keys()][0] : undefined;
}

/** How many notes each staff of a part strikes at an onset. */
function thicknessOf(part: Part | undefined): (note: SoundingNote) => number {
  const count = new Map<string, number>();
  for (const n of part?.notes ?? [])
    if (!n.grace && !n.cue && n.tie !== 'stop' && n.tie !== 'both') {
      const place = `${n.staff === 1 ? 1 : 2}@${n.onset}`;
      count.set(place, (count.get(place) ?? 0) + 1);
    }
  return (note) => count.get(`${note.staff === 1 ? 1 : 2}@${note.onset}`) ?? 1;
}

/** How likely a line has the melody before anything is known of its notes. */
const PRIOR: Readonly<Record<MelodyLine, number>> = { voice: 6, upper: 0.8, inner: -0.9, lower: -0.1 };
const MOVES_BY_STEP = 1;
const VARIED_RHYTHM = 0.5;
const VARIED_PITCH = 0.4;
/** Chords of three and more, struck again and again, accompany. */
const CHORDS = 0.8;
const REPEATS = 0.8;
/** Figures that only leap break a chord. */
const LEAPS = 0.7;
const SILENT = -0.6;
const SWITCH = 1.6;
const SWITCH_AT_PHRASE = 0.8;

/** A low figure that comes again from measure to measure is no tune where another line could be one. */
const RIFF = 1.6;
/** How much a line sounds like a melody in one measure. */
function melodiousness(
  line: MelodyLine,
  notes: readonly SoundingNote[],
  thick: (note: SoundingNote) => number,
): number {
  if (notes.length === 0) return SILENT;
  // A voice that sings has the melody; where it holds a last note into a measure of the piano alone, it is over.
  if (line === 'voice') return PRIOR.voice;
  const intervals = notes.slice(1).map((n, i) => Math.abs(n.midi - notes[i]!.midi));
  const share = (count: number): number => count / Math.max(1, intervals.length);
  const steps = share(intervals.filter((d) => d === 1 || d === 2).length);
  const repeats = share(intervals.filter((d) => d === 0).length);
  const leaps = share(intervals.filter((d) => d > 2).length);
  const values = new Set(notes.map((n) => n.duration)).size;
  const pitches = new Set(notes.map((n) => n.midi)).size / notes.length;
  const chords = notes.filter((n) => thick(n) >= 3).length / notes.length;
  const isFigure = notes.length >= 6 && leaps > 0.8 && values === 1;
  return (
    PRIOR[line] +
    (notes.length > 1 ? MOVES_BY_STEP * steps + VARIED_PITCH * pitches : 0) +
    (values > 1 ? VARIED_RHYTHM : 0) -
    (notes.length > 2 ? CHORDS * chords * repeats + REPEATS * repeats : 0) -
    (isFigure ? LEAPS : 0)
  );
}

/** The best way through the lines, measure by measure. */
function bestLines(
  measures: readonly Measure[],
  has: readonly MelodyLine[],
  groups: ReadonlyMap<MelodyLine, readonly (readonly SoundingNote[])[]>,
  weigh: (line: MelodyLine, notes: readonly SoundingNote[], measure: number) => number,
  phraseStarts: ReadonlySet<number>,
): MelodyLine[] {
  if (has.length === 1) return measures.map(() => has[0]!);
  const path = cheapestPath(
    measures.map((_, i) => has.map((line) => -weigh(line, groups.get(line)![i]!, i))),
    (from, to, i) => (from === to ? 0 : phraseStarts.has(i) ? SWITCH_AT_PHRASE : SWITCH),
  );
  return path.map((k) => has[k]!);
}

/** Everything a keyboard part plays besides the melody, by hand. */
export function accompanimentOf(score: Score, melody: readonly SoundingNote[]): SoundingNote[] {
  if (score.parts.length === 0) return [];
  const part = keyboardPart(score);
  const own = new Set(melody.map((n) => n.id));
  return byOnset(soundingNotes(part.notes).filter((n) => !own.has(n.id))).flatMap((g) => g.notes);
}
