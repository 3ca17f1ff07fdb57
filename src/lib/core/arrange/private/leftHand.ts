/**
 * The left hand of a version: the chords of each measure in the chosen texture, voiced by register, reach, keyboard
 * and the melody above. Note ids name the place and the role in the chord, so that a decision about "the bass on
 * beat one of measure 3" survives a change of level or key.
 */
import { beatLength, endOf } from '../../score/metre';
import { pitchClassName, pitchName } from '../../theory/pitch';
import type { SoundingNote } from '../../score/query';
import { intervalOf } from '../../theory/intervalWord';
import type { Measure, Note } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import { bassOf, chordSymbol, chordTones, sameChord, type Chord } from '../../theory/chord';
import { fromFifths, pitchClass, spellMidi } from '../../theory/fifths';
import { leftOnsetsIn, levelText, shortestValue, type LevelContract } from '../levels';
import {
  endingFigurations,
  HOME,
  NEARNESS,
  PATTERNS,
  type ChordContext,
  type HandPlace,
  type Stroke,
  type Figuration,
} from './patterns';
import type { ArrangeReason } from '../reason';
import { isClear } from '../../hands/register';
import type { MeasureStretches, Stretch } from './stretches';
import { isTeacherPattern, patternProblem, teacherPattern } from '../teacherPattern';
import { isForMetre, textureName, TEXTURES, type Texture, type TextureId } from '../textures';
import { teacherFigurations } from './teacherFigurations';
import { forcedEnd, writableEnd } from './writable';

/** Textures to try in a measure, the preferred first. */
export type TexturesIn = (measure: Measure) => readonly Texture[];

export interface LeftHandSettings {
  readonly contract: LevelContract;
  readonly texturesIn: TexturesIn;
  /** Measures (by index) at which the hand starts afresh, so that what comes again is alike. */
  readonly freshStarts: ReadonlySet<number>;
  /** Semitones the left hand holds. */
  readonly reach: number;
  /** Most keys at once in a measure, where that is fewer than the level's: the source is as thin. */
  readonly mostIn?: (measure: Measure) => number;
  readonly keyboard: { readonly low: number; readonly high: number };
  /** Measures in which the left hand has something else to play. */
  readonly except?: ReadonlySet<number>;
}

export interface LeftHand {
  readonly notes: readonly Note[];
  readonly reasons: readonly ArrangeReason[];
}

/** Semitones that stay free between the hands: a key beside the melody is in the way of its hand. */
const APART = 1;

/** Textures that anything falls back on. */
const LAST_RESORT: readonly Exclude<TextureId, 'own'>[] = ['root-fifth', 'root-then-fifth', 'held-root'];

/** Builds the left hand under what the right hand plays. */
export function leftHand(
  measures: readonly Measure[],
  inMeasures: readonly MeasureStretches[],
  above: readonly SoundingNote[],
  settings: LeftHandSettings,
): LeftHand {
  const notes: Note[] = [];
  const reasons: ArrangeReason[] = [];
  const ceilings = new Ceilings(above);
  let place: HandPlace = {};
  let last: { stroke: Stroke; chord: Chord } | undefined;
  /** How a chord was set under the same notes of the melody before: what comes again is set the same way. */
  const known = new Map<string, { readonly found: Found; readonly from: Ticks }>();
  const lastSounding = inMeasures.findLast((m) => m.stretches.length > 0)?.measure.index;
  for (const { measure, stretches, leftOut } of inMeasures) {
    if (settings.freshStarts.has(measure.index)) place = {};
    if (settings.except?.has(measure.index)) continue;
    if (leftOut.length > 0) reasons.push(tooQuick(measure, leftOut, settings.contract));
    let onsets = 0;
    stretches.forEach((stretch, i) => {
      const context: ChordContext = {
        stretch,
        measure,
        contract: settings.contract,
        span: Math.min(settings.reach, settings.contract.span ?? settings.reach),
        reach: settings.reach,
        most: Math.min(settings.contract.leftNotes, settings.mostIn?.(measure) ?? 5),
        keyboard: settings.keyboard,
        ceiling: ceilings.over(stretch.onset, stretch.end),
        before: place,
        next: stretches[i + 1]?.chord ?? inMeasures[measure.index + 1]?.stretches[0]?.chord,
        goesOn: sameChord(last?.chord ?? null, stretch.chord),
      };
      const room = leftOnsetsIn(settings.contract, measure);
      const fit: Fit = {
        ceilings,
        measures,
        onsets: room - onsets - (stretches.length - 1 - i),
        last: last?.stroke,
      };
      const ends = measure.index === lastSounding && i === stretches.length - 1;
      const textures = settings.texturesIn(measure);
      const again = `${textures.join()} ${stretch.onset - measure.start}+${stretch.end - stretch.onset} ${chordSymbol(stretch.chord)} ${ceilings.textOver(stretch.onset, stretch.end)}`;
      const before = ends ? undefined : known.get(again);
      const found =
        (before && setAgain(before.found, stretch.onset - before.from, context, fit)) ??
        choose(context, textures, fit, ends);
      if (found && !before) known.set(again, { found, from: stretch.onset });
      if (!found) {
        reasons.push({
          measure: measure.index,
          notes: [],
          reason: `no room for ${chordSymbol(stretch.chord)} under the melody within the hand and the keyboard: the left hand rests`,
          loss: 'no room',
        });
        return;
      }
      const strokes = found.figuration.strokes
        .map((s) => lettingGo(s, context, fit))
        .filter((s) => s.end > s.onset);
      if (strokes.length === 0) return;
      onsets += strokes.length;
      const written = strokes.flatMap((stroke) => notesOf(stroke, stretch.chord, measure));
      notes.push(...written);
      reasons.push({
        measure: measure.index,
        notes: written.map((n) => n.id),
        reason: describe(found, place, stretch, textures[0]!, ends, strokes),
      });
      place = found.figuration.place;
      last = { stroke: strokes.at(-1)!, chord: stretch.chord };
    });
  }
  return { notes, reasons };
}

const tooQuick = (measure: Measure, leftOut: readonly string[], contract: LevelContract): ArrangeReason => ({
  measure: measure.index,
  notes: [],
  reason: `${leftOut.join(' and ')} left out: level ${levelText(contract.level)} has at most ${leftOnsetsIn(contract, measure)} left-hand notes in a measure`,
});

/** The lowest note of the other hand over any stretch of time. */
export class Ceilings {
  private readonly notes: readonly SoundingNote[];
  private readonly longest: Ticks;
  constructor(notes: readonly SoundingNote[]) {
    this.notes = [...notes].sort((a, b) => a.onset - b.onset);
    this.longest = notes.reduce((most, n) => Math.max(most, n.duration), 0);
  }
  /** The highest free key from one tick to another. */
  over(from: Ticks, to: Ticks): number {
    let lowest = 128;
    for (let i = this.firstAfter(from - this.longest); i < this.notes.length; i++) {
      const note = this.notes[i]!;
      if (note.onset >= to) break;
      if (note.onset + note.duration > from) lowest = Math.min(lowest, note.midi);
    }
    return lowest - 1;
  }
  /** What the other hand strikes in a stretch of time, by which it is known when it comes again. */
  textOver(from: Ticks, to: Ticks): string {
    let text = '';
    for (let i = this.firstAfter(from - this.longest); i < this.notes.length; i++) {
      const { onset, duration, midi } = this.notes[i]!;
      if (onset >= to) break;
      if (onset + duration > from) text += `${onset - from}+${duration}=${midi} `;
    }
    return text;
  }
  /** The first tick after `from` at which the other hand comes down to `midi` or below; `to` if it does not. */
  until(midi: number, from: Ticks, to: Ticks): Ticks {
    for (let i = this.firstAfter(from); i < this.notes.length; i++) {
      const note = this.notes[i]!;
      if (note.onset >= to) return to;
      if (note.onset > from && note.midi <= midi) return note.onset;
    }
    return to;
  }
  private firstAfter(tick: Ticks): number {
    let low = 0;
    let high = this.notes.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.notes[middle]!.onset < tick) low = middle + 1;
      else high = middle;
    }
    return low;
  }
}

interface Fit {
  readonly ceilings: Ceilings;
  readonly measures: readonly Measure[];
  /** How many onsets the stretch may use. */
  readonly onsets: number;
  readonly last: Stroke | undefined;
}

interface Found {
  readonly figuration: Figuration;
  readonly texture: Texture | 'ending';
  /** Why what was wanted does not stand here, in a clause; where it does, nothing. */
  readonly instead?: string;
  /** The melody comes down into it: the key is let go there. */
  readonly letGo: boolean;
  /** Without the melody above it the bass would be an octave higher. */
  readonly lowered: boolean;
}

/** The same figuration, said where the melody has pushed it down. */
const foundIn = (
  figuration: Figuration,
  texture: Found['texture'],
  { ceiling, before }: ChordContext,
): Found => {
  const bass = figuration.strokes[0]!.keys[0]!.midi;
  const away = (midi: number): number =>
    Math.abs(midi - HOME) + (before.bass === undefined ? 0 : NEARNESS * Math.abs(midi - before.bass));
  const top = Math.max(...figuration.strokes.flatMap((s) => s.keys.map((k) => k.midi)));
  return { figuration, texture, letGo: false, lowered: top + 12 > ceiling && away(bass + 12) < away(bass) };
};

/** A figuration that was found before, so much later; undefined where it does not fit here. */
function setAgain(found: Found, by: Ticks, context: ChordContext, fit: Fit): Found | undefined {
  const strokes = found.figuration.strokes.map((s) => ({ ...s, onset: s.onset + by, end: s.end + by }));
  const figuration = { ...found.figuration, strokes };
  return misfit(figuration, context, fit, found.letGo) === undefined ? { ...found, figuration } : undefined;
}

function choose(
  context: ChordContext,
  textures: readonly Texture[],
  fit: Fit,
  ends: boolean,
): Found | undefined {
  const wanted = textures.filter((t): t is Exclude<Texture, 'own'> => t !== 'own');
  const tried = [...wanted, ...LAST_RESORT.filter((t) => !wanted.includes(t))];
  // Block chords end as they went: the nearest shape is what the teacher asked for.
  if (ends && wanted[0] !== 'block-chord') {
    const { figuration } = firstFitting(endingFigurations(context), context, fit);
    if (figuration) return foundIn(figuration, 'ending', context);
  }
  /** Why the first of them is not what is played. */
  let instead: string | undefined;
  for (const texture of tried) {
    const { figuration, why } = inTexture(texture, context, fit);
    if (figuration) return { ...foundIn(figuration, texture, context), ...(instead ? { instead } : {}) };
    instead ??= why;
  }
  // Under a melody that comes down into the chord the root is struck and let go in time.
  const early: ChordContext = {
    ...context,
    ceiling: fit.ceilings.over(context.stretch.onset, context.stretch.onset + 1),
  };
  const { figuration } = firstFitting(PATTERNS['held-root'](early), early, fit, true);
  return figuration && { ...foundIn(figuration, 'held-root', early), letGo: true };
}

/** A figuration, or why there is none. */
type Fitting =
  | { readonly figuration: Figuration; readonly why?: undefined }
  | { readonly figuration?: undefined; readonly why: string };

/** The first figuration of a texture that the level has and that fits. */
function inTexture(texture: Exclude<Texture, 'own'>, context: ChordContext, fit: Fit): Fitting {
  const { contract, measure } = context;
  if (isTeacherPattern(texture)) {
    const pattern = teacherPattern(texture);
    const why = patternProblem(pattern, contract, measure.time);
    return why === undefined ? firstFitting(teacherFigurations(pattern, context), context, fit) : { why };
  }
  const { from } = TEXTURES[texture];
  if (from > contract.level) return { why: `from level ${levelText(from)} on` };
  if (!isForMetre(texture, measure.time)) return { why: 'it isn’t for this time signature' };
  return firstFitting(PATTERNS[texture](context), context, fit);
}

function firstFitting(
  figurations: Generator<Figuration>,
  context: ChordContext,
  fit: Fit,
  letGo = false,
): Fitting {
  let tried = 0;
  let why: string | undefined;
  for (const figuration of figurations) {
    const written = { ...figuration, strokes: figuration.strokes.map((s) => writable(s, context, fit)) };
    // Where a level cannot write so long a note, it is struck again; where it cannot be struck again, it is let go.
    const again = { ...figuration, strokes: figuration.strokes.flatMap((s) => struckAgain(s, context, fit)) };
    if (again.strokes.length > written.strokes.length && misfit(again, context, fit, letGo) === undefined)
      return { figuration: again };
    const problem = misfit(written, context, fit, letGo);
    if (problem === undefined) return { figuration: written };
    why ??= problem;
    if (++tried > 60) break;
  }
  return { why: why ?? 'there is no such voicing of the chord here' };
}

/** The stroke, and once more what is left of it where that is a beat or longer. */
function struckAgain(stroke: Stroke, context: ChordContext, fit: Fit): Stroke[] {
  const first = writable(stroke, context, fit);
  if (stroke.end - first.end < beatLength(context.measure.time)) return [first];
  return [first, ...struckAgain({ ...stroke, onset: first.end }, context, fit)];
}

/** The stroke no longer than the level can write it. */
function writable(stroke: Stroke, { contract }: ChordContext, { measures }: Fit): Stroke {
  const end = writableEnd(stroke.onset, stroke.end, measures, contract);
  return end === stroke.end ? stroke : { ...stroke, end };
}

/** Why a figuration does not fit hand, level, keyboard and melody, in a clause; undefined where it does. */
function misfit(
  { strokes, isLine }: Figuration,
  context: ChordContext,
  fit: Fit,
  letGo: boolean,
): string | undefined {
  const { contract, keyboard, span, measure, stretch } = context;
  if (strokes.length > fit.onsets) return 'too many notes in the measure for the level';
  const shortest = shortestValue(contract, measure.time);
  let before: Stroke | undefined = fit.last;
  for (const stroke of strokes) {
    const { keys, onset, end } = stroke;
    const low = keys[0]!.midi;
    const high = keys.at(-1)!.midi;
    if (end - onset < shortest) return 'its notes are shorter than those of the level';
    if (low < keyboard.low || high > keyboard.high) return 'it leaves the keyboard';
    if (keys.length > contract.leftNotes) return 'too many notes at once for the level';
    if (high - low > span) return `wider than ${intervalOf(span)}, the reach here`;
    if (keys.length > 1 && !isClear(keys.map((k) => k.midi))) return 'so low its notes blur';
    if (high + APART > fit.ceilings.over(onset, letGo ? onset + 1 : end))
      return 'no room below the right hand';
    if (
      before &&
      contract.leap !== null &&
      onset - before.onset <= beatLength(measure.time) &&
      before.end >= onset &&
      leapBetween(before, stroke) > contract.leap
    )
      return 'its leaps are wider than those of the level';
    before = stroke;
  }
  return isLine === true || !isMuddy(strokes, stretch.chord) ? undefined : 'so low its notes blur';
}

/** What is struck in turn over one chord is heard together: low down it is no closer than a chord may be. */
function isMuddy(strokes: readonly Stroke[], chord: Chord): boolean {
  const tones = new Set(chordTones(chord).map(pitchClass));
  const keys = strokes.flatMap((s) => s.keys.map((k) => k.midi)).filter((midi) => tones.has(midi % 12));
  return !isClear([...new Set(keys)].sort((a, b) => a - b));
}

/** Nearest distance between two strokes, in semitones. */
const leapBetween = (a: Stroke, b: Stroke): number =>
  Math.min(...a.keys.flatMap((x) => b.keys.map((y) => Math.abs(x.midi - y.midi))));

/** Keys let go where the melody comes down to them. */
function lettingGo(stroke: Stroke, { measure, contract }: ChordContext, { ceilings, measures }: Fit): Stroke {
  const end = ceilings.until(stroke.keys.at(-1)!.midi, stroke.onset, stroke.end);
  return end === stroke.end
    ? stroke
    : { ...stroke, end: forcedEnd(stroke.onset, end, measure, measures, contract) };
}

/** Role of a tone in its chord, for the note's id. */
function roleOf(chord: Chord, tone: number, index: number): string {
  if (index === 0) return 'bass';
  const place = chordTones(chord).findIndex((t) => pitchClass(t) === pitchClass(tone));
  return ['root', 'third', 'fifth', 'seventh', 'ninth'][place] ?? `tone${index}`;
}

const notesOf = (stroke: Stroke, chord: Chord, measure: Measure): Note[] =>
  stroke.keys.map(({ midi, tone }, i) => ({
    id: `L${measure.id}-${stroke.onset - measure.start}-${roleOf(chord, tone, i)}`,
    onset: stroke.onset,
    duration: Math.min(stroke.end, endOf(measure)) - stroke.onset,
    pitch: spellMidi(midi, tone),
    staff: 2,
    voice: 5,
  }));

/** Textures that play a whole chord in its nearest shape. */
const SHAPED: ReadonlySet<Found['texture']> = new Set(['block-chord', 'pulse', 'pulse-eighths']);
const SHAPES = ['root position', 'first inversion', 'second inversion', 'third inversion'] as const;

function describe(
  { texture, letGo, lowered, instead }: Found,
  before: HandPlace,
  { chord }: Stretch,
  wanted: Texture,
  ends: boolean,
  strokes: readonly Stroke[],
): string {
  const name = chordSymbol(chord);
  const bass = strokes[0]!.keys[0]!;
  const bassName = pitchClassName(fromFifths(bass.tone));
  if (letGo) return `${bassName} of ${name}, let go where the melody comes down to it`;
  if (texture === 'ending') return `${name} from ${bassName}, held: the ending`;
  const fellBack =
    instead !== undefined && !ends && wanted !== 'own'
      ? `; “${textureName(wanted)}” doesn’t fit here: ${instead}`
      : '';
  if (SHAPED.has(texture)) {
    const index = chordTones(chord).findIndex((t) => pitchClass(t) === pitchClass(bass.tone));
    const shape = SHAPES[index] ?? 'with its named bass';
    const keys = strokes[0]!.keys;
    const stay = (before.shape?.notes ?? []).filter((n) => keys.some((k) => k.midi === n.midi));
    const names = stay.map((n) => pitchClassName(fromFifths(n.tone)));
    const why =
      names.length > 0
        ? `${names.join(' and ')} ${names.length > 1 ? 'stay' : 'stays'} under the hand`
        : 'the voicing nearest to the one before';
    return `${name} in ${shape}: ${why}${fellBack}`;
  }
  const what =
    pitchClass(bassOf(chord)) !== pitchClass(bass.tone)
      ? 'fifth'
      : chord.bass === undefined
        ? 'root'
        : 'named bass';
  const stays = lowered
    ? ', an octave lower to stay under the melody'
    : before.bass === bass.midi
      ? ': no shift'
      : '';
  const all = [...new Map(strokes.flatMap((s) => s.keys).map((k) => [k.midi, k])).values()]
    .sort((a, b) => a.midi - b.midi)
    .map((k) => pitchName(spellMidi(k.midi, k.tone)));
  const rest = all.length > 1 ? ` (${all.join(' ')})` : '';
  return `${bassName}, the ${what} of ${name}${stays}${rest}${fellBack}`;
}
