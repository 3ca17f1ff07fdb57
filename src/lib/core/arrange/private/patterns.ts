/**
 * Textures as strokes: what a hand strikes over one chord. Each texture offers figurations, the best first, without asking
 * whether they fit; leftHand.ts takes the first that fits hand, level, keyboard and melody.
 */
import { beatLength, isCompound, keyAt, measureLength, pulseLength } from '../../score/metre';
import type { Measure } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import { bassOf, chordTones, type Chord } from '../../theory/chord';
import { pitchClass, type Fifths } from '../../theory/fifths';
import { scaleFifths } from '../../theory/key';
import { shortestValue, type LevelContract } from '../levels';
import type { Stretch } from './stretches';
import type { TextureId } from '../textures';
import { byNearness, closeShapes, closeVoicings, octavesOf, type Voicing } from './voicing';

export interface PianoKey {
  readonly midi: number;
  readonly tone: Fifths;
}

/** Keys struck together and how long they are held. */
export interface Stroke {
  readonly onset: Ticks;
  readonly end: Ticks;
  readonly keys: readonly PianoKey[];
}

/** Where the hand was: its lowest key, and the shape of its last chord. */
export interface HandPlace {
  readonly bass?: number;
  readonly shape?: Voicing;
}

export interface Figuration {
  readonly strokes: readonly Stroke[];
  readonly place: HandPlace;
  /** One note after another on its way, none of them held: low down it is no mud. */
  readonly isLine?: boolean;
}

/** What a pattern stands on. */
export interface ChordContext {
  readonly stretch: Stretch;
  readonly measure: Measure;
  readonly contract: LevelContract;
  /** Semitones the hand holds at once: the lesser of the level's span and the reach. */
  readonly span: number;
  readonly reach: number;
  /** Most keys at once: the level's, or fewer where the source is thinner. */
  readonly most: number;
  readonly keyboard: { readonly low: number; readonly high: number };
  /** Highest free key under the melody while the stretch lasts. */
  readonly ceiling: number;
  readonly before: HandPlace;
  /** The chord after this stretch, if it comes at once. */
  readonly next: Chord | undefined;
  /** The chord stood before this stretch already. */
  readonly goesOn: boolean;
}

/** Where roots are taken: near D3 for single roots, lower where a chord follows above them. */
export const HOME = 50;
const LOW_HOME = 43;
const TRIAD_HOME = 48;
/** How strongly the bass is drawn to where it was, against where it is at home. */
export const NEARNESS = 0.6;
/** Highest key of an accompaniment, E4; where it goes by single roots and fifths it stays lower, so that it can come back. */
const HIGHEST = 64;
/** B♭2: under it a third above a low note is mud. */
const LOWEST_UPPER = 46;
const HIGHEST_ROOT = 57;
const HIGHEST_FIFTH = 62;

const mod12 = (n: number): number => ((n % 12) + 12) % 12;

/** Basses of a chord, the one nearest to home and to the bass before first. */
export function basses(g: ChordContext, home: number, high: number): PianoKey[] {
  const tone = bassOf(g.stretch.chord);
  const cost = (midi: number): number =>
    Math.abs(midi - home) + (g.before.bass === undefined ? 0 : NEARNESS * Math.abs(midi - g.before.bass));
  return octavesOf(tone, g.keyboard.low, Math.min(high, g.keyboard.high))
    .sort((a, b) => cost(a) - cost(b) || a - b)
    .map((midi) => ({ midi, tone }));
}

/**
 * The tone a fifth above the bass if the chord has one there, else its highest tone within a sixth. Over a bass that is named apart
 * the chord's root comes first: without it the chord is another.
 */
function fifthAbove(chord: Chord, bass: PianoKey, most: number): PianoKey | undefined {
  const above = chordTones(chord)
    .map((tone) => ({ tone, up: mod12(pitchClass(tone) - bass.midi) }))
    .filter((t) => t.up > 2 && t.up <= Math.min(9, most))
    .sort((a, b) => b.up - a.up);
  const root = isOverBass(chord)
    ? above.find((t) => pitchClass(t.tone) === pitchClass(chord.root))
    : undefined;
  const chosen =
    root ?? above.find((t) => t.up === 7) ?? above.find((t) => t.up === 6 || t.up === 8) ?? above[0];
  return chosen && { midi: bass.midi + chosen.up, tone: chosen.tone };
}

/** Whether a bass other than the root is named. */
const isOverBass = ({ root, bass }: Chord): boolean =>
  bass !== undefined && pitchClass(bass) !== pitchClass(root);

/** The root of a chord above a bass that is named apart, however near: struck after it, not with it. */
const rootAbove = ({ root }: Chord, bass: PianoKey): PianoKey => ({
  midi: bass.midi + mod12(pitchClass(root) - bass.midi),
  tone: root,
});

/** Whether a chord over a named bass is told by the key above it: by its root. */
const hasRoot = (chord: Chord, key: PianoKey): boolean =>
  !isOverBass(chord) || pitchClass(key.tone) === pitchClass(chord.root);

/** From this level on a seventh is heard wherever a chord has one. */
const SEVENTHS_FROM = 4;

/** The chord close above its bass: bass, then the next tones upwards, at most `most`. */
function closeAbove({ stretch, contract }: ChordContext, bass: PianoKey, most: number): PianoKey[] {
  const { chord } = stretch;
  const [root, third, fifth, seventh, ...more] = chordTones(chord);
  const inner = contract.level >= SEVENTHS_FROM ? [third, seventh, fifth] : [third, fifth, seventh];
  const order = isOverBass(chord) ? [root, ...inner, ...more] : [...inner, root, ...more];
  const wanted = order.filter((t): t is Fifths => t !== undefined && pitchClass(t) !== mod12(bass.midi));
  return [
    bass,
    ...wanted
      .slice(0, most - 1)
      .map((tone) => ({ midi: bass.midi + mod12(pitchClass(tone) - bass.midi), tone }))
      .sort((a, b) => a.midi - b.midi),
  ];
}

/** The beats of a stretch: its onset, and every beat of the measure after it. */
export function beatsOf(
  { stretch, measure }: Pick<ChordContext, 'stretch' | 'measure'>,
  unit?: Ticks,
): Ticks[] {
  const step = unit ?? beatLength(measure.time);
  const first = stretch.onset - measure.start + measure.beginsAt;
  const result = [stretch.onset];
  for (let place = (Math.floor(first / step) + 1) * step; ; place += step) {
    const tick = measure.start - measure.beginsAt + place;
    if (tick >= stretch.end) return result;
    result.push(tick);
  }
}

/** Keys in turn at places, each held to the next; the last to the end of the stretch. */
const inTurn = (places: readonly Ticks[], end: Ticks, keysAt: (i: number) => readonly PianoKey[]): Stroke[] =>
  places.map((onset, i) => ({ onset, end: places[i + 1] ?? end, keys: keysAt(i) }));

const held = ({ stretch }: ChordContext, keys: readonly PianoKey[]): Stroke[] => [
  { onset: stretch.onset, end: stretch.end, keys },
];

const pulseOf = (measure: Measure): Ticks => pulseLength(measure.time);

/** Shapes of the chord by how near they are to the one before. */
const nearestShapes = (g: ChordContext, shapes: readonly Voicing[], home: number): Voicing[] =>
  byNearness(shapes, { before: g.before.shape, home, bass: bassOf(g.stretch.chord), thumb: 'top' });

export const blockShapes = (g: ChordContext, most: number): Voicing[] =>
  nearestShapes(
    g,
    closeVoicings(g.stretch.chord, {
      low: Math.max(g.keyboard.low, 36),
      high: Math.min(HIGHEST, g.ceiling),
      span: g.span,
      most,
    }),
    TRIAD_HOME,
  );

/** Upper shapes above a bass: two or three tones, without the bass's own where the chord has enough others. */
function upperShapes(g: ChordContext, bass: PianoKey, most: number): Voicing[] {
  const tones = chordTones(g.stretch.chord);
  const others = tones.filter((t) => pitchClass(t) !== mod12(bass.midi));
  // A chord's colour is its third and seventh; the root above the bass comes last.
  const [root, third, fifth, seventh] = tones;
  const order = [third, seventh, fifth, root, ...tones.slice(4)].filter((t): t is Fifths => t !== undefined);
  const chosen = (others.length >= Math.min(2, most) ? order.filter((t) => others.includes(t)) : order).slice(
    0,
    most,
  );
  const low = Math.max(bass.midi + 3, LOWEST_UPPER);
  return nearestShapes(
    g,
    closeShapes(chosen, low, Math.min(HIGHEST, g.ceiling)),
    Math.min(55, Math.max(52, bass.midi + 5)),
  );
}

type Pattern = (context: ChordContext) => Generator<Figuration>;

/** From this level on a low note before its chord is an octave, where the hand and the keyboard have it. */
const OCTAVES_FROM = 5;
/** Lowest key of such an octave, E1. */
const LOWEST_OCTAVE = 28;

/** A low note as it is struck before a chord: with its octave above where the chord leaves room, else with the one below; or alone. */
function lowNotes(bass: PianoKey, chord: Voicing, g: ChordContext): readonly (readonly PianoKey[])[] {
  if (g.contract.level < OCTAVES_FROM || g.span < 12) return [[bass]];
  const [above, below] = [12, -12].map((by) => ({ ...bass, midi: bass.midi + by })) as [PianoKey, PianoKey];
  const isFree = above.midi < chord.notes[0]!.midi && above.midi <= g.ceiling;
  const isThere = below.midi >= Math.max(g.keyboard.low, LOWEST_OCTAVE);
  return [...(isFree ? [[bass, above]] : isThere ? [[below, bass]] : []), [bass]];
}

/** A low note, then a chord above it on every further beat. */
function lowThenChord(beatsFrom: (g: ChordContext) => Ticks[], alternates: boolean): Pattern {
  return function* (g) {
    const beats = beatsFrom(g);
    for (const bass of basses(g, LOW_HOME, Math.min(55, g.ceiling))) {
      const fifth = fifthAbove(g.stretch.chord, bass, 9);
      const below = fifth && !isOverBass(g.stretch.chord) ? { ...fifth, midi: fifth.midi - 12 } : undefined;
      // The fifth of the second strong beat lies below where there is room: the bass then swings round the root.
      const second = below && below.midi >= g.keyboard.low && below.midi >= 38 ? below : fifth;
      const first = alternates && g.goesOn && beats.length <= 2 && second ? second : bass;
      if (beats.length === 1) yield { strokes: held(g, [first]), place: { ...g.before, bass: first.midi } };
      else
        for (const most of g.most > 2 ? [Math.min(3, g.most), 2] : [2])
          for (const shape of upperShapes(g, bass, most))
            for (const low of lowNotes(first, shape, g))
              yield {
                strokes: inTurn(beats, g.stretch.end, (i) =>
                  i === 0
                    ? low
                    : alternates && i % 4 === 2 && second
                      ? [second]
                      : alternates && i % 2 === 0
                        ? [bass]
                        : shape.notes,
                ),
                place: { bass: bass.midi, shape },
              };
    }
  };
}

/** A chord's tones one after another from its bass, `order` by place in the close chord. */
function broken(order: readonly number[], compoundOrder: readonly number[]): Pattern {
  return function* (g) {
    const compound = isCompound(g.measure.time);
    const unit = compound || g.contract.level >= 4 ? pulseOf(g.measure) : undefined;
    const beat = beatLength(g.measure.time);
    // Where a chord lasts for no more than two beats, beats alone would not show it.
    const short = g.stretch.end - g.stretch.onset <= 2 * beat && g.contract.level >= 3;
    const places = beatsOf(g, unit ?? (short ? pulseOf(g.measure) : undefined));
    const steps = compound ? compoundOrder : order;
    const low = basses(g, TRIAD_HOME, g.ceiling);
    // Where it is clear and no higher than the hand's home, each chord has one close place: the hand does not wander.
    for (const bass of low) {
      const tones = closeAbove(g, bass, 3);
      if (tones.at(-1)!.midi > HIGHEST) continue;
      const last = tones[Math.min(steps[(places.length - 1) % steps.length]!, tones.length - 1)]!;
      // Where the next chord would be too far to leap to from its highest tone, the figure comes back to the middle.
      const turned = isTooFar(last.midi, g) ? (compound ? COMES_BACK_IN_THREE : COMES_BACK) : steps;
      const at = (i: number): readonly PianoKey[] => [
        tones[Math.min(turned[i % turned.length]!, tones.length - 1)]!,
      ];
      yield { strokes: inTurn(places, g.stretch.end, at), place: { bass: bass.midi } };
    }
    // Low down, where a third above the bass is mud, the chord opens: root, fifth, octave.
    for (const bass of low) {
      const fifth = fifthAbove(g.stretch.chord, bass, 9);
      if (!fifth || g.reach < 12 || bass.midi + 12 > HIGHEST) continue;
      const seventh = g.contract.level >= SEVENTHS_FROM ? seventhAbove(g.stretch.chord, bass) : undefined;
      const open = [bass, fifth, seventh ?? { ...bass, midi: bass.midi + 12 }];
      // A beat of three pulses has its own bass.
      const turns = compound ? OPEN_IN_THREE : OPEN_ORDER;
      yield {
        strokes: inTurn(places, g.stretch.end, (i) => [open[turns[i % turns.length]!]!]),
        place: { bass: bass.midi },
      };
    }
  };
}

/** Up and back, and in three pulses up and down to the middle. */
const COMES_BACK = [0, 1, 2, 1] as const;
const COMES_BACK_IN_THREE = [0, 2, 1] as const;

/** Whether the close place of the next chord is further away than the level leaps. */
function isTooFar(from: number, { next, contract, keyboard }: ChordContext): boolean {
  if (next === undefined || contract.leap === null) return false;
  const bass = octavesOf(bassOf(next), keyboard.low, HIGHEST_ROOT).find((midi) => midi >= LOWEST_UPPER);
  if (bass === undefined) return false;
  const hasSeventh = contract.level >= SEVENTHS_FROM && chordTones(next).length > 3;
  const isClose = bass + (hasSeventh ? 10 : 7) <= HIGHEST;
  return Math.abs(from - (isClose ? bass : bass - 12)) > contract.leap;
}

/** Root, fifth, octave (or seventh), and the fifth again where there are four. */
const OPEN_ORDER = [0, 1, 2, 1] as const;
const OPEN_IN_THREE = [0, 1, 2] as const;

/** A bass that walks over a chord: its tones from beat to beat, and on the last a step to the next root. */
function walking(g: ChordContext, bass: PianoKey, beats: readonly Ticks[]): Figuration {
  const tones = closeAbove(g, bass, 3);
  const up = tones.at(-1)!;
  // Where the chord stays it comes back down; where another follows the last beat leads to it.
  const order = beats.length > 4 ? [...tones, up, ...[...tones].reverse()] : tones;
  const goal = g.next && nearestOctave(bassOf(g.next), bass.midi, g.keyboard);
  const steps = goal === undefined ? undefined : stepBefore(goal, order[beats.length - 2] ?? bass, g);
  return {
    strokes: inTurn(beats, g.stretch.end, (i) => [
      i > 0 && i === beats.length - 1 && steps ? steps : order[i % order.length]!,
    ]),
    place: { bass: bass.midi },
    isLine: true,
  };
}

/** The note of the scale a step from the next root, on the side that the walk comes from. */
function stepBefore(goal: number, from: PianoKey, g: ChordContext): PianoKey | undefined {
  const tones = scaleFifths(keyAt(g.measure, g.stretch.onset));
  const side = Math.sign(from.midi - goal) || 1;
  for (const midi of [goal + side, goal + 2 * side]) {
    const tone = tones.find((t) => pitchClass(t) === mod12(midi));
    if (tone !== undefined && midi !== from.midi && midi >= g.keyboard.low && midi <= g.ceiling)
      return { midi, tone };
  }
  return undefined;
}

/**
 * Strokes at eighths of the full measure, as far as they fall into the stretch and on notes that the level reads; what `keysAt` an
 * eighth has, of root, fifth and chord.
 */
function atEighths(
  eighths: readonly number[],
  keysAt: (
    eighth: number,
    root: PianoKey,
    fifth: PianoKey,
    chord: readonly PianoKey[],
  ) => readonly PianoKey[],
): Pattern {
  return function* (g) {
    const { measure, stretch, contract } = g;
    const full = measureLength(measure.time);
    const grid = shortestValue(contract, measure.time);
    const places = eighths
      .map((eighth) => ({ eighth, tick: measure.start - measure.beginsAt + (eighth * full) / 8 }))
      .filter(
        ({ tick, eighth }) =>
          tick >= stretch.onset && tick < stretch.end && ((eighth * full) / 8) % grid === 0,
      );
    const from = places[0]?.tick === stretch.onset ? places : [{ eighth: 0, tick: stretch.onset }, ...places];
    for (const bass of basses(g, LOW_HOME, Math.min(HIGHEST_ROOT, g.ceiling))) {
      const fifth = fifthAbove(stretch.chord, bass, 9) ?? bass;
      for (const shape of upperShapes(g, bass, Math.min(2, g.most)))
        yield {
          // The first of a stretch is its root, wherever it begins.
          strokes: inTurn(
            from.map((p) => p.tick),
            stretch.end,
            (i) => keysAt(i === 0 ? 0 : from[i]!.eighth, bass, fifth, shape.notes),
          ),
          place: { bass: bass.midi, shape },
        };
    }
  };
}

function* blockFigurations(g: ChordContext, places: readonly Ticks[]): Generator<Figuration> {
  for (const most of [Math.min(g.most, 4), 3, 2].filter((n, i, all) => n >= 2 && all.indexOf(n) === i))
    for (const shape of blockShapes(g, most))
      yield {
        strokes: inTurn(places, g.stretch.end, () => shape.notes),
        place: { bass: shape.notes[0]!.midi, shape },
      };
}

function* rootFigurations(g: ChordContext, places: readonly Ticks[]): Generator<Figuration> {
  for (const bass of basses(g, HOME, g.ceiling))
    yield { strokes: inTurn(places, g.stretch.end, () => [bass]), place: { bass: bass.midi } };
}

function* octaveFigurations(
  g: ChordContext,
  strokes: (low: PianoKey, high: PianoKey) => Stroke[],
): Generator<Figuration> {
  for (const low of basses(g, LOW_HOME - 4, Math.min(48, g.ceiling - 12))) {
    const high = { ...low, midi: low.midi + 12 };
    yield { strokes: strokes(low, high), place: { bass: low.midi } };
  }
}

/** The seventh of a chord above its root. */
function seventhAbove(chord: Chord, bass: PianoKey): PianoKey | undefined {
  const tone = chordTones(chord)
    .map((t) => ({ t, up: mod12(pitchClass(t) - bass.midi) }))
    .find(({ up }) => up === 10 || up === 11);
  return tone && !isOverBass(chord) ? { midi: bass.midi + tone.up, tone: tone.t } : undefined;
}

/** The tenth above a bass: the chord's third an octave up, or the tone nearest to it. */
function tenthAbove(chord: Chord, bass: PianoKey): PianoKey | undefined {
  const tone = chordTones(chord)
    .map((t) => ({ t, up: mod12(pitchClass(t) - bass.midi) }))
    .find(({ up }) => up >= 3 && up <= 5);
  return tone && { midi: bass.midi + 12 + tone.up, tone: tone.t };
}

export const PATTERNS: Readonly<Record<Exclude<TextureId, 'own'>, Pattern>> = {
  'held-root': (g) => rootFigurations(g, [g.stretch.onset]),

  *'root-fifth'(g) {
    for (const bass of basses(g, HOME, g.ceiling)) {
      const fifth = fifthAbove(g.stretch.chord, bass, g.span);
      if (fifth && hasRoot(g.stretch.chord, fifth))
        yield { strokes: held(g, [bass, fifth]), place: { bass: bass.midi } };
    }
  },

  *'root-then-fifth'(g) {
    const beats = beatsOf(g);
    // In an odd number of beats the root is held longer: one and a half of three would hide a beat.
    const turn = beats[Math.ceil(beats.length / 2)];
    const roots = basses(g, HOME, Math.min(HIGHEST_ROOT, g.ceiling));
    if (g.contract.level >= SEVENTHS_FROM && turn !== undefined)
      for (const bass of roots) {
        const seventh = seventhAbove(g.stretch.chord, bass);
        if (seventh && seventh.midi <= HIGHEST_FIFTH)
          yield {
            strokes: inTurn([g.stretch.onset, turn], g.stretch.end, (i) => [i === 0 ? bass : seventh]),
            place: { bass: bass.midi },
          };
      }
    for (const bass of roots) {
      const fifth = isOverBass(g.stretch.chord)
        ? rootAbove(g.stretch.chord, bass)
        : fifthAbove(g.stretch.chord, bass, 9);
      const below = fifth && !isOverBass(g.stretch.chord) ? [{ ...fifth, midi: fifth.midi - 12 }] : [];
      const others = fifth && turn !== undefined ? [fifth, ...below] : [];
      for (const other of others)
        if (other.midi <= HIGHEST_FIFTH)
          yield {
            strokes: inTurn([g.stretch.onset, turn!], g.stretch.end, (i) => [i === 0 ? bass : other]),
            place: { bass: bass.midi },
          };
      yield { strokes: held(g, [bass]), place: { bass: bass.midi } };
    }
  },

  'block-chord': (g) => blockFigurations(g, [g.stretch.onset]),
  pulse: (g) => blockFigurations(g, beatsOf(g)),
  'pulse-eighths': (g) => blockFigurations(g, beatsOf(g, pulseOf(g.measure))),
  'root-pulse': (g) => rootFigurations(g, beatsOf(g)),
  'root-pulse-eighths': (g) => rootFigurations(g, beatsOf(g, pulseOf(g.measure))),

  'waltz-bass': lowThenChord((g) => beatsOf(g), false),
  'swing-bass': lowThenChord((g) => beatsOf(g), true),
  'broken-chord': broken([0, 2, 1, 2], [0, 1, 2]),
  'broken-chord-rising': broken([0, 1, 2, 1], [0, 2, 1]),

  *rocking(g) {
    const places = beatsOf(g, pulseOf(g.measure));
    const beats = new Set(beatsOf(g));
    for (const bass of basses(g, TRIAD_HOME, g.ceiling)) {
      const [, ...upper] = closeAbove(g, bass, 3);
      if (upper.length < 2 || upper.at(-1)!.midi > HIGHEST) continue;
      yield {
        strokes: inTurn(places, g.stretch.end, (i) => (beats.has(places[i]!) ? [bass] : upper)),
        place: { bass: bass.midi },
      };
    }
  },

  octaves: (g) => octaveFigurations(g, (low, high) => held(g, [low, high])),

  'octaves-in-turn': (g) =>
    octaveFigurations(g, (low, high) => inTurn(beatsOf(g), g.stretch.end, (i) => [i % 2 === 0 ? low : high])),

  *'open-tenth'(g) {
    const all = beatsOf(g, pulseOf(g.measure));
    for (const bass of basses(g, LOW_HOME + 2, Math.min(HIGHEST, g.ceiling) - 12)) {
      const fifth = fifthAbove(g.stretch.chord, bass, 9);
      const tenth = tenthAbove(g.stretch.chord, bass);
      const middle = seventhAbove(g.stretch.chord, bass) ?? fifth;
      if (!fifth || !tenth || !middle) continue;
      const order = [bass, middle, tenth];
      // Four beats come back over the fifth; longer stretches begin anew.
      const keys = all.length % 4 === 0 ? [...order, middle] : order;
      yield {
        strokes: inTurn(all, g.stretch.end, (i) => [keys[i % keys.length]!]),
        place: { bass: bass.midi },
      };
    }
  },

  *'tenth-together'(g) {
    for (const bass of basses(g, LOW_HOME + 2, g.ceiling - 12)) {
      const tenth = tenthAbove(g.stretch.chord, bass);
      if (tenth) yield { strokes: held(g, [bass, tenth]), place: { bass: bass.midi } };
    }
  },

  *'bass-line'(g) {
    const beats = beatsOf(g);
    const scale = new Set(scaleFifths(keyAt(g.measure, g.stretch.onset)).map(pitchClass));
    for (const bass of basses(g, LOW_HOME + 2, Math.min(57, g.ceiling))) {
      const goal = g.next && nearestOctave(bassOf(g.next), bass.midi, g.keyboard);
      const steps = goal === undefined ? [] : stepsTowards(bass, goal, scale, g);
      // The root keeps at least its first beat, and one more where there are two to spare.
      const room = Math.max(0, beats.length - (beats.length > 2 ? 2 : 1));
      const used = steps.slice(-room || steps.length).slice(0, room);
      const places = [g.stretch.onset, ...beats.slice(beats.length - used.length)];
      yield {
        strokes: inTurn(used.length > 0 ? places : [g.stretch.onset], g.stretch.end, (i) => [
          i === 0 ? bass : used[i - 1]!,
        ]),
        place: { bass: bass.midi },
      };
    }
  },

  *'walking-bass'(g) {
    const beats = beatsOf(g);
    for (const bass of basses(g, LOW_HOME, Math.min(HIGHEST_ROOT, g.ceiling))) yield walking(g, bass, beats);
  },

  *'walking-octaves'(g) {
    const beats = beatsOf(g);
    const halves = beatsOf(g, pulseOf(g.measure));
    for (const bass of basses(g, LOW_HOME - 5, Math.min(HIGHEST_ROOT, g.ceiling) - 12)) {
      const walk = walking(g, bass, beats);
      const keyAtBeat = (tick: Ticks): PianoKey => walk.strokes.findLast((s) => s.onset <= tick)!.keys[0]!;
      yield {
        ...walk,
        strokes: inTurn(halves, g.stretch.end, (i) => {
          const key = keyAtBeat(halves[i]!);
          return [beats.includes(halves[i]!) ? key : { ...key, midi: key.midi + 12 }];
        }),
      };
    }
  },

  'pushed-bass': atEighths([0, 3, 4, 7], (place, root, fifth) =>
    place === 0 || place === 7 ? [root] : [fifth],
  ),

  'tango-bass': atEighths([0, 3, 4, 6], (place, root, fifth, chord) =>
    place === 0 ? [root] : place === 3 ? [fifth] : chord,
  ),

  *'low-octave-chord'(g) {
    const [, second] = beatsOf(g);
    for (const low of basses(g, LOW_HOME - 4, Math.min(47, g.ceiling - 3))) {
      const bass = g.span >= 12 ? [low, { ...low, midi: low.midi + 12 }] : [low];
      if (second === undefined) yield { strokes: held(g, bass), place: { ...g.before, bass: low.midi } };
      else
        for (const shape of upperShapes(g, low, 3))
          yield {
            strokes: inTurn([g.stretch.onset, second], g.stretch.end, (i) => (i === 0 ? bass : shape.notes)),
            place: { bass: low.midi, shape },
          };
    }
  },
};

const nearestOctave = (tone: Fifths, to: number, keyboard: ChordContext['keyboard']): number | undefined =>
  octavesOf(tone, keyboard.low, Math.min(60, keyboard.high)).sort(
    (a, b) => Math.abs(a - to) - Math.abs(b - to) || a - b,
  )[0];

/** Notes of the scale strictly between a bass and its goal, in the order they are walked; three at most. */
function stepsTowards(bass: PianoKey, goal: number, scale: ReadonlySet<number>, g: ChordContext): PianoKey[] {
  const way = Math.sign(goal - bass.midi);
  if (way === 0 || Math.abs(goal - bass.midi) > 7) return [];
  const tones = scaleFifths(keyAt(g.measure, g.stretch.onset));
  const result: PianoKey[] = [];
  for (let midi = bass.midi + way; midi !== goal; midi += way) {
    if (!scale.has(mod12(midi))) continue;
    result.push({ midi, tone: tones.find((t) => pitchClass(t) === mod12(midi))! });
  }
  return result.slice(-3);
}

/** How a piece ends: the chord in the level's fullest quiet shape, held. */
export function* endingFigurations(g: ChordContext): Generator<Figuration> {
  const { contract } = g;
  if (contract.leftNotes >= 3)
    for (const bass of basses(g, contract.level >= 5 ? LOW_HOME : TRIAD_HOME, g.ceiling)) {
      const fifth = fifthAbove(g.stretch.chord, bass, 8);
      const octave = { ...bass, midi: bass.midi + 12 };
      if (fifth && contract.level >= 4)
        yield { strokes: held(g, [bass, fifth, octave]), place: { bass: bass.midi } };
      yield { strokes: held(g, closeAbove(g, bass, 3)), place: { bass: bass.midi } };
    }
  yield* PATTERNS['root-fifth'](g);
  yield* PATTERNS['held-root'](g);
}
