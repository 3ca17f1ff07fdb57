/**
 * The source's own accompaniment within a level: thinned, not replaced. In each measure what is too quick, too thick or too wide
 * is mended note by note; a measure that keeps too little of itself, or not its basses, is given back to the textures.
 */
import { beatLength, endOf, metricalStrength, placeInMeasure } from '../../score/metre';
import { byMeasure, byOnset, inOctave, lowestAt, type SoundingNote } from '../../score/query';
import type { Measure } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import { bassOf } from '../../theory/chord';
import { pitchClass } from '../../theory/fifths';
import type { Ceilings } from './leftHand';
import type { ArrangeReason } from '../reason';
import { leftOnsetsIn, levelText, type LevelContract } from '../levels';
import { isClear } from '../../hands/register';
import type { MeasureStretches } from './stretches';
import { endOfOnset, readableOnsets, writtenEnd, type Piece, type ReadableOnset } from './ownPieces';
import { forcedEnd } from './writable';

export interface OwnSettings {
  readonly contract: LevelContract;
  readonly reach: number;
  readonly keyboard: { readonly low: number; readonly high: number };
  readonly measures: readonly Measure[];
  /** What the right hand leaves free. */
  readonly ceilings: Ceilings;
  /** The chords of a measure are named by the source, not heard from its notes: their basses are law. */
  readonly isNamed: (measure: Measure) => boolean;
  /** Strokes to a beat that the style leaves in a measure; Infinity for as many as the level has. */
  readonly strokesPerBeat: (measure: Measure) => number;
  /** The source's left hand is what its style asks for in a measure. */
  readonly isOfStyle: (measure: Measure) => boolean;
  /** Ids of melody notes that the left hand has: they are never left out for others. */
  readonly melody: ReadonlySet<string>;
}

interface OwnLeft {
  readonly notes: readonly SoundingNote[];
  /** Measures that play their own accompaniment, or rest as the source does. */
  readonly measures: ReadonlySet<number>;
  readonly reasons: readonly ArrangeReason[];
}

/** A measure stays itself if it keeps at least this share of its notes. */
const KEPT = 0.6;

/** The left hand of the source, measure by measure. */
export function ownLeft(
  notes: readonly SoundingNote[],
  inMeasures: readonly MeasureStretches[],
  settings: OwnSettings,
): OwnLeft {
  const { measures, contract } = settings;
  const groups = byMeasure(measures, notes);
  const kept: SoundingNote[] = [];
  const own = new Set<number>();
  const reasons: ArrangeReason[] = [];
  let held: Piece[] = [];
  let last: { onset: Ticks; notes: Piece[] } | undefined;
  for (const { measure, stretches } of inMeasures) {
    const source = groups[measure.index]!;
    const thinned = thinMeasure(source, measure, held, last, settings);
    const hasMelody = source.some((n) => settings.melody.has(n.id));
    const keepsEnough =
      thinned.length >= KEPT * countable(source, measure, settings) &&
      (contract.accompaniment === 'kept' ||
        keepsBasses(thinned, held, stretches, settings.isNamed(measure) ? undefined : source));
    const isOwn = hasMelody || keepsEnough;
    if (!isOwn) {
      held = [];
      last = undefined;
      continue;
    }
    own.add(measure.index);
    kept.push(...thinned);
    const left = source.length - thinned.length;
    if (source.length > 0)
      reasons.push({
        measure: measure.index,
        notes: thinned.map((n) => n.id),
        reason:
          left === 0
            ? 'the left hand as in the source'
            : `the left hand as in the source, ${left} of ${source.length} notes left out for level ${levelText(contract.level)}`,
      });
    held = [...held, ...thinned].filter((n) => n.onset + n.duration > endOf(measure));
    const lastGroup = byOnset(thinned).at(-1);
    if (lastGroup) last = lastGroup;
  }
  return { notes: withoutSource(kept as Piece[]), measures: own, reasons };
}

const withoutSource = (pieces: readonly Piece[]): SoundingNote[] =>
  pieces.map(({ source: _source, ...note }) => note);

/** Notes that any version could keep: no more to an onset than the hand plays, and no more onsets than the style leaves. */
function countable(source: readonly SoundingNote[], measure: Measure, settings: OwnSettings): number {
  const { contract, isOfStyle } = settings;
  // Of a style's own figure a level takes what it can read.
  const isItsOwn = isOfStyle(measure);
  const onsets = isItsOwn ? readableOnsets(source, measure, contract) : byOnset(source);
  const most = Math.min(
    mostOfStyle(measure, settings),
    isItsOwn ? leftOnsetsIn(contract, measure) : Infinity,
  );
  const sizes = onsets.map((g) => Math.min(g.notes.length, contract.leftNotes));
  return sizes.slice(0, most).reduce((sum, size) => sum + size, 0);
}

/** Strokes of a measure that its style leaves. */
const mostOfStyle = (measure: Measure, { strokesPerBeat }: OwnSettings): number =>
  Math.ceil((strokesPerBeat(measure) * measure.length) / beatLength(measure.time));

function thinMeasure(
  source: readonly SoundingNote[],
  measure: Measure,
  held: readonly Piece[],
  before: { onset: Ticks; notes: readonly Piece[] } | undefined,
  settings: OwnSettings,
): Piece[] {
  const { contract, ceilings, measures } = settings;
  const span = Math.min(settings.reach, contract.span ?? settings.reach);
  const sounding: Piece[] = [...held];
  const result: Piece[] = [];
  let last = before;
  for (const { onset, notes, goesOn } of onsetsWithin(source, measure, settings)) {
    const chord = oneHand(
      notes.map((n) => onKeyboard({ ...n, source: n }, settings.keyboard)),
      {
        most: contract.leftNotes,
        span,
        ceiling: ceilings.over(onset, onset + 1),
        low: settings.keyboard.low,
        melody: settings.melody,
      },
    );
    const placed = nearer(chord, last, measure, settings);
    if (placed.length === 0) continue;
    // What the hand cannot hold on to while it strikes is let go; the pedal has it, where there is one.
    for (const earlier of [...sounding]) {
      if (earlier.onset + earlier.duration <= onset) continue;
      const together = [
        ...sounding.filter((n) => n.onset < onset && n.onset + n.duration > onset),
        ...placed,
      ];
      const keys = together.map((n) => n.midi);
      const tooMany = together.length > contract.leftNotes;
      const tooWide = Math.max(...keys) - Math.min(...keys) > span;
      const sameKey = placed.some((n) => n.midi === earlier.midi);
      if (tooMany || tooWide || sameKey)
        letGo(earlier, forcedEnd(earlier.onset, onset, measure, measures, contract), sounding, result);
    }
    for (const note of placed) {
      const until = Math.max(onset + note.duration, goesOn);
      const wanted = writtenEnd({ ...note, duration: until - onset }, measure, measures, contract);
      const free = ceilings.until(note.midi, onset, wanted);
      const end = free < wanted ? forcedEnd(onset, free, measure, measures, contract) : wanted;
      const piece = { ...note, duration: end - onset };
      if (piece.duration <= 0) continue;
      result.push(piece);
      sounding.push(piece);
    }
    last = { onset, notes: placed };
  }
  return result.filter((n) => n.duration > 0);
}

function letGo(note: Piece, at: Ticks, ...lists: Piece[][]): void {
  for (const list of lists) {
    const i = list.indexOf(note);
    if (i >= 0) list[i] = { ...note, duration: at - note.onset };
  }
}

/** The onsets that a level can write in a measure; the weakest go where there are too many, and what stood before them sings on. */
function onsetsWithin(
  source: readonly SoundingNote[],
  measure: Measure,
  settings: OwnSettings,
): readonly ReadableOnset[] {
  const { contract, melody } = settings;
  const readable = readableOnsets(source, measure, contract);
  const hasMelody = source.some((n) => melody.has(n.id));
  const most = Math.min(
    leftOnsetsIn(contract, measure),
    hasMelody ? Infinity : mostOfStyle(measure, settings),
  );
  if (readable.length <= most) return readable;
  const strength = (tick: Ticks): number => metricalStrength(measure.time, placeInMeasure(measure, tick));
  const kept = new Set(
    [...readable].sort((a, b) => strength(b.onset) - strength(a.onset) || a.onset - b.onset).slice(0, most),
  );
  const result: ReadableOnset[] = [];
  for (const onset of readable) {
    const before = result.at(-1);
    if (kept.has(onset)) result.push(onset);
    else if (before && endOfOnset(before) >= onset.onset)
      result[result.length - 1] = { ...before, goesOn: Math.max(before.goesOn, endOfOnset(onset)) };
  }
  return result;
}

function onKeyboard(note: Piece, { low, high }: OwnSettings['keyboard']): Piece {
  let placed = note;
  while (placed.midi < low) placed = inOctave(placed, 1);
  while (placed.midi > high) placed = inOctave(placed, -1);
  return placed;
}

interface HandLimits {
  readonly most: number;
  readonly span: number;
  readonly ceiling: number;
  readonly low: number;
  readonly melody: ReadonlySet<string>;
}

/** What one hand holds of a chord: its bass always, then what says most about the chord. */
function oneHand(chord: readonly Piece[], { most, span, ceiling, low, melody }: HandLimits): Piece[] {
  const sorted = [...new Map(chord.map((n) => [n.midi, n])).values()].sort((a, b) => a.midi - b.midi);
  let bass = sorted[0]!;
  while (bass.midi > ceiling && bass.midi - 12 >= low) bass = inOctave(bass, -1);
  if (bass.midi > ceiling) return [];
  const others = sorted.slice(1).flatMap((note): Piece[] => {
    let placed = note;
    while (placed.midi - bass.midi > span || placed.midi > ceiling) placed = inOctave(placed, -1);
    return placed.midi > bass.midi ? [placed] : [];
  });
  // Octave doublings go first, then the fifth, never the bass.
  const worth = (n: Piece): number => {
    const up = (n.midi - bass.midi) % 12;
    return melody.has(n.id) ? 3 : up === 0 ? 0 : up === 7 ? 1 : 2;
  };
  const kept: Piece[] = [bass];
  for (const note of [...others].sort((a, b) => worth(b) - worth(a) || b.midi - a.midi)) {
    if (kept.length === most) break;
    if (kept.some((n) => n.midi === note.midi)) continue;
    const keys = [...kept, note].map((n) => n.midi).sort((a, b) => a - b);
    const wasClear = note.midi === note.source.midi;
    if (wasClear || isClear(keys)) kept.push(note);
  }
  // The melody goes before everything that keeps it from its place.
  const own = chord.find((n) => melody.has(n.id));
  if (own && !kept.some((n) => n.id === own.id)) {
    let alone = own;
    while (alone.midi > ceiling && alone.midi - 12 >= low) alone = inOctave(alone, -1);
    return alone.midi > ceiling ? [] : [alone];
  }
  return kept.sort((a, b) => a.midi - b.midi);
}

/** A chord an octave nearer to the one before, where the level has no such leap without a beat to move in. */
function nearer(
  chord: readonly Piece[],
  before: { onset: Ticks; notes: readonly Piece[] } | undefined,
  measure: Measure,
  { contract, ceilings, keyboard }: OwnSettings,
): readonly Piece[] {
  if (!before || contract.leap === null || chord.length === 0) return chord;
  const onset = chord[0]!.onset;
  if (onset - before.onset > beatLength(measure.time)) return chord;
  if (before.notes.every((n) => n.onset + n.duration < onset)) return chord;
  const leap = (c: readonly Piece[]): number =>
    Math.min(...c.flatMap((x) => before.notes.map((y) => Math.abs(x.midi - y.midi))));
  if (leap(chord) <= contract.leap) return chord;
  const ceiling = ceilings.over(onset, onset + 1);
  const other = [-1, 1, -2, 2]
    .map((octaves) => chord.map((n) => inOctave(n, octaves)))
    .filter(
      (c) => c.every((n) => n.midi >= keyboard.low && n.midi <= ceiling) && isClear(c.map((n) => n.midi)),
    )
    .find((c) => leap(c) <= contract.leap!);
  return other ?? chord;
}

/**
 * Whether the lowest note at each change of chord is its bass. Where the chords were only heard from the notes, what the
 * source has lowest there is right, a rest too.
 */
function keepsBasses(
  notes: readonly Piece[],
  held: readonly Piece[],
  stretches: MeasureStretches['stretches'],
  source: readonly SoundingNote[] | undefined,
): boolean {
  return stretches.every(({ onset, chord }) => {
    const lowest = lowestAt([...held, ...notes], onset);
    if (lowest === undefined) return source !== undefined && lowestAt(source, onset) === undefined;
    const own = source && lowestAt(source, onset);
    return lowest % 12 === pitchClass(bassOf(chord)) || (own !== undefined && lowest % 12 === own % 12);
  });
}
