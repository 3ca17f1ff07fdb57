/**
 * Sing-along: the right hand plays chords to sing to, close together around and above middle C, each shape the nearest to
 * the one before, in a rhythm; the left hand has the bass. An introduction leads in.
 */
import { inSentence } from '../capital';
import { introductionId } from '../score/measureId';
import { endOf, isCompound, keyAt, measureLength, pulseLength } from '../score/metre';
import { pitchClassName } from '../theory/pitch';
import { measureAt } from '../score/query';
import type { ChordSymbol, Mark, Measure, Note, Score } from '../score/score';
import type { Ticks } from '../score/ticks';
import { bassOf, chordSymbol, chordTones, type Chord } from '../theory/chord';
import { fromFifths, pitchClass, spellMidi, type Fifths } from '../theory/fifths';
import { tonicFifths, type Key } from '../theory/key';
import { hasMinorThird } from '../theory/modes';
import type { ArrangeReason } from './reason';
import { shortestValue, type LevelContract } from './levels';
import { beatsOf } from './private/patterns';
import { patternStrokes } from './private/teacherFigurations';
import { isTeacherPattern, patternProblem, teacherPattern, type TeacherPatternText } from './teacherPattern';
import { intervalOf } from '../theory/intervalWord';
import type { MeasureStretches, Stretch } from './private/stretches';
import { byNearness, closeShapes, widthOf, type Voicing } from './private/voicing';
import { writableEnd } from './private/writable';

export const CHORD_RHYTHMS = {
  held: { name: 'Held', says: 'each chord played once and held', from: 1 },
  beats: { name: 'On the beats', says: 'the chord on each beat', from: 2 },
  'after-beats': {
    name: 'After the beat',
    says: 'the bass alone on the first beat, the chord on the others',
    from: 2,
  },
  'long-short': {
    name: 'Long and short',
    says: 'a beat and a half, then the chord again before the third beat',
    from: 3,
  },
  broken: { name: 'Broken', says: 'the chord note by note from below', from: 3 },
} as const;

export type ChordRhythm = keyof typeof CHORD_RHYTHMS;
export const CHORD_RHYTHM_IDS = Object.keys(CHORD_RHYTHMS) as ChordRhythm[];

/** What can be chosen for the right hand of sung chords: a built-in rhythm, or a pattern that a teacher has written. */
export type ChordFigure = ChordRhythm | TeacherPatternText;

/** The name of a chord rhythm, as lists have it. */
export const chordFigureName = (figure: ChordFigure): string =>
  isTeacherPattern(figure) ? teacherPattern(figure).name : CHORD_RHYTHMS[figure].name;

/** The same within a sentence: "on the beats", “Thumb”. */
export const chordFigureText = (figure: ChordFigure): string =>
  isTeacherPattern(figure) ? `“${chordFigureName(figure)}”` : inSentence(chordFigureName(figure));

/** The rhythm a level begins with. */
export const usualRhythm = (level: number): ChordRhythm =>
  level < 3 ? 'held' : level < 4 ? 'beats' : 'long-short';

interface RightHandSettings {
  readonly contract: LevelContract;
  readonly rhythmIn: (measure: number) => ChordFigure;
  /** Semitones the right hand holds. */
  readonly reach: number;
  readonly keyboard: { readonly low: number; readonly high: number };
  readonly freshStarts: ReadonlySet<number>;
}

/** The hand lies above the left hand's triads and below the voice: from D4 to G5; a single note goes down to B3. */
const LOW = 62;
const LOWEST_SINGLE = 59;
const HIGH = 79;
const HOME = 67;
const PULL = 0.25;

/** Builds the right hand from the chords alone. */
export function singAlong(
  measures: readonly Measure[],
  inMeasures: readonly MeasureStretches[],
  settings: RightHandSettings,
): { notes: Note[]; reasons: ArrangeReason[] } {
  const notes: Note[] = [];
  const reasons: ArrangeReason[] = [];
  let before: Voicing | undefined;
  const lastSounding = inMeasures.findLast((m) => m.stretches.length > 0)?.measure.index;
  for (const { measure, stretches } of inMeasures) {
    if (settings.freshStarts.has(measure.index)) before = undefined;
    stretches.forEach((stretch, i) => {
      const voicing = shapesOf(stretch.chord, settings, before)[0];
      if (!voicing) return;
      const ends = measure.index === lastSounding && i === stretches.length - 1;
      const rhythm = ends ? 'held' : settings.rhythmIn(measure.index);
      const [own, instead] = struck(voicing, stretch, measure, measures, rhythm, settings);
      notes.push(...own);
      const names = voicing.notes.map((n) => pitchClassName(fromFifths(n.tone))).join(' ');
      const kept = before?.notes.filter((a) => voicing.notes.some((b) => b.midi === a.midi)) ?? [];
      const stays = kept.map((n) => pitchClassName(fromFifths(n.tone))).join(' and ');
      reasons.push({
        measure: measure.index,
        notes: own.map((n) => n.id),
        reason: `${chordSymbol(stretch.chord)} as ${names}${stays ? `; ${stays} ${kept.length > 1 ? 'stay' : 'stays'}` : ''}${ends ? '; held: the last chord' : ''}${instead}`,
      });
      before = voicing;
    });
  }
  return { notes, reasons };
}

/** Keys struck together. */
interface Place {
  readonly at: Ticks;
  readonly end?: Ticks;
  readonly keys: Voicing['notes'];
}

/** A shape in a rhythm over one chord, and in a clause why it is not the one that was chosen. */
function struck(
  voicing: Voicing,
  stretch: Stretch,
  measure: Measure,
  measures: readonly Measure[],
  rhythm: ChordFigure,
  settings: RightHandSettings,
): [notes: Note[], instead: string] {
  const { contract } = settings;
  const own = isTeacherPattern(rhythm)
    ? teacherPlaces(rhythm, voicing, stretch, measure, settings)
    : undefined;
  const places =
    own?.places ??
    rhythmPlaces(voicing, stretch, measure, isTeacherPattern(rhythm) ? 'held' : rhythm, contract);
  const notes = places.flatMap(({ at, end, keys }, k) => {
    const until = writableEnd(at, end ?? places[k + 1]?.at ?? stretch.end, measures, contract);
    return keys.map(({ midi, tone }, i): Note => ({
      id: `R${measure.id}-${at - measure.start}-${keys === voicing.notes ? i : placeIn(voicing, midi)}`,
      onset: at,
      duration: until - at,
      pitch: spellMidi(midi, tone),
      staff: 1,
      voice: 1,
    }));
  });
  return [notes, own?.instead ?? ''];
}

/** Which note of a shape a key is, from below; beyond it by its distance in semitones. */
function placeIn({ notes }: Voicing, midi: number): string {
  const place = notes.findIndex((n) => n.midi === midi);
  return place < 0 ? `up${midi - notes[0]!.midi}` : String(place);
}

/** The places of a teacher's pattern over a shape, counted from its lowest note; or why the level or the hand hasn't it. */
function teacherPlaces(
  text: TeacherPatternText,
  voicing: Voicing,
  { onset, end, chord }: Stretch,
  measure: Measure,
  { contract, reach, keyboard }: RightHandSettings,
): { readonly places?: readonly Place[]; readonly instead: string } {
  const pattern = teacherPattern(text);
  const strokes = patternStrokes(pattern, voicing.notes, { onset, end, chord }, keyAt(measure, onset));
  const span = Math.min(reach, contract.span ?? reach);
  const why =
    patternProblem(pattern, contract, measure.time, 'right') ??
    (strokes.some(({ keys }) => keys.at(-1)!.midi - keys[0]!.midi > span)
      ? `wider than ${intervalOf(span)}, the reach here`
      : strokes.some(({ keys }) => keys.at(-1)!.midi > keyboard.high)
        ? 'it leaves the keyboard'
        : undefined);
  return why === undefined
    ? { places: strokes.map((s) => ({ at: s.onset, end: s.end, keys: s.keys })), instead: '' }
    : { instead: `; “${pattern.name}” doesn’t fit here: ${why}` };
}

/** The places of a built-in rhythm, each held to the next. */
function rhythmPlaces(
  voicing: Voicing,
  stretch: Stretch,
  measure: Measure,
  rhythm: ChordRhythm,
  contract: LevelContract,
): readonly Place[] {
  const pulse = pulseLength(measure.time);
  const beats = beatsOf({ stretch, measure });
  const keys = voicing.notes;
  const together = (places: readonly Ticks[]): Place[] => places.map((at) => ({ at, keys }));
  const isTooShort = pulse < shortestValue(contract, measure.time);
  if (CHORD_RHYTHMS[rhythm].from > contract.level || isTooShort) return together([stretch.onset]);
  if (rhythm === 'beats') return together(beats);
  if (rhythm === 'after-beats' && beats.length > 1) return together(beats.slice(1));
  if (rhythm === 'long-short' && beats.length > 1 && !isCompound(measure.time))
    return together(beats.map((at, i) => (i % 2 === 0 ? at : at + pulse)));
  if (rhythm === 'broken') {
    const order = keys.length > 2 ? [...keys, ...keys.slice(1, -1).reverse()] : keys;
    return beatsOf({ stretch, measure }, pulse).map((at, i) => ({ at, keys: [order[i % order.length]!] }));
  }
  if (rhythm === 'long-short' && isCompound(measure.time)) return together(beats);
  return together([stretch.onset]);
}

/** The tones a hand of `most` notes plays above a bass: the third tells most, then the seventh, the fifth, the root. */
function tonesFor(chord: Chord, most: number): Fifths[] {
  const [root, third, fifth, seventh] = chordTones(chord);
  // Over a bass of its own a single note is the root: without it the chord is another.
  const isOverBass = pitchClass(bassOf(chord)) !== pitchClass(chord.root);
  const byWeight = most === 1 && isOverBass ? [root] : [third, seventh, fifth, root];
  const order = byWeight.filter((t): t is Fifths => t !== undefined);
  const withoutBass = order.filter((t) => pitchClass(t) !== pitchClass(bassOf(chord)));
  return (withoutBass.length >= most ? withoutBass : order).slice(0, most);
}

/** Every close shape of the tones within the hand and the range, the one nearest to the one before first. */
function shapesOf(
  chord: Chord,
  { contract, reach, keyboard }: RightHandSettings,
  before: Voicing | undefined,
): Voicing[] {
  const span = Math.min(reach, contract.span ?? reach);
  const most = Math.min(4, contract.rightNotes);
  const shapes = closeShapes(
    tonesFor(chord, most),
    most === 1 ? LOWEST_SINGLE : LOW,
    Math.min(HIGH, keyboard.high),
  );
  return byNearness(
    shapes.filter((v) => widthOf(v) <= span),
    { before, home: HOME, pull: PULL, thumb: 'bottom' },
  );
}

/** Chords of an introduction, one to a measure, as fifths from the tonic: they end on the dominant. */
function introductionChords(key: Key, measures: number): Chord[] {
  const tonic = tonicFifths(key);
  const minor = hasMinorThird(key.mode);
  const one: Chord = { root: tonic, kind: minor ? 'minor' : 'major' };
  const five: Chord = { root: tonic + 1, kind: 'dominant7' };
  if (measures <= 2) return [one, five];
  const six: Chord = minor ? { root: tonic - 4, kind: 'major' } : { root: tonic + 3, kind: 'minor' };
  const four: Chord = { root: tonic - 1, kind: minor ? 'minor' : 'major' };
  return [one, six, four, five];
}

/**
 * The score with measures before it that give key, tempo and metre to the singer: tonic to dominant. A pickup of the song
 * completes the last of them. Indices and onsets of the song move on; its measure numbers and its
 * `sections` stay.
 */
export function withIntroduction(
  score: Score,
  key: Key,
  count: number,
  sections: readonly { readonly from: number; readonly label: string }[],
): Score {
  const first = score.measures[0];
  if (!first || count === 0) return score;
  const full = measureLength(first.time);
  const pickup = first.beginsAt > 0 ? first.length : 0;
  const lead = Array.from({ length: count }, (_, index): Measure => ({
    id: introductionId(index),
    index,
    number: `i${index + 1}`,
    start: index * full,
    length: index === count - 1 ? full - pickup : full,
    time: first.time,
    key: first.key,
    beginsAt: 0,
    ...(index === 0 ? { section: 'Introduction' } : {}),
  }));
  const by = endOf(lead.at(-1)!);
  const later = <T extends { readonly onset: Ticks }>(item: T): T => ({ ...item, onset: item.onset + by });
  const chords = introductionChords(key, count).map((chord, i): ChordSymbol => ({
    onset: lead[i]!.start,
    chord,
  }));
  // The song keeps its sections, by the names that they have without the introduction; a pickup begins the first.
  const opening = sections[0]?.label ?? 'Song';
  const named = (m: Measure, i: number): string | undefined =>
    i === 0 ? opening : i === 1 && pickup > 0 && m.section === opening ? undefined : m.section;
  return {
    ...score,
    measures: [
      ...lead,
      ...score.measures
        .map((m): Measure => ({
          ...m,
          index: m.index + count,
          start: m.start + by,
          ...(m.changes ? { changes: m.changes.map(later) } : {}),
        }))
        .map(({ section: _section, ...m }, i): Measure => {
          const section = named(score.measures[i]!, i);
          return section === undefined ? m : { ...m, section };
        }),
    ],
    parts: score.parts.map((p) => ({
      ...p,
      notes: p.notes.map(later),
      ...(p.clefs ? { clefs: p.clefs.map(later) } : {}),
      ...(p.marks ? { marks: p.marks.map(later) } : {}),
    })),
    chordSymbols: [...chords, ...score.chordSymbols.map(later)],
    pedals: score.pedals.map(later),
    ...(score.tempoChanges ? { tempoChanges: score.tempoChanges.map(later) } : {}),
    sectionStarts: [
      { measure: 0, name: 'Introduction' },
      ...sections.map(({ from, label }) => ({ measure: from + count, name: label })),
    ],
  };
}

/**
 * The words of a sung melody as text above the staff, where nobody plays its notes: what is sung from one stroke of the
 * hand to the next stands at the stroke, in one piece, so that words do not run into each other.
 */
export function wordsAbove(
  notes: readonly Note[],
  strokes: readonly Ticks[],
  measures: readonly Measure[],
): Mark[] {
  const places = [...new Set(strokes)].sort((a, b) => a - b);
  const groups = new Map<Ticks, string>();
  for (const note of [...notes].sort((a, b) => a.onset - b.onset)) {
    const word = note.lyrics?.find((l) => l.line === 'words' && l.verse === 1);
    if (!word || note.tie === 'stop' || note.tie === 'both') continue;
    const { start } = measureAt(measures, note.onset);
    const place = places.findLast((p) => p <= note.onset && p >= start) ?? note.onset;
    const goesOn = word.syllabic === 'begin' || word.syllabic === 'middle';
    groups.set(place, (groups.get(place) ?? '') + word.text + (goesOn ? '' : ' '));
  }
  return [...groups].map(([onset, text]): Mark => ({
    kind: 'lyrics',
    onset,
    staff: 1,
    above: true,
    text: text.endsWith(' ') ? text.trimEnd() : `${text}-`,
  }));
}
