/**
 * Who has the tune in a band, phrase by phrase. Every player's upper line is weighed measure by measure: how it moves, where it lies,
 * whether it breathes, whether it is a figure that goes on and on, what the instrument is usually for. The best way through the players
 * is taken; going over to another costs much within a phrase, and little where the one before rests and the next begins. Each phrase
 * keeps one octave.
 */
import { upperLine } from '../analysis/melody';
import { cheapestPath } from '../cheapestPath';
import { beatLength } from '../score/metre';
import { byMeasure, byOnset, soundingNotes, type SoundingNote } from '../score/query';
import type { Measure, Part, Score } from '../score/score';
import type { Ticks } from '../score/ticks';
import { inGladOctaves } from './private/octaves';
import { familyOf, isForTwoHands, leadOfName } from './instruments';
import { splitHands } from './splitHands';

/** A stretch of the piece in which one player has the tune. */
export interface TunePhrase {
  /** Index of its first and last measure. */
  readonly from: number;
  readonly to: number;
  /** The part's id. */
  readonly part: string;
  /** Where its first note may stand: before the barline where it begins with a pickup. */
  readonly start: Ticks;
}

/** Notes of a measure as a player has them. */
interface Played {
  readonly line: readonly SoundingNote[];
  /** Share of the strokes with two, and with three or more keys. */
  readonly double: number;
  readonly chords: number;
  /** Share of the measure in which something sounds. */
  readonly sounding: number;
  /** The same figure goes on and on around here. */
  readonly isFigure: boolean;
}

interface Player {
  readonly part: Part;
  readonly line: readonly SoundingNote[];
  readonly played: readonly Played[];
  /** Points for what it is, wherever it plays. */
  readonly leads: number;
}

/** Measures of rest in which a tune breathes; what it costs when it is silent for longer. */
const BREATH = 2;
const LONG_SILENT = -2.4;
/** Whoever plays above the basses is better than nobody. */
const LEAST = -1.9;

/** Points. A voice that moves by step in the register of voices, in varied rhythm, is a tune; the rest takes away from it. */
const SILENT = -0.45;
const HELD = -0.1;
const STEPS = 0.9;
const VARIED = 0.45;
const IN_REGISTER = 0.35;
const LOW = 0.09;
const HIGH = 0.05;
const LEAPS = 0.8;
const WIDE_LEAPS = 1.6;
const REPEATS = 0.7;
const DOUBLE = 0.25;
const CHORDS = 1.3;
const FIGURE = 1.1;
const SPARSE = 0.5;
const DENSE = 0.35;
/** The more of the piece a player leads, the likelier the rest. */
const PRESENCE = 1.2;

/** What it costs to go over to another player: anywhere, where the music divides, and where the one rests and the other begins. */
const SWITCH = { anywhere: 5, atFour: 3.4, atBreath: 1.7 };

/** Measures in a row of one figure that make it an accompaniment. */
const FIGURE_RUNS = 4;

/** C4 to A5: where tunes lie. */
const REGISTER = { low: 60, high: 81 };

/** The key of a figure: when it strikes, and how it moves. */
const figureOf = (notes: readonly SoundingNote[], start: Ticks): string =>
  notes.map((n, i) => `${n.onset - start}${i === 0 ? '' : `:${n.midi - notes[0]!.midi}`}`).join(' ');

const rhythmOf = (notes: readonly SoundingNote[], start: Ticks): string =>
  notes.map((n) => n.onset - start).join(' ');

/** Measures around which something comes in every measure, or in every second one, at least so often. */
function inRuns(keys: readonly string[], least: number): boolean[] {
  const found = keys.map(() => false);
  for (const period of [1, 2]) {
    let run = 0;
    for (let i = period; i <= keys.length; i++) {
      if (i < keys.length && keys[i] !== '' && keys[i] === keys[i - period]) run += 1;
      else {
        if (run + period >= least * period) found.fill(true, i - run - period, i);
        run = 0;
      }
    }
  }
  return found;
}

/** A player's notes, measure by measure. */
function playerOf(part: Part, measures: readonly Measure[]): Player {
  const notes = soundingNotes(part.notes);
  const line = lineOf(part);
  const lines = byMeasure(measures, line);
  const all = byMeasure(measures, notes);
  const sounding = soundingShares(notes, measures);
  const same = inRuns(
    lines.map((own, i) => figureOf(own, measures[i]!.start)),
    FIGURE_RUNS,
  );
  // The same rhythm of many equal notes over changing chords is a figure as well.
  const even = inRuns(
    lines.map((own, i) =>
      own.length >= 6 && new Set(own.map((n) => n.duration)).size <= 2
        ? rhythmOf(own, measures[i]!.start)
        : '',
    ),
    FIGURE_RUNS,
  );
  const family = part.instrument === undefined ? undefined : familyOf(part.instrument);
  const named = leadOfName(part.name);
  return {
    part,
    line,
    leads: named !== 0 ? named : (family?.leads ?? 0),
    played: measures.map((m, i): Played => {
      const strokes = byOnset(all[i]!);
      const share = (least: number, most = 99): number =>
        strokes.filter((s) => s.notes.length >= least && s.notes.length <= most).length /
        Math.max(1, strokes.length);
      return {
        line: lines[i]!,
        double: share(2, 2),
        chords: share(3),
        sounding: sounding[i]!,
        isFigure: same[i]! || (even[i]! && moves(lines[i]!).leaps > 0.5),
      };
    }),
  };
}

/** Semitones between the lowest and the highest of what one hand plays in a piece, at most; share of strokes with several keys that make chords. */
const ONE_HAND = 28;
const CHORDAL = 0.15;

/** The line of a player: the upper one. Of what two hands play it is the right hand's, so that it does not fall into the left one's rests. */
function lineOf(part: Part): readonly SoundingNote[] {
  const known = lines.get(part);
  if (known) return known;
  const notes = soundingNotes(part.notes);
  const keys = notes.map((n) => n.midi);
  const strokes = byOnset(notes);
  const chordal = strokes.filter((s) => s.notes.length > 1).length / Math.max(1, strokes.length);
  const isForTwo =
    isForTwoHands(part.instrument) &&
    chordal > CHORDAL &&
    keys.reduce((most, k) => Math.max(most, k), 0) - keys.reduce((least, k) => Math.min(least, k), 127) >
      ONE_HAND;
  const staves = isForTwo ? splitHands(notes) : [];
  const upper = isForTwo ? notes.filter((_, i) => staves[i] === 1) : notes;
  const line = upperLine(upper);
  lines.set(part, line);
  return line;
}

/** A score never changes: the line of a part is found once. */
const lines = new WeakMap<Part, readonly SoundingNote[]>();

function soundingShares(notes: readonly SoundingNote[], measures: readonly Measure[]): number[] {
  const shares = measures.map(() => 0);
  let until = 0;
  let m = 0;
  for (const { onset, duration } of notes) {
    const from = Math.max(onset, until);
    const to = onset + duration;
    if (to <= from) continue;
    until = to;
    while (m < measures.length - 1 && measures[m + 1]!.start <= from) m += 1;
    for (let i = m; i < measures.length && measures[i]!.start < to; i++) {
      const { start, length } = measures[i]!;
      shares[i]! += (Math.min(to, start + length) - Math.max(from, start)) / length;
    }
  }
  return shares;
}

/** How a line moves, in shares of its intervals. */
function moves(line: readonly SoundingNote[]): {
  steps: number;
  repeats: number;
  leaps: number;
  wide: number;
} {
  const intervals = line.slice(1).map((n, i) => Math.abs(n.midi - line[i]!.midi));
  const share = (is: (d: number) => boolean): number =>
    intervals.filter(is).length / Math.max(1, intervals.length);
  return {
    steps: share((d) => d === 1 || d === 2),
    repeats: share((d) => d === 0),
    leaps: share((d) => d > 4),
    wide: share((d) => d > 12),
  };
}

/** How much a player sounds like the one with the tune in one measure. */
function melodiousness({ line, double, chords, sounding, isFigure }: Played, measure: Measure): number {
  if (line.length === 0) return sounding > 0.3 ? HELD : SILENT;
  const { steps, repeats, leaps, wide } = moves(line);
  const mean = line.reduce((sum, n) => sum + n.midi, 0) / line.length;
  const density = line.length / Math.max(1, measure.length / beatLength(measure.time));
  return (
    (line.length > 1 ? STEPS * steps : 0) +
    (new Set(line.map((n) => n.duration)).size > 1 ? VARIED : 0) +
    (mean >= REGISTER.low && mean <= REGISTER.high ? IN_REGISTER : 0) -
    LOW * Math.max(0, REGISTER.low - 2 - mean) -
    HIGH * Math.max(0, mean - REGISTER.high - 7) -
    LEAPS * leaps -
    WIDE_LEAPS * wide -
    (line.length > 2 ? REPEATS * repeats : 0) -
    DOUBLE * double -
    CHORDS * chords -
    (isFigure ? FIGURE : 0) -
    // A note a measure is a pad, five to a beat an arpeggio.
    (density < 0.5 ? SPARSE : 0) -
    DENSE * Math.max(0, density - 3)
  );
}

/** Where in the piece the tune can go over to another player, and what that costs. */
function switchCost(from: Player, to: Player, at: number, measures: readonly Measure[]): number {
  const { start } = measures[at]!;
  const last = from.line.findLast((n) => n.onset < start);
  const rests = !last || last.onset + last.duration <= start || last.duration >= measures[at]!.length / 2;
  const begins = (to.played[at - 1]?.sounding ?? 0) < 0.5 && (to.played[at]?.line.length ?? 0) > 0;
  const ends = (from.played[at]?.line.length ?? 0) === 0;
  if (rests && (begins || ends)) return SWITCH.atBreath;
  return at % 4 === 0 ? SWITCH.atFour : SWITCH.anywhere;
}

/**
 * Who has the tune in each phrase. `among` are the ids of the parts that may have it (all, where empty); `chosen` says who has it in a
 * measure, where the teacher does. Empty for a score without notes.
 */
export function findTune(
  score: Score,
  among: ReadonlySet<string> = new Set(),
  chosen: (measure: number) => string | undefined = () => undefined,
): TunePhrase[] {
  const { measures } = score;
  const players = score.parts
    .filter((p) => p.notes.length > 0 && (among.size === 0 || among.has(p.id)))
    .map((part) => playerOf(part, measures));
  if (players.length === 0 || measures.length === 0) return [];
  const own = players.map((p) => p.played.map((played, i) => melodiousness(played, measures[i]!)));
  const points = players.map((player, k) => {
    const active = own[k]!.filter((_, i) => player.played[i]!.line.length > 0);
    const mean = active.reduce((sum, p) => sum + p, 0) / Math.max(1, active.length);
    const presence = active.length / measures.length;
    const leads = player.leads + PRESENCE * presence + 0.5 * mean + loudness(player, players);
    let silent = 0;
    return own[k]!.map((p, i) => {
      silent = player.played[i]!.line.length > 0 ? 0 : silent + 1;
      return silent === 0 ? atLeast(p + leads, leads) : silent > BREATH ? LONG_SILENT : p;
    });
  });
  const path = bestPath(players, points, measures, chosen);
  return phrasesOf(path, players, measures);
}

/** A bass or a drum is no tune even where nobody else plays. */
const atLeast = (points: number, leads: number): number => (leads > -2 ? Math.max(LEAST, points) : points);

/** The tune is played out: points for a player louder than the others. */
function loudness(player: Player, players: readonly Player[]): number {
  const all = players.flatMap((p) => (p.part.loudness === undefined ? [] : [p.part.loudness]));
  if (player.part.loudness === undefined || all.length < 2) return 0;
  const mean = all.reduce((sum, l) => sum + l, 0) / all.length;
  return Math.max(-0.5, Math.min(0.5, 1.5 * (player.part.loudness - mean)));
}

/** What a choice of the teacher's is worth: more than anything that is heard. */
const CHOSEN = 1000;

function bestPath(
  players: readonly Player[],
  points: readonly (readonly number[])[],
  measures: readonly Measure[],
  chosen: (measure: number) => string | undefined,
): number[] {
  return cheapestPath(
    measures.map((_, i) =>
      players.map(({ part }, k) => -points[k]![i]! - (chosen(i) === part.id ? CHOSEN : 0)),
    ),
    (from, to, i) => (from === to ? 0 : switchCost(players[from]!, players[to]!, i, measures)),
    SWITCH.atBreath,
  );
}

function phrasesOf(
  path: readonly number[],
  players: readonly Player[],
  measures: readonly Measure[],
): TunePhrase[] {
  const phrases: TunePhrase[] = [];
  for (let from = 0; from < path.length;) {
    let to = from;
    while (to + 1 < path.length && path[to + 1] === path[from]) to += 1;
    const player = players[path[from]!]!;
    const before = from > 0 ? players[path[from - 1]!]! : undefined;
    phrases.push({ from, to, part: player.part.id, start: startOf(player, before, measures[from]!) });
    from = to + 1;
  }
  return phrases;
}

/** Where a phrase that begins with a measure really begins: its pickup stands before the barline, where the player before rests. */
function startOf(player: Player, before: Player | undefined, { start, time }: Measure): Ticks {
  if (!before) return 0;
  const longest = 2 * beatLength(time);
  const last = before.line.findLast((n) => n.onset < start);
  const free = Math.max(start - longest, last ? last.onset + Math.min(last.duration, longest) : 0);
  let at = start;
  for (let i = player.line.findLastIndex((n) => n.onset < start); i >= 0; i--) {
    const { onset, duration } = player.line[i]!;
    // A gap before it: that far the pickup goes.
    if (onset < free || onset + duration < at - beatLength(time) / 2) break;
    at = onset;
  }
  const first = player.line.find((n) => n.onset >= at);
  const previous = first && player.line.findLast((n) => n.onset < first.onset);
  // What goes on without a rest from before is no pickup but the middle of something.
  return previous && previous.onset + previous.duration > at - beatLength(time) / 4 ? start : at;
}

/** The notes of the tune as one line, each stretch of it in the octave in which hands and eyes have it gladly. */
export function tuneNotes(score: Score, phrases: readonly TunePhrase[]): SoundingNote[] {
  const parts = new Map(score.parts.map((p) => [p.id, p]));
  const line = phrases.flatMap(({ part, start }, i) => {
    const end = phrases[i + 1]?.start ?? Infinity;
    return lineOf(parts.get(part)!)
      .filter((n) => n.onset >= start && n.onset < end)
      .map((n) => ({ ...n, duration: Math.min(n.duration, end - n.onset) }));
  });
  return inGladOctaves(line, score.measures);
}
