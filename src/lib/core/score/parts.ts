/**
 * Which part of a score is the melody, and which staves the two hands play. A reader proposes; the teacher may say
 * otherwise, and her choice is applied to the source whenever it is read.
 */
import { z } from 'zod';
import { soundingNotes } from './query';
import type { Note, Part, Score } from './score';

export const PART_CHOICES = ['melody', 'piano', 'right', 'left', 'other'] as const;

/** `right` and `left` are parts of one staff that together make the keyboard part. */
export type PartChoice = (typeof PART_CHOICES)[number];

/** What each part is taken to be, by the part's id. */
export const partChoicesSchema = z.record(z.string().max(200), z.enum(PART_CHOICES));
export type PartChoices = z.infer<typeof partChoicesSchema>;

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

/** What the parts look like: a voice with words, or called so, is the melody, two staves are the hands, or two parts of one staff. */
export function proposedParts(score: Score): PartChoices {
  const { parts } = score;
  const choices: Record<string, PartChoice> = Object.fromEntries(parts.map((p) => [p.id, 'other']));
  if (parts.length === 1) return { [parts[0]!.id]: 'piano' };
  const grand = parts.find((p) => p.staves >= 2);
  const single = parts.filter((p) => p.staves === 1);
  const sung = single.find(hasWords) ?? single.find((p) => MELODY_NAME.test(p.name));
  if (grand) choices[grand.id] = 'piano';
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
export function withParts(score: Score, choices: PartChoices = proposedParts(score)): Score {
  const chosen = (choice: PartChoice): Part[] => score.parts.filter((p) => choices[p.id] === choice);
  const [melody, ...otherMelodies] = chosen('melody');
  const hands = score.parts.filter((p) => ['piano', 'right', 'left'].includes(choices[p.id] ?? 'other'));
  const others = [...otherMelodies, ...score.parts.filter((p) => (choices[p.id] ?? 'other') === 'other')].map(
    (p): Part => ({ ...p, role: 'other' }),
  );
  const keyboard =
    hands.length === 0
      ? []
      : [hands.length === 1 ? { ...hands[0]!, role: 'keyboard' as const } : oneKeyboard(hands, choices)];
  return {
    ...score,
    parts: [...(melody ? [{ ...melody, role: 'melody' as const }] : []), ...keyboard, ...others],
  };
}

/** Several parts as one of two staves. Their voices keep apart. */
function oneKeyboard(parts: readonly Part[], choices: PartChoices): Part {
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
