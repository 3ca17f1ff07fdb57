/**
 * From a source, a recipe and the teacher's decisions to the version: analyse → transpose → arrange → finger → count
 * → pedal → check. Deterministic; a version is never stored, only made again.
 *
 * Transposing comes before arranging, since register, reach and keyboard can only be judged in the key that sounds.
 */
import { difficultyOf, type MeasureDifficulty } from '../difficulty/difficulty';
import { formOf, type Form } from '../analysis/form';
import { chordsOf, type ChordSpan } from '../analysis/harmony';
import { keyOf, withHeardMode } from '../analysis/key';
import { melodyOf } from '../analysis/melody';
import { leftHand } from '../arrange/leftHand';
import { LEVELS } from '../arrange/levels';
import { reduceMelody } from '../arrange/reduceMelody';
import { rightHandChords } from '../arrange/rightHandChords';
import { KEYBOARDS, REACH_SEMITONES } from '../arrange/register';
import { textureFor } from '../arrange/textures';
import { countMeasures, withOtherWords, type MeasureCounts } from '../counting/count';
import { feelOf, type Feel } from '../counting/feel';
import type { Hand } from '../fingering/events';
import { fingerHand, phraseStarts, playedBy, struckBy, type FingeredHand } from '../fingering/fingerHand';
import type { Finger } from '../fingering/grips';
import { positionsOf, type HandPosition } from '../fingering/positions';
import { wideChords, type WideChord } from '../hands/wide';
import { blursUnder, type Blur } from '../pedal/blur';
import { pedalMarks, type PedalStyle, type ReasonedMark } from '../pedal/pedal';
import { notate } from '../score/notate';
import { measureAt, soundingNotes, type SoundingNote } from '../score/query';
import type { Mark, Note, PedalMark, Score } from '../score/score';
import { parseKey, type Key } from '../theory/key';
import { transposeScore, transpositionTo } from '../transpose/transpose';
import { checkVersion, type Violation } from './check';
import { decisionsOf, type Decision, type Recipe } from './recipe';
import { countingIn, pedalIn } from './ways';
import { withCounts, withFingers } from './writeMarks';

export interface Reason {
  readonly measure: number;
  readonly about: 'melody' | 'right hand' | 'left hand' | 'register';
  /** Ids of the notes it speaks of; may be empty. */
  readonly notes: readonly string[];
  readonly text: string;
}

export interface NoteFinger {
  readonly finger: Finger;
  readonly decided: boolean;
}

export interface Version {
  /** Two staves, fingers, counts and pedal in place: ready to engrave or to write. */
  readonly score: Score;
  readonly sourceKey: Key;
  readonly key: Key;
  readonly form: Form;
  readonly chords: readonly ChordSpan[];
  /** By the id of the struck note. */
  readonly fingers: Readonly<Record<string, NoteFinger>>;
  readonly counts: readonly MeasureCounts[];
  readonly feel: Feel;
  /** Where each hand lies, in order of time. */
  readonly positions: readonly HandPosition[];
  readonly pedals: readonly ReasonedMark[];
  /** What blurs under the pedal as it is. */
  readonly blurs: readonly Blur[];
  /** Chords that their hand cannot hold, and what can be done about them. */
  readonly wide: readonly WideChord[];
  readonly difficulty: readonly MeasureDifficulty[];
  readonly reasons: readonly Reason[];
  readonly violations: readonly Violation[];
  /** Decisions whose note is not in this version. They come back when it does. */
  readonly parked: readonly Decision[];
  /** How much of the melody was changed, to be said honestly. */
  readonly report: { readonly melodyNotes: number; readonly leftOut: number; readonly moved: number };
  /** Goal tempo in quarter notes per minute. */
  readonly goalTempo: number;
}

/** Played when a source gives no tempo. */
const USUAL_TEMPO = 96;

/** How much dearer moving the hand is at the levels that should stay in place. */
const STEADINESS = { 1: 2.2, 2: 1.8, 3: 1 } as const;

/** Makes the version. Throws when the source holds no part; every other shortcoming is a violation or a reason. */
export function realise(source: Score, recipe: Recipe, decisions: readonly Decision[]): Version {
  const contract = LEVELS[recipe.level];
  const reasons: Reason[] = [];

  const heard = withHeardMode(source);
  const form = formOf(heard);
  const sourceKey = keyOf(heard);
  const wanted = recipe.key === null ? sourceKey : (parseKey(recipe.key) ?? sourceKey);
  const key: Key = { ...wanted, mode: sourceKey.mode };
  const inKey = transposeScore(heard, transpositionTo(sourceKey, key));
  const chords = chordsOf(inKey);

  const keyboard = KEYBOARDS[recipe.keyboard];
  const { notes: reduced, changes } = reduceMelody(melodyOf(inKey), inKey.measures, contract);
  const melody = foldIntoRange(reduced, keyboard, reasons);
  for (const change of changes)
    reasons.push({ measure: change.measure, about: 'melody', notes: [change.note], text: change.reason });

  // A chart has no tune: the right hand plays chords to sing to.
  const accompaniment =
    melody.length === 0
      ? rightHandChords(inKey.measures, chords, {
          contract,
          reach: REACH_SEMITONES[recipe.reach.right],
          keyboard,
        })
      : { notes: [], reasons: [] };
  for (const { measure, notes, reason } of accompaniment.reasons)
    reasons.push({ measure, about: 'right hand', notes, text: reason });

  const left = leftHand(inKey.measures, chords, [...melody, ...soundingNotes(accompaniment.notes)], {
    contract,
    texture: textureFor(recipe.level, recipe.texture),
    freshStarts: new Set(form.sections.map((s) => inKey.measures[s.from]!.index)),
    reach: REACH_SEMITONES[recipe.reach.left],
    keyboard,
  });
  for (const { measure, notes, reason } of left.reasons)
    reasons.push({ measure, about: 'left hand', notes, text: reason });

  const feel = recipe.feel ?? feelOf(source);
  const arranged = arrangedScore(
    inKey,
    notate(
      inKey.measures,
      inDecidedHands([...melodyNotes(melody, inKey), ...accompaniment.notes, ...left.notes], decisions),
    ),
    chords,
    feel,
  );
  const fingers = fingerHands(arranged, form, recipe, decisions);
  const byId = new Map(Object.entries(fingers).map(([id, { finger }]) => [id, finger]));
  const { counts, unmatched } = countsOf(arranged, form, recipe, decisions);
  const pedals = pedalsOf(
    arranged,
    inKey.pedals,
    chords,
    form,
    pedalIn(recipe, decisions, form, contract.pedal),
  );
  const score: Score = {
    ...arranged,
    parts: [withCounts(withFingers(arranged.parts[0]!, byId), arranged.measures, counts)],
    pedals,
  };
  const sounding = soundingNotes(score.parts[0]!.notes);
  const reach = { right: REACH_SEMITONES[recipe.reach.right], left: REACH_SEMITONES[recipe.reach.left] };
  const goalTempo = 2 * Math.round(((source.tempo || USUAL_TEMPO) * contract.tempoShare) / 2); // as metronomes go
  const timed = { ...score, tempo: goalTempo };
  return {
    score: timed,
    sourceKey,
    key,
    form,
    chords,
    fingers,
    counts,
    difficulty: difficultyOf(timed),
    reasons,
    violations: checkVersion(score, {
      contract,
      reach,
      keyboard,
    }),
    parked: decisions.filter((d) =>
      'note' in d ? !(d.note in fingers) : d.measure >= score.measures.length || unmatched.has(d),
    ),
    feel,
    positions: (['right', 'left'] as const).flatMap((hand) =>
      positionsOf(struckBy(score.parts[0]!, hand), byId, hand),
    ),
    pedals,
    blurs: blursUnder(sounding, chords, pedals),
    wide: wideChords(sounding, (n) => (n.staff === 1 ? 'right' : 'left'), {
      measures: score.measures,
      reach,
      hasPedal: pedals.length > 0,
    }),
    report: {
      melodyNotes: melody.length + changes.filter((c) => c.kind === 'left-out').length,
      leftOut: changes.filter((c) => c.kind === 'left-out').length,
      moved: changes.filter((c) => c.kind === 'moved').length,
    },
    goalTempo,
  };
}

/** Lowest comfortable bottom of a right-hand melody, G3: below it there is no room for the left hand. */
const MELODY_FLOOR = 55;

/** Moves the whole melody by octaves, so that it lies on the keyboard with room for the left hand below it. */
function foldIntoRange(
  melody: readonly SoundingNote[],
  keyboard: { low: number; high: number },
  reasons: Reason[],
): SoundingNote[] {
  if (melody.length === 0) return [];
  const low = Math.min(...melody.map((n) => n.midi));
  const high = Math.max(...melody.map((n) => n.midi));
  let shift = 0;
  while (low + shift < MELODY_FLOOR && high + shift + 12 <= Math.min(keyboard.high, 91)) shift += 12;
  while (high + shift > keyboard.high && low + shift - 12 >= keyboard.low) shift -= 12;
  if (shift === 0) return [...melody];
  reasons.push({
    measure: 0,
    about: 'register',
    notes: [],
    text: `the melody is ${Math.abs(shift) === 12 ? 'an octave' : `${Math.abs(shift) / 12} octaves`} ${shift > 0 ? 'higher, to leave room for the left hand' : 'lower, to lie on the keyboard'}`,
  });
  return melody.map((n) => ({
    ...n,
    midi: n.midi + shift,
    pitch: { ...n.pitch, octave: n.pitch.octave + shift / 12 },
  }));
}

/** The melody as written notes of staff 1; words stay with the note that carries them. */
function melodyNotes(melody: readonly SoundingNote[], source: Score): Note[] {
  const written = new Map(source.parts.flatMap((p) => p.notes).map((n) => [n.id, n]));
  return melody.map((n): Note => {
    const original = written.get(n.id);
    return {
      id: n.id,
      onset: n.onset,
      duration: n.duration,
      pitch: n.pitch,
      staff: 1,
      voice: 1,
      ...(n.articulations.length ? { articulations: n.articulations } : {}),
      ...(original?.lyrics ? { lyrics: original.lyrics } : {}),
      ...(original?.fermata ? { fermata: true } : {}),
    };
  });
}

function arrangedScore(
  frame: Score,
  notes: readonly Note[],
  chords: readonly ChordSpan[],
  feel: Feel,
): Score {
  const sung = frame.parts.flatMap((p) => p.marks ?? []).filter((m) => m.kind === 'lyrics');
  const words: readonly Mark[] =
    feel === 'swing' ? [{ kind: 'words', onset: 0, staff: 1, above: true, text: 'Swing' }, ...sung] : sung;
  return {
    ...frame,
    measures: frame.measures.map((m, i) =>
      i === frame.measures.length - 1 ? { ...m, barline: 'final' } : m,
    ),
    parts: [{ id: 'P1', name: 'Piano', staves: 2, notes, ...(words.length > 0 ? { marks: words } : {}) }],
    chordSymbols: chords.filter((c) => c.chord).map(({ onset, chord }) => ({ onset, chord })),
    pedals: [],
  };
}

/** What is said in each measure, the teacher's own words over it; and the decisions whose words do not fit their measure. */
function countsOf(
  score: Score,
  form: Form,
  recipe: Recipe,
  decisions: readonly Decision[],
): { counts: MeasureCounts[]; unmatched: ReadonlySet<Decision> } {
  const part = score.parts[0]!;
  const notes = recipe.countFor === 'both' ? soundingNotes(part.notes) : playedBy(part, recipe.countFor);
  const words = new Map(decisionsOf(decisions, 'count').map((d) => [d.measure, d]));
  const unmatched = new Set<Decision>();
  const counts = countMeasures(score.measures, notes, countingIn(recipe, form));
  return {
    unmatched,
    counts: counts.map((entry) => {
      const decided = words.get(entry.measure);
      if (!decided) return entry;
      const other = withOtherWords(entry.counts, decided.words);
      if (!other) unmatched.add(decided);
      return other ? { ...entry, counts: other } : entry;
    }),
  };
}

/** Pedal for both hands. Where a measure keeps the source's own marks, those that fall into it. */
function pedalsOf(
  score: Score,
  ownMarks: readonly PedalMark[],
  chords: readonly ChordSpan[],
  form: Form,
  styleIn: (measure: number) => PedalStyle | 'source',
): ReasonedMark[] {
  const marks = pedalMarks(soundingNotes(score.parts[0]!.notes), {
    measures: score.measures,
    chords,
    phraseStarts: phraseStarts(score, form),
    styleIn: (measure) => {
      const style = styleIn(measure);
      return style === 'source' ? 'none' : style;
    },
  });
  const kept = ownMarks
    .filter((m) => styleIn(measureAt(score.measures, m.onset).index) === 'source')
    .map((m): ReasonedMark => ({ ...m, because: 'as in the source' }));
  return [...marks, ...kept].sort((a, b) => a.onset - b.onset);
}

/** Voice of a note that came to the other hand and found none there that moves with it. */
const VISITING_VOICE = { right: 2, left: 6 } as const;

/** Notes in the hands that the teacher has given them to. */
function inDecidedHands(notes: readonly Note[], decisions: readonly Decision[]): readonly Note[] {
  const hands = new Map(decisionsOf(decisions, 'hand').map((d) => [d.note, d.hand]));
  if (hands.size === 0) return notes;
  return notes.map((note) => {
    const hand = hands.get(note.id);
    const staff = hand === 'right' ? 1 : 2;
    if (!hand || staff === note.staff) return note;
    const host = notes.find(
      (n) => n.staff === staff && n.onset === note.onset && n.duration === note.duration && !hands.has(n.id),
    );
    return { ...note, staff, voice: host?.voice ?? VISITING_VOICE[hand] };
  });
}

/** One hand of an arranged score, fingered as recipe and decisions have it. */
export const fingered = (
  score: Score,
  form: Form,
  recipe: Recipe,
  decisions: readonly Decision[],
  hand: Hand,
): FingeredHand =>
  fingerHand(score, score.parts[0]!, hand, form, {
    reach: REACH_SEMITONES[recipe.reach[hand]],
    locks: new Map(decisionsOf(decisions, 'finger').map((d) => [d.note, d.finger])),
    steadiness: STEADINESS[recipe.level],
  });

function fingerHands(
  score: Score,
  form: Form,
  recipe: Recipe,
  decisions: readonly Decision[],
): Record<string, NoteFinger> {
  const decided = new Set(decisionsOf(decisions, 'finger').map((d) => d.note));
  const result: Record<string, NoteFinger> = {};
  for (const hand of ['right', 'left'] as const) {
    const { fingering } = fingered(score, form, recipe, decisions, hand);
    for (const [id, finger] of fingering.fingers) result[id] = { finger, decided: decided.has(id) };
  }
  return result;
}
