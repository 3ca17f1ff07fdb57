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
import { countMeasures, countText, type MeasureCounts } from '../counting/count';
import type { Hand } from '../fingering/events';
import { explainFinger, plainPlace, type FingerReason, type PlaceText } from '../fingering/explain';
import { fingerHand, phraseStarts, type FingeredHand } from '../fingering/fingerHand';
import type { Finger } from '../fingering/grips';
import { pedalPerHarmony } from '../pedal/pedal';
import { notate } from '../score/notate';
import { measureAt, soundingNotes, type SoundingNote } from '../score/query';
import type { Lyric, Measure, Note, Score } from '../score/score';
import { parseKey, type Key } from '../theory/key';
import { transposeScore, transpositionTo } from '../transpose/transpose';
import { checkVersion, type Violation } from './check';
import type { Decision, Recipe } from './recipe';

export interface Reason {
  readonly measure: number;
  readonly about: 'melody' | 'right hand' | 'left hand' | 'key' | 'pedal' | 'register';
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

  const arranged = arrangedScore(
    inKey,
    notate(inKey.measures, [...melodyNotes(melody, inKey), ...accompaniment.notes, ...left.notes]),
    chords,
  );
  const fingers = fingerHands(arranged, form, recipe, decisions);
  const counts =
    recipe.counting === 'none' ? [] : countMeasures(arranged.measures, handNotes(arranged, 'right'));
  const sounding = soundingNotes(arranged.parts[0]!.notes);
  const pedals =
    contract.pedal && recipe.pedal === 'harmony'
      ? pedalPerHarmony(sounding, chords, phraseStarts(arranged, form))
      : [];
  if (pedals.length > 0)
    reasons.push({
      measure: 0,
      about: 'pedal',
      notes: [],
      text: 'down with each new bass, cleared as the chord changes',
    });

  const score = withMarks({ ...arranged, pedals }, fingers, counts);
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
      reach: { right: REACH_SEMITONES[recipe.reach.right], left: REACH_SEMITONES[recipe.reach.left] },
      keyboard,
    }),
    parked: decisions.filter((d) => !(d.note in fingers)),
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

function arrangedScore(frame: Score, notes: readonly Note[], chords: readonly ChordSpan[]): Score {
  const words = frame.parts.flatMap((p) => p.marks ?? []).filter((m) => m.kind === 'lyrics');
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

const STAFF = { right: 1, left: 2 } as const;

const handNotes = (score: Score, hand: Hand): SoundingNote[] =>
  soundingNotes(score.parts[0]!.notes.filter((n) => n.staff === STAFF[hand]));

/** One hand of an arranged score, fingered as recipe and decisions have it. */
const fingered = (
  score: Score,
  form: Form,
  recipe: Recipe,
  decisions: readonly Decision[],
  hand: Hand,
): FingeredHand =>
  fingerHand(score, score.parts[0]!, hand, form, {
    reach: REACH_SEMITONES[recipe.reach[hand]],
    locks: new Map(decisions.map((d) => [d.note, d.finger])),
    steadiness: STEADINESS[recipe.level],
  });

function fingerHands(
  score: Score,
  form: Form,
  recipe: Recipe,
  decisions: readonly Decision[],
): Record<string, NoteFinger> {
  const decided = new Set(decisions.map((d) => d.note));
  const result: Record<string, NoteFinger> = {};
  for (const hand of ['right', 'left'] as const) {
    const { fingering } = fingered(score, form, recipe, decisions, hand);
    for (const [id, finger] of fingering.fingers) result[id] = { finger, decided: decided.has(id) };
  }
  return result;
}

/** Why a note of a version has its finger. Asked for one note at a time, since it solves the phrase again. */
export function whyFinger(
  version: Version,
  recipe: Recipe,
  decisions: readonly Decision[],
  noteId: string,
): FingerReason | undefined {
  const note = version.score.parts[0]?.notes.find((n) => n.id === noteId);
  if (!note) return undefined;
  const hand: Hand = note.staff === 1 ? 'right' : 'left';
  const others = decisions.filter((d) => d.note !== noteId);
  const decided = decisions.find((d) => d.note === noteId);
  const { notes, fingering: free } = fingered(version.score, version.form, recipe, others, hand);
  if (!decided) return explainFinger(notes, free, noteId, placeIn(version.score.measures));
  const { fingering: locked } = fingered(version.score, version.form, recipe, decisions, hand);
  const proposed = free.fingers.get(noteId);
  const dearer = locked.cost - free.cost;
  return {
    finger: decided.finger,
    other: proposed ?? decided.finger,
    dearer,
    text:
      proposed === decided.finger
        ? `You decided ${decided.finger}; the proposal is the same.`
        : `You decided ${decided.finger}; the proposal was ${proposed}, ${dearer < 1 ? 'hardly easier' : dearer < 4 ? 'a little easier' : 'much easier'} for the hand.`,
  };
}

/** Where a note lies from another, as a teacher points at it: "after the barline", "two notes later". */
const placeIn =
  (measures: readonly Measure[]): PlaceText =>
  (from, to, steps) => {
    const measuresOn = measureAt(measures, to.onset).index - measureAt(measures, from.onset).index;
    if (measuresOn === 1 && steps <= 4) return 'after the barline';
    if (measuresOn === -1 && steps >= -4) return 'before the barline';
    if (Math.abs(measuresOn) >= 1) return `in measure ${measureAt(measures, to.onset).number}`;
    return plainPlace(from, to, steps);
  };

/** Writes fingers and counts onto the notes. */
function withMarks(
  score: Score,
  fingers: Readonly<Record<string, NoteFinger>>,
  counts: readonly MeasureCounts[],
): Score {
  const says = new Map<number, string>();
  for (const { measure, counts: list } of counts) {
    const start = score.measures[measure]!.start;
    let onset: number | undefined;
    for (const count of list) {
      const tick = start + count.at;
      if (count.kind === 'onset') {
        onset = tick;
        says.set(tick, countText(count));
      } else if (count.kind === 'held' && onset !== undefined) {
        // The lyric of the note that is held carries its held beats: "1 (2)".
        says.set(onset, `${says.get(onset)!} ${countText(count)}`);
      }
    }
  }
  const part = score.parts[0]!;
  const counted = new Set<number>();
  const notes = part.notes.map((note): Note => {
    const finger = fingers[note.id]?.finger;
    const isCounted = note.staff === 1 && says.has(note.onset) && !counted.has(note.onset) && isStruck(note);
    if (isCounted) counted.add(note.onset);
    const count: Lyric[] = isCounted
      ? [{ line: 'counts', verse: 1, text: says.get(note.onset)!, syllabic: 'single' }]
      : [];
    const lyrics = [...count, ...(note.lyrics ?? [])];
    return { ...note, ...(finger ? { finger } : {}), ...(lyrics.length ? { lyrics } : {}) };
  });
  return { ...score, parts: [{ ...part, notes }] };
}

const isStruck = (note: Note): boolean => note.tie !== 'stop' && note.tie !== 'both';
