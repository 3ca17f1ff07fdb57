/** A version against its level's contract, limit by limit. What breaks one is named per measure; nothing is silent. */
import { dotsAllowed, leftOnsetsIn, shortestValue, type LevelContract } from '../arrange/levels';
import { beatLength, endOf, measureLength } from '../score/metre';
import { writtenValue } from '../score/notate';
import { byMeasure, byOnset, measureAt, soundingNotes, type SoundingNote } from '../score/query';
import type { Measure, Note, Score } from '../score/score';
import { noteValue, type Ticks } from '../score/ticks';

export interface Violation {
  readonly measure: number;
  readonly hand: 'right' | 'left' | 'both';
  readonly limit: string;
  readonly found: string;
  readonly allowed: string;
}

export interface CheckLimits {
  readonly contract: LevelContract;
  /** Semitones per hand. */
  readonly reach: { readonly right: number; readonly left: number };
  readonly keyboard: { readonly low: number; readonly high: number };
}

/** Every limit that a two-staff score breaks, in order of measures. */
export function checkVersion(score: Score, limits: CheckLimits): Violation[] {
  const notes = score.parts.flatMap((p) => p.notes);
  const sounding = soundingNotes(notes);
  const violations = [
    ...checkSignature(score, limits.contract),
    ...checkKeyboard(score, sounding, limits),
    ...checkHands(score, sounding, limits),
    ...checkRhythm(score, notes, limits.contract),
    ...checkTogether(score, sounding, limits.contract),
    ...checkPedal(score, limits.contract),
  ];
  return unique(violations).sort((a, b) => a.measure - b.measure);
}

const unique = (violations: readonly Violation[]): Violation[] => [
  ...new Map(violations.map((v) => [`${v.measure}${v.hand}${v.limit}`, v])).values(),
];

function checkSignature(score: Score, { accidentals }: LevelContract): Violation[] {
  if (accidentals === null) return [];
  return score.measures
    .filter(
      (m, i) =>
        Math.abs(m.key.fifths) > accidentals &&
        (i === 0 || score.measures[i - 1]!.key.fifths !== m.key.fifths),
    )
    .map((m) => ({
      measure: m.index,
      hand: 'both',
      limit: 'accidentals in the key signature',
      found: String(Math.abs(m.key.fifths)),
      allowed: String(accidentals),
    }));
}

function checkKeyboard(score: Score, notes: readonly SoundingNote[], { keyboard }: CheckLimits): Violation[] {
  return notes
    .filter((n) => n.midi < keyboard.low || n.midi > keyboard.high)
    .map((n) => ({
      measure: measureAt(score.measures, n.onset).index,
      hand: handOf(n),
      limit: 'range of the keyboard',
      found: `MIDI ${n.midi}`,
      allowed: `${keyboard.low} to ${keyboard.high}`,
    }));
}

const handOf = (note: { staff: number }): 'right' | 'left' => (note.staff === 1 ? 'right' : 'left');

function checkHands(score: Score, notes: readonly SoundingNote[], limits: CheckLimits): Violation[] {
  return (['right', 'left'] as const).flatMap((hand) => [
    ...checkStrokes(score, hand, byOnset(notes.filter((n) => handOf(n) === hand)), limits),
    ...(hand === 'left' ? checkLeftOnsets(score, notes, limits.contract) : []),
  ]);
}

interface Struck {
  readonly onset: Ticks;
  readonly notes: readonly SoundingNote[];
}

/** Notes at once, spans and leaps of one hand. */
function checkStrokes(
  score: Score,
  hand: 'right' | 'left',
  events: readonly Struck[],
  { contract, reach }: CheckLimits,
): Violation[] {
  const result: Violation[] = [];
  const rolled = new Set(score.parts.flatMap((p) => p.notes.filter((n) => n.arpeggio).map((n) => n.id)));
  const most = hand === 'right' ? contract.rightNotes : contract.leftNotes;
  const span = Math.min(reach[hand], contract.span ?? reach[hand]);
  let held: SoundingNote[] = [];
  events.forEach((event, i) => {
    const measure = measureAt(score.measures, event.onset);
    const add = (limit: string, found: number, allowed: number): void =>
      void result.push({
        measure: measure.index,
        hand,
        limit,
        found: String(found),
        allowed: String(allowed),
      });
    held = held.filter((n) => n.onset + n.duration > event.onset);
    const keys = new Set([...held, ...event.notes].map((n) => n.midi));
    if (keys.size > most) add('notes at once', keys.size, most);
    const width = Math.max(...keys) - Math.min(...keys);
    // A rolled chord is not held at once.
    if (width > span && !event.notes.some((n) => rolled.has(n.id))) add('span in semitones', width, span);
    held.push(...event.notes);
    const before = events[i - 1];
    if (!before || contract.leap === null) return;
    const lastEnd = Math.max(...before.notes.map((n) => n.onset + n.duration));
    const hasBeatToMove = event.onset - before.onset > beatLength(measure.time) || lastEnd < event.onset;
    const leap = Math.min(...event.notes.flatMap((n) => before.notes.map((b) => Math.abs(n.midi - b.midi))));
    if (leap > contract.leap && !hasBeatToMove) add('leap in semitones', leap, contract.leap);
  });
  return result;
}

function checkLeftOnsets(score: Score, notes: readonly SoundingNote[], contract: LevelContract): Violation[] {
  if (contract.leftOnsets === null) return [];
  const left = byMeasure(
    score.measures,
    notes.filter((n) => handOf(n) === 'left'),
  );
  return score.measures.flatMap((measure, i): Violation[] => {
    const count = new Set(left[i]!.map((n) => n.onset)).size;
    const allowed = leftOnsetsIn(contract, measure);
    if (count <= allowed) return [];
    const limit = 'left-hand onsets in a measure';
    return [{ measure: measure.index, hand: 'left', limit, found: String(count), allowed: String(allowed) }];
  });
}

const denominatorOf = (ticks: Ticks): string => `1/${noteValue(1) / ticks}`;

function checkRhythm(score: Score, notes: readonly Note[], contract: LevelContract): Violation[] {
  const result: Violation[] = [];
  for (const note of notes) {
    if (note.grace || note.cue) continue;
    const measure = measureAt(score.measures, note.onset);
    const value = writtenValue(note.duration, note.tuplet);
    const add = (limit: string, found: string, allowed: string): void =>
      void result.push({ measure: measure.index, hand: handOf(note), limit, found, allowed });
    // A syllable keeps its note, and what stands before it lasts until then.
    const isSung = note.lyrics?.some((l) => l.line === 'words') ?? false;
    const undotted = value ? noteValue(value.type) : note.duration;
    const shortest = shortestValue(contract, measure.time);
    const tuplet = value?.tuplet;
    if (tuplet && contract.tuplets === 'none') add('tuplets', `${tuplet.actual} in ${tuplet.normal}`, 'none');
    if (tuplet && contract.tuplets === 'triplets' && (tuplet.actual !== 3 || tuplet.normal !== 2))
      add('tuplets', `${tuplet.actual} in ${tuplet.normal}`, '3 in 2');
    if (undotted < shortest && !(isSung && undotted >= noteValue(8)))
      add('shortest note', denominatorOf(undotted), denominatorOf(shortest));
    const dots = dotsAllowed(contract, measure.time);
    const isFull = note.duration === measureLength(measure.time);
    if (
      value &&
      dots &&
      !isFull &&
      !isSung &&
      (value.dots > 1 || (value.dots === 1 && !dots.includes(value.type)))
    )
      add('dotted notes', `dotted 1/${value.type}`, dots.map((d) => `1/${d}`).join(', '));
  }
  return [...result, ...checkTies(score, notes, contract)];
}

function checkTies(score: Score, notes: readonly Note[], contract: LevelContract): Violation[] {
  if (contract.ties === 'any') return [];
  const tiedOn = (n: Note): boolean => n.tie === 'start' || n.tie === 'both';
  const struck = new Map(soundingNotes(notes).flatMap((s) => s.written.map((id) => [id, s] as const)));
  /** What sounds from barline to barline is read at every level, however it must be written. */
  const fills = (note: Note, { start, time }: Measure): boolean => {
    const whole = struck.get(note.id);
    return (
      whole !== undefined &&
      whole.onset <= start &&
      whole.onset + whole.duration >= start + measureLength(time)
    );
  };
  return notes.filter(tiedOn).flatMap((note): Violation[] => {
    const measure = measureAt(score.measures, note.onset);
    const inside = note.onset + note.duration < endOf(measure);
    if (inside && fills(note, measure)) return [];
    const whole = struck.get(note.id)?.duration ?? note.duration;
    const isLong = whole >= measureLength(measure.time) || (inside && writtenValue(whole) === undefined);
    const [found, allowed] =
      contract.ties === 'fill'
        ? isLong
          ? []
          : ['a tie that no long note needs', 'only to fill a long note']
        : inside
          ? ['inside a measure', 'across a barline']
          : [];
    return found && allowed
      ? [{ measure: measure.index, hand: handOf(note), limit: 'ties', found, allowed }]
      : [];
  });
}

/** No key for both hands, and the left hand below the right, as far as the level asks for it. */
function checkTogether(
  score: Score,
  notes: readonly SoundingNote[],
  { overlap }: LevelContract,
): Violation[] {
  if (overlap === 'written') return [];
  const right = notes.filter((n) => n.staff === 1);
  const left = notes.filter((n) => n.staff === 2);
  let first = 0;
  const longest = right.reduce((most, n) => Math.max(most, n.duration), 0);
  return left.flatMap((l): Violation[] => {
    while (first < right.length && right[first]!.onset + longest <= l.onset) first += 1;
    for (let i = first; i < right.length && right[i]!.onset < l.onset + l.duration; i++) {
      const r = right[i]!;
      if (r.onset + r.duration <= l.onset || r.midi > l.midi) continue;
      // Where held notes free the place, only what is struck together collides, and a key that both need.
      if (overlap === 'freed' && r.onset !== l.onset && r.midi !== l.midi) continue;
      return [
        {
          measure: measureAt(score.measures, l.onset).index,
          hand: 'both',
          limit: 'hands overlap',
          found: 'the left hand at or above the right',
          allowed: 'the left hand below',
        },
      ];
    }
    return [];
  });
}

function checkPedal(score: Score, { pedal }: LevelContract): Violation[] {
  if (pedal !== 'none') return [];
  return score.pedals
    .filter((p) => p.type === 'start')
    .map(({ onset }) => ({
      measure: measureAt(score.measures, onset).index,
      hand: 'both',
      limit: 'pedal',
      found: 'pedal',
      allowed: 'none',
    }));
}
