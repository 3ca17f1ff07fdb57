/** A version against its level's contract, limit by limit. What breaks one is named per measure; nothing is silent. */
import { shortestValue } from '../arrange/reduceMelody';
import type { LevelContract } from '../arrange/levels';
import { beatLength, endOf, isCompound } from '../score/metre';
import { writtenValue } from '../score/notate';
import { byOnset, measureAt, soundingNotes, type SoundingNote } from '../score/query';
import type { Measure, Note, Score } from '../score/score';

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
    ...checkTogether(score, sounding),
  ];
  return unique(violations).sort((a, b) => a.measure - b.measure);
}

const unique = (violations: readonly Violation[]): Violation[] => [
  ...new Map(violations.map((v) => [`${v.measure}${v.hand}${v.limit}`, v])).values(),
];

function checkSignature(score: Score, contract: LevelContract): Violation[] {
  return score.measures
    .filter(
      (m, i) =>
        Math.abs(m.key.fifths) > contract.accidentals &&
        (i === 0 || score.measures[i - 1]!.key.fifths !== m.key.fifths),
    )
    .map((m) => ({
      measure: m.index,
      hand: 'both',
      limit: 'accidentals in the key signature',
      found: String(Math.abs(m.key.fifths)),
      allowed: String(contract.accidentals),
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
  const { contract } = limits;
  const result: Violation[] = [];
  for (const hand of ['right', 'left'] as const) {
    const own = notes.filter((n) => handOf(n) === hand);
    const events = byOnset(own);
    const most = hand === 'right' ? contract.rightNotes : contract.leftNotes;
    const span = Math.min(limits.reach[hand], contract.span ?? limits.reach[hand]);
    const perMeasure = new Map<Measure, number>();
    events.forEach((event, i) => {
      const measure = measureAt(score.measures, event.onset);
      const add = (limit: string, found: number | string, allowed: number | string): void =>
        void result.push({
          measure: measure.index,
          hand,
          limit,
          found: String(found),
          allowed: String(allowed),
        });
      perMeasure.set(measure, (perMeasure.get(measure) ?? 0) + 1);
      const held = own.filter((n) => n.onset < event.onset && n.onset + n.duration > event.onset);
      const together = [...held, ...event.notes].map((n) => n.midi).sort((a, b) => a - b);
      if (together.length > most) add('notes at once', together.length, most);
      const width = together.at(-1)! - together[0]!;
      if (width > span) add('span in semitones', width, span);
      const before = events[i - 1];
      if (!before) return;
      const lastEnd = Math.max(...before.notes.map((n) => n.onset + n.duration));
      const hasBeatToMove = event.onset - before.onset > beatLength(measure.time) || lastEnd < event.onset;
      const leap = Math.min(
        ...event.notes.flatMap((n) => before.notes.map((b) => Math.abs(n.midi - b.midi))),
      );
      if (leap > contract.leap && !hasBeatToMove) add('leap in semitones', leap, contract.leap);
    });
    if (hand === 'left')
      for (const [measure, count] of perMeasure) {
        const beats = Math.max(1, Math.round(measure.length / beatLength(measure.time)));
        const allowed = contract.leftOnsets.perMeasure ?? (contract.leftOnsets.perBeat ?? 1) * beats;
        if (count > allowed)
          result.push({
            measure: measure.index,
            hand,
            limit: 'left-hand onsets in a measure',
            found: String(count),
            allowed: String(allowed),
          });
      }
  }
  return result;
}

function checkRhythm(score: Score, notes: readonly Note[], contract: LevelContract): Violation[] {
  const result: Violation[] = [];
  for (const note of notes) {
    if (note.grace || note.cue) continue;
    const measure = measureAt(score.measures, note.onset);
    const value = writtenValue(note.duration, note.tuplet);
    const add = (limit: string, found: string, allowed: string): void =>
      void result.push({ measure: measure.index, hand: handOf(note), limit, found, allowed });
    const undotted = value ? (4 * 10080) / value.type : note.duration;
    const shortest = shortestValue(contract, measure.time);
    if (value?.tuplet && !contract.triplets)
      add('tuplets', `${value.tuplet.actual} in ${value.tuplet.normal}`, 'none');
    if (undotted < shortest) add('shortest note', `1/${value?.type ?? '?'}`, `1/${(4 * 10080) / shortest}`);
    const dots = isCompound(measure.time) ? contract.dottedCompound : contract.dotted;
    if (value && (value.dots > 1 || (value.dots === 1 && !dots.includes(value.type))))
      add('dotted notes', `dotted 1/${value.type}`, dots.map((d) => `1/${d}`).join(', '));
    const tiedOn = note.tie === 'start' || note.tie === 'both';
    if (contract.ties === 'barline' && tiedOn && note.onset + note.duration < endOf(measure))
      add('ties', 'inside a measure', 'across a barline');
  }
  return result;
}

/** No key for both hands, and the left hand below the right. */
function checkTogether(score: Score, notes: readonly SoundingNote[]): Violation[] {
  const right = notes.filter((n) => n.staff === 1);
  const left = notes.filter((n) => n.staff === 2);
  return left
    .filter((l) =>
      right.some((r) => r.onset < l.onset + l.duration && l.onset < r.onset + r.duration && r.midi <= l.midi),
    )
    .map((l) => ({
      measure: measureAt(score.measures, l.onset).index,
      hand: 'both',
      limit: 'hands overlap',
      found: 'the left hand at or above the right',
      allowed: 'the left hand below',
    }));
}
