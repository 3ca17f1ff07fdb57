/**
 * A bare tune is harmonised, not heard: chords of the key's own degrees, first I, IV and V, at a steady pace, by the best path
 * over the tune. Strong and long notes are chord tones where they can be, leaps outline one chord, phrases close on V or home,
 * the last chord is home by way of V; minor takes its V with the raised leading note, and a secondary dominant stands only
 * where the tune has the altered note itself (music-rules, "What a teacher would correct first").
 */
import {
  beatLength,
  endOf,
  isCompound,
  measureLength,
  metricalStrength,
  placeInMeasure,
} from '../../score/metre';
import { isOneLine, measureAt, soundingNotes, type SoundingNote } from '../../score/query';
import type { Measure, Score, TimeSignature } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import { chordTones, type Chord } from '../../theory/chord';
import { pitchClass } from '../../theory/fifths';
import { tonicFifths, type Key } from '../../theory/key';
import { DEGREES, follows, type Degree } from './degrees';
import { formOf } from '../form';

interface ProposedChord {
  readonly onset: Ticks;
  readonly duration: Ticks;
  /** Null where nothing is to be played: under a pickup. */
  readonly chord: Chord | null;
  /** What would do as well there, the better one first. */
  readonly alternatives: readonly Chord[];
}

/** Whether a score is one line without chord symbols: nothing in it says what its chords are. */
export function isBareTune(score: Score): boolean {
  if (score.chordSymbols.some((s) => s.chord)) return false;
  const notes = linesOf(score);
  return isOneLine(notes) && !notes.some((n) => n.staff > 1);
}

const linesOf = (score: Score): SoundingNote[] =>
  score.parts.flatMap((p) => soundingNotes(p.notes)).sort((a, b) => a.onset - b.onset);

/** A place at which the chord may change, up to the next. */
interface Slot {
  readonly onset: Ticks;
  readonly end: Ticks;
  readonly key: Key;
  /** First of its measure. */
  readonly isDownbeat: boolean;
  readonly isPickup: boolean;
  /** What is sung in it, and the pitch classes of its whole measure. */
  readonly notes: readonly Weighed[];
  readonly inMeasure: ReadonlySet<number>;
  /** The last note of a phrase stands in it. */
  readonly closes: 'phrase' | 'piece' | undefined;
  /** The number of the slot that it is note for note the same as. */
  readonly model: number | undefined;
}

interface Weighed {
  readonly pc: number;
  /** By its share of a measure, more on strong beats. */
  readonly weight: number;
  /** How much it minds being outside the chord. */
  readonly tension: number;
}

/** A note on a beat of each strength weighs so much more or less than it lasts. */
const BY_STRENGTH = [0.5, 0.7, 1.1, 1.3, 1.6] as const;
const HELD = 0.8;
/** What a full measure of notes weighs: as much as four beats of common time. */
const FULL = 3.6;
const PASSING = 0.2;
const PASSING_ON_BEAT = 0.6;
const LEANING = 0.7;
const LEAPT = 1.4;
/** The leading note on a beat, where it goes home: it asks for V, however short a step it is from the tonic on either side. */
const LEADING = 1.4;
/** A seventh is a tone of its chord, but a poor one for a tune to rest on. */
const SEVENTH = 0.35;

/** What a change of chord costs inside a measure, and at its beginning. */
const CHANGE_INSIDE = 0.75;
const CHANGE = 0.12;
/** A chord that stays for another measure. */
const STAYS = 0.06;
/** What costs a phrase that does not close on home or V, and a piece that does not close at home. */
const CLOSES_ELSEWHERE = 0.9;
const CLOSES_ON_DOMINANT = 0.15;
const ENDS_ELSEWHERE = 6;
const ENDS_WITHOUT_DOMINANT = 0.7;
const BEGINS_ELSEWHERE = 0.7;
/** The tonic or the third at the end of a phrase closes it at home; any other note leaves it open. */
const LEFT_OPEN = 0.55;
/** What it saves to be set as the same measure was before. */
const AS_BEFORE = 1.2;
/** A secondary dominant that does not go where it leads. */
const LEADS_NOWHERE = 1.5;
const MOST_ALTERNATIVES = 2;

/** Harmonises a bare tune. Spans without gaps, each to the next. */
export function harmonise(score: Score): ProposedChord[] {
  const slots = slotsOf(score);
  const degrees = slots.map(({ key }) => DEGREES[key.mode]);
  const own = slots.map((slot, i) =>
    degrees[i]!.map((degree) => ownCost(slot, degree, i === firstOf(slots))),
  );
  const step = (i: number, a: number, b: number): number =>
    stepCost(slots[i]!, slots[i + 1]!, degrees[i]![a]!, degrees[i + 1]![b]!);
  // What the tune sings again is set again as it was: the first time decides, where the tune lets it.
  const once = bestPath(own, step).path;
  const again = own.map((costs, i) => {
    const model = slots[i]!.model;
    return model === undefined
      ? costs
      : costs.map((cost, d) => (d === once[model] ? cost - AS_BEFORE : cost));
  });
  const { path, through } = bestPath(again, step);
  return spansOf(slots, path, (slot, chosen) =>
    [...through[slot]!.keys()]
      .filter((d) => d !== chosen && Number.isFinite(through[slot]![d]!))
      .sort((a, b) => through[slot]![a]! - through[slot]![b]!),
  );
}

const firstOf = (slots: readonly Slot[]): number =>
  Math.max(
    0,
    slots.findIndex((s) => !s.isPickup),
  );

/** Where chords may change in a full measure: its half in common time and in compound metre, its groups in an odd one. */
function changesIn(time: TimeSignature): Ticks[] {
  const beat = beatLength(time);
  const beats = measureLength(time) / beat;
  if (isCompound(time)) return beats % 2 === 0 ? [0, measureLength(time) / 2] : [0];
  if (beats >= 4 && beats % 2 === 0) return [0, measureLength(time) / 2];
  if (beats === 2 && time.beatType === 2) return [0, beat];
  if (beats === 5) return [0, 3 * beat];
  return [0];
}

function slotsOf(score: Score): Slot[] {
  const notes = linesOf(score);
  const { phrases, firstSeen } = formOf(score);
  const lastNote = notes.at(-1)!;
  /** Onsets of the notes with which phrases close. */
  const closing = new Set(
    phrases.flatMap((phrase, i) => {
      const last = score.measures[phrase.to]!;
      const end = endOf(last) - (phrases[i + 1]?.pickup ?? 0);
      const note = notes.findLast((n) => n.onset < end && n.onset >= last.start);
      return note ? [note.onset] : [];
    }),
  );
  const leading = leadingNotes(score, notes, closing);
  const numbers: number[] = [];
  let count = 0;
  return score.measures.flatMap((measure) => {
    const places = changesIn(measure.time).map((place) => measure.start + place - measure.beginsAt);
    // In threes the chord may change for the last beat where that leads home.
    const lastBeat = endOf(measure) - beatLength(measure.time);
    if (places.length === 1 && notes.some((n) => n.onset === lastBeat && leading.has(n.onset)))
      places.push(lastBeat);
    const onsets = [measure.start, ...places.filter((at) => at > measure.start && at < endOf(measure))];
    numbers.push(count);
    count += onsets.length;
    const first = firstSeen[measure.index]!;
    const inMeasure = new Set(
      notes
        .filter((n) => n.onset < endOf(measure) && n.onset + n.duration > measure.start)
        .map((n) => n.midi % 12),
    );
    return onsets.map((onset, i): Slot => {
      const end = onsets[i + 1] ?? endOf(measure);
      const within = notes.filter((n) => n.onset < end && n.onset + n.duration > onset);
      const closes = within.some((n) => n === lastNote)
        ? 'piece'
        : within.some((n) => closing.has(n.onset) && n.onset >= onset)
          ? 'phrase'
          : undefined;
      return {
        onset,
        end,
        key: measure.key,
        isDownbeat: i === 0,
        isPickup: measure.index === 0 && measure.beginsAt > 0,
        inMeasure,
        notes: within.map((n) => {
          const own = weighed(n, notes, measure, onset, end);
          return leading.has(n.onset) ? { ...own, tension: Math.max(own.tension, LEADING) } : own;
        }),
        closes,
        model: first === measure.index ? undefined : numbers[first]! + i,
      };
    });
  });
}

/**
 * Onsets of leading notes that stand on a beat and go home: in minor, where they are raised for that, and in any key before the tonic
 * with which a phrase closes.
 */
function leadingNotes(
  { measures }: Score,
  notes: readonly SoundingNote[],
  closing: ReadonlySet<Ticks>,
): ReadonlySet<Ticks> {
  return new Set(
    notes.flatMap((note, i) => {
      const next = notes[i + 1];
      const { time, key, start, beginsAt } = measureAt(measures, note.onset);
      const tonic = pitchClass(tonicFifths(key));
      const isOnBeat = (note.onset - start + beginsAt) % beatLength(time) === 0;
      const goesHome = next !== undefined && next.midi === note.midi + 1 && next.midi % 12 === tonic;
      return isOnBeat && goesHome && (key.mode === 'minor' || closing.has(next.onset)) ? [note.onset] : [];
    }),
  );
}

/** A note in a slot: by how long and how strong it is there, and how it comes and goes. */
function weighed(
  note: SoundingNote,
  line: readonly SoundingNote[],
  measure: Measure,
  from: Ticks,
  to: Ticks,
): Weighed {
  const i = line.indexOf(note);
  const [before, after] = [line[i - 1], line[i + 1]];
  const isStruck = note.onset >= from;
  const strength = metricalStrength(measure.time, placeInMeasure(measure, Math.max(from, note.onset)));
  const sounds = Math.min(to, note.onset + note.duration) - Math.max(from, note.onset);
  const stepTo = (other: SoundingNote | undefined): boolean => {
    const size = other ? Math.abs(other.midi - note.midi) : 0;
    return size === 1 || size === 2;
  };
  const tension = (): number => {
    if (stepTo(before) && stepTo(after)) return strength < 2 ? PASSING : PASSING_ON_BEAT;
    if (stepTo(after)) return LEANING;
    return stepTo(before) ? 1 : LEAPT;
  };
  return {
    pc: note.midi % 12,
    weight: ((FULL * sounds) / measureLength(measure.time)) * (isStruck ? BY_STRENGTH[strength] : HELD),
    tension: tension(),
  };
}

const tonesOf = new Map<string, readonly number[]>();

/** Pitch classes of a degree's chord in a key, the root first. */
function tones(degree: Degree, key: Key): readonly number[] {
  const name = `${degree.name} ${degree.root} ${degree.kind} ${key.fifths} ${key.mode}`;
  const known = tonesOf.get(name) ?? chordTones(chordOn(degree, key, true)).map(pitchClass);
  tonesOf.set(name, known);
  return known;
}

/** The chord of a degree, its seventh with it where it leads on. */
const chordOn = (degree: Degree, key: Key, leads: boolean): Chord => ({
  root: tonicFifths(key) + degree.root,
  kind: degree.kind === 'dominant' ? (leads ? 'dominant7' : 'major') : degree.kind,
});

const sameKey = (a: Key, b: Key): boolean => a.fifths === b.fifths && a.mode === b.mode;

/** What a degree costs in a slot by itself. Infinite where the tune forbids it. */
function ownCost(slot: Slot, degree: Degree, isFirst: boolean): number {
  if (slot.isPickup) return 0;
  const own = tones(degree, slot.key);
  const tonic = pitchClass(tonicFifths(slot.key));
  const has = (interval: number): boolean => slot.notes.some((n) => n.pc === (tonic + interval) % 12);
  if (degree.needs !== undefined && !slot.inMeasure.has((tonic + degree.needs) % 12)) return Infinity;
  if (degree.bars !== undefined && has(degree.bars)) return Infinity;
  let cost = degree.cost;
  for (const { pc, weight, tension } of slot.notes) {
    const place = own.indexOf(pc);
    if (place < 0) cost += weight * tension;
    else if (place === 3) cost += weight * SEVENTH;
  }
  if (isFirst && degree.name !== 'I') cost += BEGINS_ELSEWHERE;
  if (slot.closes === 'piece' && degree.name !== 'I') cost += ENDS_ELSEWHERE;
  if (slot.closes === 'phrase') {
    const last = slot.notes.at(-1)?.pc;
    const isAtHome = last !== undefined && (last === own[0] || last === own[1]);
    if (degree.name === 'I') cost += isAtHome ? 0 : LEFT_OPEN;
    else cost += degree.name === 'V' ? CLOSES_ON_DOMINANT : CLOSES_ELSEWHERE;
  }
  return cost;
}

function stepCost(slot: Slot, next: Slot, a: Degree, b: Degree): number {
  if (slot.isPickup || next.isPickup) return 0;
  const isSame = a.name === b.name && sameKey(slot.key, next.key);
  const change = isSame
    ? next.isDownbeat
      ? STAYS
      : 0
    : (next.isDownbeat ? CHANGE : CHANGE_INSIDE) + (sameKey(slot.key, next.key) ? follows(a, b) : 0);
  const nowhere = a.leadsTo !== undefined && b.name !== a.leadsTo && !isSame ? LEADS_NOWHERE : 0;
  const plain =
    next.closes === 'piece' && b.name === 'I' && !isSame && a.name !== 'V' ? ENDS_WITHOUT_DOMINANT : 0;
  return change + nowhere + plain;
}

/** The cheapest path, and for every slot and degree what the cheapest path through it costs. */
function bestPath(
  own: readonly (readonly number[])[],
  step: (slot: number, from: number, to: number) => number,
): { path: number[]; through: number[][] } {
  const last = own.length - 1;
  const before = own.map((costs) => costs.map(() => 0));
  const after = own.map((costs) => costs.map(() => 0));
  for (let i = 1; i <= last; i++)
    own[i]!.forEach((_, b) => {
      before[i]![b] = Math.min(
        ...own[i - 1]!.map((cost, a) => before[i - 1]![a]! + cost + step(i - 1, a, b)),
      );
    });
  for (let i = last - 1; i >= 0; i--)
    own[i]!.forEach((_, a) => {
      after[i]![a] = Math.min(...own[i + 1]!.map((cost, b) => after[i + 1]![b]! + cost + step(i, a, b)));
    });
  const through = own.map((costs, i) => costs.map((cost, d) => before[i]![d]! + cost + after[i]![d]!));
  const path: number[] = [];
  for (let i = 0; i <= last; i++) {
    const from = path[i - 1];
    const cost = (d: number): number =>
      own[i]![d]! + after[i]![d]! + (from === undefined ? before[i]![d]! : step(i - 1, from, d));
    path.push(own[i]!.reduce((best, _, d) => (cost(d) < cost(best) ? d : best), 0));
  }
  return { path, through };
}

/** Slots of one degree as one chord, with what else would do where it begins. */
function spansOf(
  slots: readonly Slot[],
  path: readonly number[],
  others: (slot: number, chosen: number) => number[],
): ProposedChord[] {
  const spans: ProposedChord[] = [];
  for (let i = 0; i < slots.length;) {
    const slot = slots[i]!;
    const list = DEGREES[slot.key.mode];
    const degree = list[path[i]!]!;
    let next = i + 1;
    while (
      next < slots.length &&
      path[next] === path[i] &&
      sameKey(slots[next]!.key, slot.key) &&
      slots[next]!.isPickup === slot.isPickup
    )
      next += 1;
    const follower = slots[next] && DEGREES[slots[next]!.key.mode][path[next]!]!;
    const chord = (d: Degree): Chord =>
      chordOn(d, slot.key, follower !== undefined && (d.leadsTo ?? 'I') === follower.name);
    spans.push({
      onset: slot.onset,
      duration: slots[next - 1]!.end - slot.onset,
      chord: slot.isPickup ? null : chord(degree),
      alternatives: slot.isPickup
        ? []
        : others(i, path[i]!)
            .slice(0, MOST_ALTERNATIVES)
            .map((d) => chord(list[d]!)),
    });
    i = next;
  }
  return spans;
}
