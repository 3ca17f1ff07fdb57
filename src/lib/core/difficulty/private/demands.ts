/**
 * What a measure asks of each hand and of the eyes, as plain numbers. Widths are counted in staff positions and not in
 * semitones, so that an accidental never makes a leap smaller; what happens often is counted for four quarters, so that
 * long measures are not harder for being long.
 */
import { shownAccidentals } from '../../score/accidentals';
import { beatLength, endOf, isCompound, metricalStrength, placeInMeasure } from '../../score/metre';
import { accidentalText, staffPosition } from '../../theory/pitch';
import { byMeasure, byOnset, keyboardPart, soundingNotes, type SoundingNote } from '../../score/query';
import type { Measure, Note, Part, Score } from '../../score/score';
import { TICKS_PER_QUARTER, type Ticks } from '../../score/ticks';

export interface HandDemands {
  /** Strokes a second: over the measure, and where they follow each other most quickly. */
  readonly strokesPerSecond: number;
  readonly quickest: number;
  /** The shortest time between two strokes, in ticks; 0 where there is only one. */
  readonly shortest: Ticks;
  /** Notes struck or held together, at every stroke. */
  readonly notesAtOnce: readonly number[];
  /** Widest hold, in staff positions: 7 is an octave. */
  readonly span: number;
  /** Widest leap in staff positions, and all leaps beyond a fifth weighted by the haste they are made in. */
  readonly leap: number;
  readonly leapStrain: number;
  /** How often the hand must leave the five keys it lies on, for four quarters. */
  readonly moves: number;
  /** Into how many parts beats are divided at the strokes: 2 for eighths in 4/4, 3 for triplets there and for eighths in 6/8. */
  readonly divisions: readonly number[];
  readonly dotted: boolean;
  /** Strokes that are held over a stronger place than their own, weighted, for four quarters. */
  readonly syncopation: number;
  /** Strokes while another note of the hand is held, for four quarters. */
  readonly heldUnder: number;
  /** Names of the accidentals printed, one for each. */
  readonly accidentals: readonly string[];
  /** Names of the notes that the key signature changes and the measure has. */
  readonly bySignature: readonly string[];
  /** Ledger lines beyond the first, added up. */
  readonly ledgerLines: number;
  readonly ledgerSide: 'above' | 'below';
  /** Ornaments and grace notes. */
  readonly ornaments: number;
}

export interface MeasureDemands {
  readonly compound: boolean;
  /** Accidentals in the signature. */
  readonly signature: number;
  /** Four quarters over the length of the measure. */
  readonly perFour: number;
  /** Quarters a minute. */
  readonly tempo: number;
  readonly right: HandDemands | null;
  readonly left: HandDemands | null;
  /** Strokes of each hand on its own, the smaller number of the two, for four quarters. */
  readonly apart: number;
}

/** Taken where a source names no tempo, in quarters a minute. */
const USUAL_TEMPO = 100;

/** What every measure demands of who plays the keyboard part. */
export function demandsOf(score: Score): MeasureDemands[] {
  if (score.parts.length === 0) return [];
  const part = keyboardPart(score);
  const sounding = soundingNotes(part.notes);
  const written = byMeasure(score.measures, part.notes);
  const hands = [1, 2].map((staff) => {
    const events = eventsOf(sounding.filter((n) => n.staff === staff));
    return { staff, events, byMeasure: eventsByMeasure(score.measures, events) };
  });
  return score.measures.map((measure, i): MeasureDemands => {
    const tempo = tempoAt(score, measure.start) || USUAL_TEMPO;
    const perFour = (4 * TICKS_PER_QUARTER) / Math.max(TICKS_PER_QUARTER, measure.length);
    const shown = shownAccidentals(measure, written[i]!);
    const [right, left] = hands.map(({ staff, events, byMeasure: groups }) => {
      const own = groups[i]!;
      if (own.from === own.to) return null;
      return handDemands(measure, events, own, {
        secondsPerTick: 60 / tempo / TICKS_PER_QUARTER,
        perFour,
        written: written[i]!.filter((n) => n.staff === staff),
        shown,
        part,
        staff,
      });
    });
    const onsets = hands.map(
      ({ events, byMeasure: groups }) =>
        new Set(events.slice(groups[i]!.from, groups[i]!.to).map((e) => e.onset)),
    );
    const alone = (own: ReadonlySet<Ticks>, other: ReadonlySet<Ticks>): number =>
      [...own].filter((onset) => !other.has(onset)).length;
    return {
      compound: isCompound(measure.time),
      signature: Math.abs(measure.key.fifths),
      perFour,
      tempo,
      right: right ?? null,
      left: left ?? null,
      apart: perFour * Math.min(alone(onsets[0]!, onsets[1]!), alone(onsets[1]!, onsets[0]!)),
    };
  });
}

const tempoAt = (score: Score, tick: Ticks): number =>
  score.tempoChanges?.findLast((change) => change.onset <= tick)?.tempo ?? score.tempo;

/** One stroke of a hand, with what it holds on from before. */
interface Stroke {
  readonly onset: Ticks;
  readonly notes: readonly SoundingNote[];
  readonly held: readonly SoundingNote[];
}

function eventsOf(notes: readonly SoundingNote[]): Stroke[] {
  let open: SoundingNote[] = [];
  return byOnset(notes).map(({ onset, notes: struck }) => {
    const held = open.filter((n) => n.onset + n.duration > onset);
    open = [...held, ...struck];
    return { onset, notes: struck, held };
  });
}

interface Range {
  readonly from: number;
  /** Exclusive. */
  readonly to: number;
}

function eventsByMeasure(measures: readonly Measure[], events: readonly Stroke[]): Range[] {
  let at = 0;
  return measures.map((measure, i) => {
    const from = at;
    const last = i === measures.length - 1;
    while (at < events.length && (last || events[at]!.onset < endOf(measure))) at += 1;
    return { from, to: at };
  });
}

interface Surroundings {
  readonly secondsPerTick: number;
  readonly perFour: number;
  readonly written: readonly Note[];
  readonly shown: ReadonlySet<string>;
  readonly part: Part;
  readonly staff: number;
}

function handDemands(
  measure: Measure,
  events: readonly Stroke[],
  { from, to }: Range,
  around: Surroundings,
): HandDemands {
  const { secondsPerTick, perFour, written } = around;
  const own = events.slice(from, to);
  const gaps = own.flatMap((event, i) => {
    const next = events[from + i + 1];
    return next ? [next.onset - event.onset] : [];
  });
  const shortest = gaps.length > 0 ? Math.min(...gaps) : 0;
  const leaps = own.flatMap((event, i) => {
    const before = events[from + i - 1];
    return before ? [{ steps: leapBetween(before, event), gap: event.onset - before.onset }] : [];
  });
  return {
    strokesPerSecond: own.length / (Math.max(measure.length, TICKS_PER_QUARTER) * secondsPerTick),
    quickest: shortest > 0 ? 1 / (shortest * secondsPerTick) : 0,
    shortest,
    notesAtOnce: own.map((e) => e.notes.length + e.held.length),
    span: Math.max(...own.map((e) => widthOf([...e.notes, ...e.held]))),
    leap: Math.max(0, ...leaps.map((l) => l.steps)),
    leapStrain:
      perFour *
      leaps.reduce((sum, l) => sum + Math.max(0, l.steps - FIFTH) / (l.gap * secondsPerTick + LEAP_EASE), 0),
    moves: perFour * movesOf(from > 0 ? events.slice(from - 1, to) : own),
    divisions: [...new Set(own.map((event) => divisionOf(measure, event)))].sort((a, b) => a - b),
    dotted: own.some((e) => e.notes.some((n) => isDotted(measure, n))),
    syncopation: perFour * own.reduce((sum, event) => sum + syncopationOf(measure, event), 0),
    heldUnder: perFour * own.filter((e) => e.held.length > 0).length,
    accidentals: written
      .filter((n) => around.shown.has(n.id))
      .map((n) => n.pitch.step + (accidentalText(n.pitch.alter) || '♮')),
    bySignature: [
      ...new Set(
        written
          .filter((n) => n.pitch.alter !== 0 && Math.sign(n.pitch.alter) === Math.sign(measure.key.fifths))
          .filter((n) => !around.shown.has(n.id))
          .map((n) => n.pitch.step + accidentalText(n.pitch.alter)),
      ),
    ],
    ...ledgerOf(written, around),
    ornaments: written.reduce((sum, n) => sum + (n.grace ? 1 : 0) + (n.ornaments?.length ?? 0), 0),
  };
}

/** A fifth, in staff positions: what five fingers span. */
const FIFTH = 4;
/** Added to the time for a leap, in seconds: however long it is, a leap must be aimed at. */
const LEAP_EASE = 0.4;

const positions = (notes: readonly SoundingNote[]): number[] => notes.map((n) => staffPosition(n.pitch));

function widthOf(notes: readonly SoundingNote[]): number {
  const at = positions(notes);
  return Math.max(...at) - Math.min(...at);
}

/** How far the hand must go: by its lowest or by its highest note, whichever moves less. */
function leapBetween(before: Stroke, after: Stroke): number {
  const [a, b] = [positions(before.notes), positions(after.notes)];
  return Math.min(Math.abs(Math.min(...b) - Math.min(...a)), Math.abs(Math.max(...b) - Math.max(...a)));
}

/** The fewest moves of a hand that covers five keys: greedy cover, which no other order of moves undercuts. */
function movesOf(events: readonly Stroke[]): number {
  let moves = 0;
  let low = Infinity;
  let high = -Infinity;
  for (const { notes } of events) {
    const at = positions(notes);
    const [lowest, highest] = [Math.min(low, ...at), Math.max(high, ...at)];
    if (highest - lowest > FIFTH && low !== Infinity) {
      moves += 1;
      low = Math.min(...at);
      high = Math.max(...at);
    } else {
      low = lowest;
      high = highest;
    }
  }
  return moves;
}

/** The smallest number of equal parts of a beat at whose borders a stroke begins and, if it lies inside a beat, ends. */
function divisionOf(measure: Measure, { onset, notes }: Stroke): number {
  const beat = beatLength(measure.time);
  const place = placeInMeasure(measure, onset);
  const length = Math.min(...notes.map((n) => n.duration));
  for (let parts = 1; parts < 16; parts++)
    if ((place * parts) % beat === 0 && (length >= beat || (length * parts) % beat === 0)) return parts;
  return 16;
}

/** A note half as long again as a plain one, followed by what fills the beat: not a plain beat of compound metre. */
function isDotted(measure: Measure, note: SoundingNote): boolean {
  const beat = beatLength(measure.time);
  const plain = (note.duration * 2) / 3;
  const fillsBeats = note.duration % beat === 0 && placeInMeasure(measure, note.onset) % beat === 0;
  return !fillsBeats && Number.isInteger(Math.log2(plain / TICKS_PER_QUARTER));
}

/** 1 for a stroke between beats that lasts over one, less for what lasts over a stronger beat or half of a beat. */
function syncopationOf(measure: Measure, { onset, notes }: Stroke): number {
  const start = placeInMeasure(measure, onset);
  const strength = metricalStrength(measure.time, start);
  const end = start + Math.max(...notes.map((n) => n.duration));
  const beat = beatLength(measure.time);
  const step = beat / (isCompound(measure.time) ? 3 : 2);
  let strongest = strength;
  for (let place = Math.floor(start / step) * step + step; place < end; place += step)
    strongest = Math.max(strongest, metricalStrength(measure.time, place)) as typeof strength;
  if (strongest <= strength) return 0;
  if (strength >= 2) return 0.4;
  return strongest >= 2 ? 1 : 0.7;
}

/** Staff positions of the lowest and the highest line, without a clef of the source's own. */
const LINES = { G: { low: 30, high: 38 }, F: { low: 18, high: 26 } } as const;
const CLEF_LINE = { G: 32, F: 24, C: 28 } as const;

function ledgerOf(
  written: readonly Note[],
  { part, staff }: Surroundings,
): Pick<HandDemands, 'ledgerLines' | 'ledgerSide'> {
  let above = 0;
  let below = 0;
  for (const note of written) {
    const clef = part.clefs?.findLast((c) => c.staff === staff && c.onset <= note.onset);
    const lines = clef
      ? { low: CLEF_LINE[clef.sign] - 2 * (clef.line - 1) + 7 * (clef.octaves ?? 0) }
      : LINES[staff === 1 ? 'G' : 'F'];
    const at = staffPosition(note.pitch);
    above += Math.max(0, Math.floor((at - (lines.low + 8)) / 2) - 1);
    below += Math.max(0, Math.floor((lines.low - at) / 2) - 1);
  }
  return { ledgerLines: above + below, ledgerSide: below > above ? 'below' : 'above' };
}
