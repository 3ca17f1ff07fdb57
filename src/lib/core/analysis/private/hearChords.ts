/**
 * Chords heard from the notes of all parts: the cheapest way to cut the piece into stretches of beats and to name a chord
 * for each (a semi-Markov best path, so that a broken chord is judged as a whole and a chord lasts as long as it
 * explains what sounds). Passing, neighbouring and suspended notes weigh little.
 */
import { beatLength, endOf, isCompound, keyAt, metricalStrength, placeInMeasure } from '../../score/metre';
import { byOnset, measureAt, soundingNotes, type SoundingNote } from '../../score/query';
import type { Measure, Score } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import { chordTones, isDiatonic, type Chord } from '../../theory/chord';
import { ledDiminished } from './diminished';
import type { ChordKindId } from '../../theory/chordKinds';
import { pitchClass, type Fifths } from '../../theory/fifths';
import { scaleFifths, spellInKey, type Key } from '../../theory/key';

export interface HeardChord {
  readonly onset: Ticks;
  readonly duration: Ticks;
  readonly chord: Chord | null;
}

/**
 * Kinds that are heard, each with what it costs to believe in it (in beats of wrong notes) and the tones, by their place in
 * the chord, without which it is not that chord.
 */
const KINDS: readonly {
  readonly kind: ChordKindId;
  readonly altered?: Chord['altered'];
  readonly cost: number;
  readonly telling: Readonly<Record<number, number>>;
}[] = [
  { kind: 'major', cost: 0, telling: { 0: 0.6, 1: 0.5, 2: 0.05 } },
  { kind: 'minor', cost: 0, telling: { 0: 0.6, 1: 0.5, 2: 0.05 } },
  { kind: 'dominant7', cost: 0.28, telling: { 0: 0.6, 1: 0.3, 2: 0.02, 3: 0.8 } },
  { kind: 'minor7', cost: 0.38, telling: { 0: 0.6, 1: 0.5, 2: 0.1, 3: 0.8 } },
  { kind: 'major7', cost: 0.42, telling: { 0: 0.6, 1: 0.5, 2: 0.1, 3: 0.8 } },
  { kind: 'diminished', cost: 0.35, telling: { 0: 0.6, 1: 0.6, 2: 0.7 } },
  { kind: 'halfDiminished', cost: 0.4, telling: { 0: 0.6, 1: 0.6, 2: 0.6, 3: 0.6 } },
  { kind: 'diminished7', cost: 0.4, telling: { 0: 0.6, 1: 0.6, 2: 0.6, 3: 0.6 } },
  { kind: 'augmented', cost: 0.4, telling: { 0: 0.6, 1: 0.6, 2: 0.9 } },
  { kind: 'suspended4', cost: 0.42, telling: { 0: 0.6, 1: 0.9, 2: 0.4 } },
  { kind: 'suspended2', cost: 0.55, telling: { 0: 0.6, 1: 0.9, 2: 0.4 } },
  {
    kind: 'suspended4',
    altered: [{ type: 'add', degree: 7, alter: 0 }],
    cost: 0.5,
    telling: { 0: 0.6, 1: 0.8, 2: 0.2, 3: 0.8 },
  },
  { kind: 'sixth', cost: 0.5, telling: { 0: 0.6, 1: 0.5, 2: 0.2, 3: 0.9 } },
  { kind: 'minorSixth', cost: 0.6, telling: { 0: 0.6, 1: 0.5, 2: 0.3, 3: 0.9 } },
  { kind: 'minorMajor7', cost: 0.7, telling: { 0: 0.6, 1: 0.6, 2: 0.3, 3: 0.9 } },
  {
    kind: 'major',
    altered: [{ type: 'add', degree: 9, alter: 0 }],
    cost: 0.7,
    telling: { 0: 0.6, 1: 0.5, 2: 0.2, 3: 0.9 },
  },
];

/** What a new chord costs, by the strength of the beat on which it begins. */
const CHANGE_COST = { 4: 0.2, 3: 0.42, 2: 0.62, 1: 0.8, 0: 1 } as const;
/** Share of that cost where all voices move together: each struck sonority is a chord there, however short. */
const MOVING_TOGETHER = 0.12;
/** Notes struck at once, and of them those that did not sound before, from which voices move together. */
const VOICES_STRUCK = 3;
const VOICES_NEW = 2;
/** The same chord in a further stretch. */
const GOES_ON = 0.02;
/** The chord's tone, by its place, that lies in the bass. */
const INVERSION_COST = [0, 0.18, 0.3, 0.22, 0.4];
/** A bass outside the chord. */
const FOREIGN_BASS = 0.7;
const OUTSIDE_KEY = 0.32;
/** And that the tone by which it stands outside does not even sound. */
const UNHEARD_OUTSIDE = 0.3;
/** A root and its fifth under the rest: what it costs there that the third is missing, and that the chord is another over that bass. */
const OPEN_THIRD = 0.2;
const OVER_OPEN_FIFTH = 0.3;
/** What it costs a suspended chord that its third sounds, and that its fourth lies lowest. */
const THIRD_SOUNDS = 0.4;
const FOURTH_BELOW = 0.4;
const SUSPENDING: ReadonlySet<ChordKindId> = new Set(['suspended4', 'suspended2']);
const BARE: ReadonlySet<ChordKindId> = new Set(['major', 'minor', 'major7']);
/** E♭3: a line alone below it is a bass. */
const LOW_LINE = 51;
/** A dominant that leads to a chord of the key. */
const SECONDARY_DOMINANT = 0.14;
/** A tone is there when it has at least this share of an average tone. */
const PRESENT = 0.12;
/** A fifth over the bass is there when it has at least this share. */
const OPEN = 0.5;

/** Share of its weight that a note has which only passes. */
const PASSING = 0.2;
const PASSING_ON_BEAT = 0.5;
/** A short note off the beat that a step leads to or from, but not both. */
const HALF_PASSING = 0.5;
const SUSPENDED = 0.5;
const ANTICIPATED = 0.5;

/** One beat of a measure. */
interface Beat {
  readonly onset: Ticks;
  readonly end: Ticks;
  readonly key: Key;
  readonly strength: 0 | 1 | 2 | 3 | 4;
  readonly isPickup: boolean;
  /** Number of the beat with which its measure begins. */
  readonly measureStart: number;
}

interface Candidate {
  readonly root: number;
  readonly tones: readonly number[];
  readonly kind: (typeof KINDS)[number];
}

const CANDIDATES: readonly Candidate[] = Array.from({ length: 12 }, (_, root) =>
  KINDS.map((kind): Candidate => ({
    root,
    kind,
    tones: chordTones({ root: 0, kind: kind.kind, ...(kind.altered ? { altered: kind.altered } : {}) }).map(
      (tone) => (pitchClass(tone) + root) % 12,
    ),
  })),
).flat();

/** The chords of a score, in order, without gaps: each lasts to the next. */
export function hearChords(score: Score): HeardChord[] {
  // A part that is made of what others have shares their notes.
  const notes = [
    ...new Map(score.parts.flatMap((p) => soundingNotes(p.notes)).map((n) => [n.id, n])).values(),
  ].sort((a, b) => a.onset - b.onset);
  const beats: Beat[] = [];
  for (const measure of score.measures) beats.push(...beatsOf(measure, beats.length));
  const heard = weigh(score, notes, beats);
  const path = bestPath(beats, heard).map(({ from, to, candidate, bass }): HeardChord => {
    const onset = beats[from]!.onset;
    const duration = beats[to - 1]!.end - onset;
    // An unaccompanied pickup leads to a chord and has none of its own.
    const alone = beats[from]!.isPickup && heard.distinct(from, to) < 2;
    return { onset, duration, chord: alone ? null : named(candidate, bass, beats[from]!.key) };
  });
  return path.map((heardChord, i) => {
    const { chord, onset, duration } = heardChord;
    if (chord?.kind !== 'diminished7') return heardChord;
    const sounding = notes.filter((n) => n.onset < onset + duration && n.onset + n.duration > onset);
    return {
      ...heardChord,
      chord: ledDiminished(
        chord,
        path[i + 1]?.chord,
        sounding,
        keyAt(measureAt(score.measures, onset), onset),
      ),
    };
  });
}

function beatsOf(measure: Measure, measureStart: number): Beat[] {
  const beat = beatLength(measure.time);
  const beats: Beat[] = [];
  for (let onset = measure.start; onset < endOf(measure);) {
    const place = placeInMeasure(measure, onset);
    const end = Math.min(endOf(measure), onset + beat - (place % beat));
    beats.push({
      onset,
      end,
      key: keyAt(measure, onset),
      strength: metricalStrength(measure.time, place),
      isPickup: measure.index === 0 && measure.beginsAt > 0,
      measureStart,
    });
    onset = end;
  }
  return beats;
}

/** What sounds, ready to be asked about stretches of beats. */
interface Heard {
  /** Weight of a pitch class in the beats from … to (not included). */
  weight(pc: number, from: number, to: number): number;
  total(from: number, to: number): number;
  /** Whether all voices move together on a beat. */
  moves(beat: number): boolean;
  /** Pitch class of the lowest note at the beginning of a stretch; undefined where one line sounds alone. */
  bass(from: number): number | undefined;
  distinct(from: number, to: number): number;
}

function weigh(score: Score, notes: readonly SoundingNote[], beats: readonly Beat[]): Heard {
  const together = movingTogether(notes);
  const importance = importanceOf(score, notes, together);
  const sums = [new Float64Array(12)];
  const basses: (number | undefined)[] = [];
  let first = 0;
  for (const beat of beats) {
    const sum = Float64Array.from(sums.at(-1)!);
    let lowest: SoundingNote | undefined;
    let voices = 0;
    while (first < notes.length && notes[first]!.onset + notes[first]!.duration <= beat.onset) first++;
    for (let i = first; i < notes.length && notes[i]!.onset < beat.end; i++) {
      const note = notes[i]!;
      const sounding = Math.min(beat.end, note.onset + note.duration) - Math.max(beat.onset, note.onset);
      if (sounding <= 0) continue;
      voices += 1;
      sum[note.midi % 12]! += (sounding / (beat.end - beat.onset)) * importance.get(note)!;
      if (!lowest || note.midi < lowest.midi) lowest = note;
    }
    sums.push(sum);
    basses.push(lowest && (voices > 1 || lowest.midi < LOW_LINE) ? lowest.midi % 12 : undefined);
  }
  const weight = (pc: number, from: number, to: number): number => sums[to]![pc]! - sums[from]![pc]!;
  const all = (from: number, to: number): number[] =>
    Array.from({ length: 12 }, (_, pc) => weight(pc, from, to));
  return {
    weight,
    total: (from, to) => all(from, to).reduce((a, b) => a + b, 0),
    moves: (beat) => together.has(beats[beat]!.onset),
    bass: (from) => basses[from],
    distinct: (from, to) => all(from, to).filter((w) => w > 0).length,
  };
}

/** Onsets at which all voices move together: passing notes are single voices that move while others stay. */
function movingTogether(notes: readonly SoundingNote[]): ReadonlySet<Ticks> {
  const onsets = new Set<Ticks>();
  let before: readonly SoundingNote[] = [];
  for (const { onset, notes: struck } of byOnset(notes)) {
    const stays = before.filter((n) => n.onset + n.duration >= onset);
    const known = new Set(stays.map((n) => n.midi % 12));
    const fresh = new Set(struck.map((n) => n.midi % 12).filter((pc) => !known.has(pc)));
    const held = stays.some((n) => n.onset + n.duration > onset);
    if (struck.length >= VOICES_STRUCK && fresh.size >= VOICES_NEW && !held) onsets.add(onset);
    before = [...stays.filter((n) => n.onset + n.duration > onset), ...struck];
  }
  return onsets;
}

/** How much each note says about the chord: passing, neighbouring and suspended notes little. */
function importanceOf(
  score: Score,
  notes: readonly SoundingNote[],
  together: ReadonlySet<Ticks>,
): Map<SoundingNote, number> {
  const importance = new Map<SoundingNote, number>(notes.map((n) => [n, 1]));
  const lines = new Map<string, SoundingNote[]>();
  for (const note of notes) {
    const name = `${note.staff}/${note.voice}`;
    const line = lines.get(name);
    const last = line?.at(-1);
    // Of notes struck together the highest is the line's.
    if (last?.onset === note.onset) {
      if (note.midi > last.midi) line![line!.length - 1] = note;
    } else if (line) line.push(note);
    else lines.set(name, [note]);
  }
  let m = 0;
  const strengthAt = (tick: Ticks): { strength: number; beat: Ticks } => {
    while (m > 0 && score.measures[m]!.start > tick) m--;
    while (m < score.measures.length - 1 && score.measures[m + 1]!.start <= tick) m++;
    const measure = score.measures[m]!;
    return {
      strength: metricalStrength(measure.time, placeInMeasure(measure, tick)),
      beat: isCompound(measure.time) ? beatLength(measure.time) / 3 : beatLength(measure.time),
    };
  };
  for (const line of lines.values())
    for (let i = 1; i < line.length - 1; i++) {
      const [before, note, after] = [line[i - 1]!, line[i]!, line[i + 1]!];
      if (together.has(note.onset)) continue;
      const isStep = (a: SoundingNote, b: SoundingNote): boolean => {
        const size = Math.abs(a.midi - b.midi);
        return size === 1 || size === 2;
      };
      const { strength, beat } = strengthAt(note.onset);
      if (strength < 2 && note.duration <= beat / 2 && isStep(before, note) !== isStep(note, after))
        importance.set(note, HALF_PASSING);
      // An anticipation: the note that the next strong beat will have.
      if (after.midi === note.midi && note.duration <= beat && strengthAt(after.onset).strength > strength)
        importance.set(note, ANTICIPATED);
      if (!isStep(note, after)) continue;
      if (note.duration > beat) {
        // Held into a stronger beat and let down by step there.
        const end = strengthAt(note.onset + beat).strength;
        if (end > strength && note.midi > after.midi) importance.set(note, SUSPENDED);
        continue;
      }
      if (!isStep(before, note) || strength > strengthAt(before.onset).strength) continue;
      importance.set(note, strength < 2 ? PASSING : PASSING_ON_BEAT);
    }
  return importance;
}

interface BeatRange {
  readonly from: number;
  readonly to: number;
  readonly candidate: Candidate;
  readonly bass: number | undefined;
}

function bestPath(beats: readonly Beat[], heard: Heard): BeatRange[] {
  const count = CANDIDATES.length;
  const costs = [new Float64Array(count)];
  /** Least cost at each beat, and its candidate. */
  const least = [{ cost: 0, candidate: -1 }];
  const back: { from: Int32Array; before: Int32Array }[] = [];
  for (let to = 1; to <= beats.length; to++) {
    const cost = new Float64Array(count).fill(Infinity);
    const step = { from: new Int32Array(count), before: new Int32Array(count) };
    // A stretch ends with its measure at the latest; a chord that goes on does so in the next one.
    for (let from = to - 1; from >= beats[to - 1]!.measureStart; from--) {
      const own = stretchCosts(beats, heard, from, to);
      const share = heard.moves(from) ? MOVING_TOGETHER : 1;
      const change = least[from]!.cost + (from === 0 ? 0 : share * CHANGE_COST[beats[from]!.strength]);
      for (let c = 0; c < count; c++) {
        const stays = from === 0 ? Infinity : costs[from]![c]! + GOES_ON;
        const reached = Math.min(stays, change) + own[c]!;
        if (reached < cost[c]!) {
          cost[c] = reached;
          step.from[c] = from;
          step.before[c] = stays <= change ? c : least[from]!.candidate;
        }
      }
    }
    costs.push(cost);
    back.push(step);
    let candidate = 0;
    for (let c = 1; c < count; c++) if (cost[c]! < cost[candidate]!) candidate = c;
    least.push({ cost: cost[candidate]!, candidate });
  }
  const path: BeatRange[] = [];
  let at = beats.length;
  let c = least.at(-1)!.candidate;
  while (at > 0) {
    const { from, before } = back[at - 1]!;
    const start = from[c]!;
    path.unshift({ from: start, to: at, candidate: CANDIDATES[c]!, bass: heard.bass(start) });
    [at, c] = [start, before[c]!];
  }
  return path;
}

/** What each candidate costs for a stretch, in beats of wrong notes. */
function stretchCosts(beats: readonly Beat[], heard: Heard, from: number, to: number): Float64Array {
  const result = new Float64Array(CANDIDATES.length);
  const total = heard.total(from, to);
  if (total === 0) return result; // a rest keeps the chord before it
  const length = to - from;
  const weights = Array.from({ length: 12 }, (_, pc) => heard.weight(pc, from, to));
  const bass = heard.bass(from);
  const average = total / Math.max(3, weights.filter((w) => w > 0).length);
  const { key } = beats[from]!;
  const { costs: keyCosts, outside, leading } = keyCostsOf(key);
  const isOpen = bass !== undefined && weights[(bass + 7) % 12]! >= OPEN * average;
  for (let c = 0; c < CANDIDATES.length; c++) {
    const { tones, kind } = CANDIDATES[c]!;
    let inside = 0;
    let missing = 0;
    let bassPlace = -1;
    for (let t = 0; t < tones.length; t++) {
      const own = weights[tones[t]!]!;
      inside += own;
      if (own < PRESENT * average)
        missing +=
          t === 1 && isOpen && tones[0] === bass && BARE.has(kind.kind)
            ? Math.min(OPEN_THIRD, kind.telling[t] ?? 0.3)
            : (kind.telling[t] ?? 0.3);
      if (tones[t] === bass) bassPlace = t;
    }
    const { root } = CANDIDATES[c]!;
    const isSuspended = SUSPENDING.has(kind.kind);
    // Nothing is suspended where its third sounds as well, and a fourth in the bass is a root.
    if (isSuspended && [3, 4].some((third) => weights[(root + third) % 12]! >= PRESENT * average))
      missing += THIRD_SOUNDS;
    // A dominant over its root is known by where it leads, whatever of it sounds.
    const isAsked = !leading[c] || (bass !== undefined && bass !== root);
    if (isAsked && outside[c]!.length > 0 && outside[c]!.every((pc) => weights[pc]! < PRESENT * average))
      missing += UNHEARD_OUTSIDE;
    let bassCost = 0;
    if (bass !== undefined) {
      if (bassPlace >= 0)
        bassCost = (INVERSION_COST[bassPlace] ?? 0.4) + (isSuspended && bassPlace === 1 ? FOURTH_BELOW : 0);
      else {
        bassCost = FOREIGN_BASS + (isOpen ? OVER_OPEN_FIFTH : 0);
        inside += weights[bass]!;
      }
    }
    result[c] = ((total - inside) / total) * length + missing + kind.cost + bassCost + keyCosts[c]!;
  }
  return result;
}

interface KeyCosts {
  readonly costs: Float64Array;
  /** Dominants that lead to a degree of the key. */
  readonly leading: readonly boolean[];
  /** For each candidate its tones outside the key, as pitch classes. */
  readonly outside: readonly (readonly number[])[];
}

const keyCosts = new Map<string, KeyCosts>();

/** What it costs a candidate to stand outside a key, and by which tones it does. */
function keyCostsOf(key: Key): KeyCosts {
  const name = `${key.fifths}${key.mode}`;
  const known = keyCosts.get(name);
  if (known) return known;
  const scale = new Set(scaleFifths(key).map(pitchClass));
  const isInside = CANDIDATES.map((candidate) => isDiatonic(named(candidate, undefined, key), key));
  const costs = Float64Array.from(CANDIDATES, (candidate, c) => {
    if (isInside[c]) return 0;
    const { kind } = candidate.kind;
    const target = (candidate.root + 5) % 12;
    const leads = (kind === 'dominant7' || kind === 'major' || kind === 'diminished7') && scale.has(target);
    return leads && scale.has(candidate.root) ? SECONDARY_DOMINANT : OUTSIDE_KEY;
  });
  const outside = CANDIDATES.map(({ tones }, c) => (isInside[c] ? [] : tones.filter((pc) => !scale.has(pc))));
  const leading = CANDIDATES.map((_, c) => costs[c] === SECONDARY_DOMINANT);
  const made = { costs, outside, leading };
  keyCosts.set(name, made);
  return made;
}

/** A candidate as a chord, spelled by the key; the bass where it is not the root. */
function named({ root, kind }: Candidate, bass: number | undefined, key: Key): Chord {
  const place = spellInKey(root, key);
  const chord: Chord = {
    root: place,
    kind: kind.kind,
    ...(kind.altered ? { altered: kind.altered } : {}),
  };
  if (bass === undefined || bass === root) return chord;
  const tone = chordTones(chord).find((t) => pitchClass(t) === bass);
  const below: Fifths = tone ?? spellInKey(bass, key);
  return { ...chord, bass: below };
}
