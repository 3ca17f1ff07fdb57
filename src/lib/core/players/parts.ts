/**
 * Which part of a score is the melody, and which staves the two hands play. A reader proposes; the teacher may say
 * otherwise, and her choice is applied to the source whenever it is read.
 */
import { z } from 'zod';
import { notate } from '../score/notate';
import { soundingNotes } from '../score/query';
import type { Note, Part, Score } from '../score/score';
import { reducedToTwoHands } from './private/duet';
import { findTune, tuneNotes, type TunePhrase } from './tune';

export const PART_CHOICES = ['melody', 'piano', 'right', 'left', 'other'] as const;

/**
 * `right` and `left` are parts of one staff that together make the keyboard part. Of several parts that are `melody` each has the tune in its
 * phrases. `other` is heard for its chords.
 */
export type PartChoice = (typeof PART_CHOICES)[number];

const rolesSchema = z.record(z.string().max(200), z.enum(PART_CHOICES));

export const choicesSchema = z.strictObject({
  /** What each part is taken to be, by the part's id. */
  parts: rolesSchema,
  /** Who has the tune from one measure to another (indexes, both included), where the teacher says so. */
  tune: z.array(z.object({ from: z.int().min(0), to: z.int().min(0), part: z.string().max(200) })).max(500),
});

/** Until a band could share its tune out, the parts alone were kept. */
const olderSchema = rolesSchema.transform((parts): z.infer<typeof choicesSchema> => ({ parts, tune: [] }));

export const partChoicesSchema = z.union([choicesSchema, olderSchema]);
export type PartChoices = z.infer<typeof partChoicesSchema>;
export type TuneChoice = PartChoices['tune'][number];

export const NO_CHOICES: PartChoices = { parts: {}, tune: [] };

const RIGHT_NAME = /\b(right|upper|treble|r\.? ?h)\b/i;
const MELODY_NAME = /\b(voice|vocals?|singer|sing|melody|lead|tune|soprano)\b/i;
const LEFT_NAME = /\b(left|lower|bass|l\.? ?h)\b/i;
/** Two parts that far apart, in semitones of their mean, are likelier two hands than two voices. */
const HANDS_APART = 7;

const hasWords = (part: Part): boolean => part.notes.some((n) => n.lyrics?.some((l) => l.line === 'words'));

function meanPitch(part: Part): number {
  const notes = soundingNotes(part.notes);
  return notes.reduce((sum, n) => sum + n.midi, 0) / Math.max(1, notes.length);
}

/**
 * What the parts look like: a voice with words, or called so, is the melody, two staves are the hands, or two parts of one staff. In a band
 * the melody is with those who have it in some phrase.
 */
export const proposedParts = (score: Score): PartChoices => ({ parts: rolesOf(score), tune: [] });

function rolesOf(score: Score): PartChoices['parts'] {
  const { parts } = score;
  const choices: Record<string, PartChoice> = Object.fromEntries(parts.map((p) => [p.id, 'other']));
  if (parts.length === 1) return { [parts[0]!.id]: 'piano' };
  // Two pianos, or four hands at one: both are played, as two hands can.
  const grands = parts.filter((p) => p.staves >= 2 && p.notes.length > 0);
  const [grand] = grands;
  const single = parts.filter((p) => p.staves === 1);
  if (!grand && isBand(score)) {
    const sung = single.filter(hasWords);
    const leading = sung.length > 0 ? sung.map((p) => p.id) : findTune(score).map((t) => t.part);
    for (const id of leading) choices[id] = 'melody';
    return choices;
  }
  const sung = single.find(hasWords) ?? single.find((p) => MELODY_NAME.test(p.name));
  for (const { id } of grands) choices[id] = 'piano';
  if (sung) choices[sung.id] = 'melody';
  if (grand) return choices;
  const others = single.filter((p) => p !== sung);
  const hands = handsAmong(others);
  if (hands) {
    choices[hands.right.id] = 'right';
    choices[hands.left.id] = 'left';
  } else if (others.length === 1) choices[others[0]!.id] = 'piano';
  else if (!sung) choices[parts[0]!.id] = 'melody';
  return choices;
}

/** What is proposed, and over it what was chosen for parts that the score really has. */
export function choicesFor(score: Score, chosen: PartChoices = NO_CHOICES): PartChoices {
  const has = (id: string): boolean => score.parts.some((p) => p.id === id);
  return {
    parts: {
      ...rolesOf(score),
      ...Object.fromEntries(Object.entries(chosen.parts).filter(([id]) => has(id))),
    },
    tune: chosen.tune.filter(({ part }) => has(part)),
  };
}

/** Fewest players of a band; of fewer, two are hands. */
const FEWEST_PLAYERS = 3;

/** Whether a score is for players of their own rather than for a piano, and one who sings to it. */
function isBand({ parts }: Score): boolean {
  const single = parts.filter((p) => p.staves === 1 && p.notes.length > 0);
  if (single.length < FEWEST_PLAYERS) return false;
  // A singer and the hands of one who plays for him.
  const sung = single.find(hasWords) ?? single.find((p) => MELODY_NAME.test(p.name));
  return !(single.length === FEWEST_PLAYERS && sung && handsAmong(single.filter((p) => p !== sung)));
}

function handsAmong(parts: readonly Part[]): { right: Part; left: Part } | undefined {
  const right = parts.find((p) => RIGHT_NAME.test(p.name));
  const left = parts.find((p) => LEFT_NAME.test(p.name) && p !== right);
  if (right && left) return { right, left };
  if (parts.length !== 2) return undefined;
  const [upper, lower] = [...parts].sort((a, b) => meanPitch(b) - meanPitch(a)) as [Part, Part];
  return meanPitch(upper) - meanPitch(lower) >= HANDS_APART ? { right: upper, left: lower } : undefined;
}

/**
 * The score as it is to be worked with: the melody and the keyboard part marked as such, parts of the hands made into one
 * part of two staves. Note ids stay. Choices for parts that are not there are ignored.
 */
export function withParts(score: Score, { parts: choices, tune }: PartChoices = proposedParts(score)): Score {
  const isOne = (...which: readonly PartChoice[]): Part[] =>
    score.parts.filter((p) => which.includes(choices[p.id] ?? 'other'));
  const leading = isOne('melody');
  const melody = leading.length > 1 || isBand(score) ? sharedTune(score, leading, tune) : leading[0];
  const hands = isOne('piano', 'right', 'left');
  const isDuet = hands.filter((p) => p.staves >= 2).length > 1;
  const others = [
    ...(melody && melody !== leading[0] ? leading : []),
    ...(isDuet ? hands.map((p) => ({ ...p, id: `${p.id} alone` })) : []),
    ...isOne('other'),
  ].map((p): Part => ({
    ...p,
    role: 'other',
  }));
  const keyboard =
    hands.length === 0
      ? []
      : hands.length === 1
        ? [{ ...hands[0]!, role: 'keyboard' as const }]
        : [isDuet ? reducedToTwoHands(hands, score.measures) : oneKeyboard(hands, choices)];
  return {
    ...score,
    parts: [...(melody ? [{ ...melody, role: 'melody' as const }] : []), ...keyboard, ...others],
  };
}

/** A score never changes: its look, its sentences and its melody part ask for the same phrases. */
const phrasesOf = new WeakMap<Score, Map<string, TunePhrase[]>>();

/** The phrases in which each part that may have the tune has it; what the teacher says of a measure holds. */
export function tunePhrases(score: Score, { parts, tune }: PartChoices): TunePhrase[] {
  const among = new Set([
    ...Object.keys(parts).filter((id) => parts[id] === 'melody'),
    ...tune.map(({ part }) => part),
  ]);
  const known = phrasesOf.get(score) ?? new Map<string, TunePhrase[]>();
  phrasesOf.set(score, known);
  const name = JSON.stringify([[...among].sort(), tune]);
  const phrases =
    known.get(name) ??
    findTune(
      score,
      among,
      (measure) => tune.findLast(({ from, to }) => measure >= from && measure <= to)?.part,
    );
  known.set(name, phrases);
  return phrases;
}

/** The tune as a part of its own, made of the phrases of those who have it. */
function sharedTune(score: Score, leading: readonly Part[], tune: readonly TuneChoice[]): Part | undefined {
  if (leading.length === 0) return undefined;
  const parts = Object.fromEntries(leading.map((p) => [p.id, 'melody' as const]));
  const notes = tuneNotes(score, tunePhrases(score, { parts, tune: [...tune] }));
  const written = new Map(score.parts.flatMap((p) => p.notes).map((n) => [n.id, n]));
  const [first] = leading;
  return {
    id: leading.length === 1 ? first!.id : TUNE,
    name: leading.length === 1 ? first!.name : 'Melody',
    staves: 1,
    notes: notate(
      score.measures,
      notes.map(({ id, onset, duration, pitch, articulations }): Note => {
        const own = written.get(id);
        return {
          id,
          onset,
          duration,
          pitch,
          staff: 1,
          voice: 1,
          ...(articulations.length > 0 ? { articulations } : {}),
          ...(own?.lyrics ? { lyrics: own.lyrics } : {}),
        };
      }),
    ),
    ...(first!.marks ? { marks: first!.marks.map((m) => ({ ...m, staff: 1 })) } : {}),
  };
}

/** The id of the part that is made of the phrases of several. */
const TUNE = 'tune';

/** Several parts as one of two staves. Their voices keep apart. */
function oneKeyboard(parts: readonly Part[], choices: PartChoices['parts']): Part {
  const staffOf = (part: Part, staff: number): number =>
    choices[part.id] === 'left' ? 2 : choices[part.id] === 'right' ? 1 : Math.min(2, staff);
  let voices = 0;
  const notes = parts.flatMap((part) => {
    const own = part.notes.map((n): Note => ({
      ...n,
      staff: staffOf(part, n.staff),
      voice: n.voice + voices,
    }));
    voices = Math.max(voices, ...own.map((n) => n.voice));
    return own;
  });
  const moved = <T extends { readonly staff: number; readonly onset: number }>(
    pick: (part: Part) => readonly T[] | undefined,
  ): T[] =>
    parts
      .flatMap((part) => (pick(part) ?? []).map((item) => ({ ...item, staff: staffOf(part, item.staff) })))
      .sort((a, b) => a.onset - b.onset);
  return {
    id: parts[0]!.id,
    name: 'Piano',
    staves: 2,
    role: 'keyboard',
    notes: notes.sort((a, b) => a.onset - b.onset || a.staff - b.staff || a.voice - b.voice),
    clefs: moved((p) => p.clefs),
    marks: moved((p) => p.marks),
  };
}
