/**
 * The boundary of every format: what a reader has made is checked before anything else sees it, so that a damaged file
 * becomes a sentence about a measure and not a strange score.
 */
import { z } from 'zod';
import { InputError } from '../inputError';
import { MOST_MEASURES, MOST_NOTES, MOST_PARTS } from '../limits';
import { STEPS, toMidi } from '../../theory/pitch';
import { MODES } from '../../theory/modes';
import { measureAt } from '../../score/query';
import type { Note, Score } from '../../score/score';

const MOST_TICKS = 1e10;
const ticks = z.number().int().min(0).max(MOST_TICKS);

const isWhole = (value: unknown, least: number, most: number): boolean =>
  Number.isInteger(value) && (value as number) >= least && (value as number) <= most;

/** What is wrong with a note: the field, and a word about it. */
function faultOf({ onset, duration, pitch, staff, voice }: Note): readonly [string, string] | undefined {
  if (!isWhole(onset, 0, MOST_TICKS)) return ['onset', 'no place in time'];
  if (!isWhole(duration, 0, MOST_TICKS)) return ['duration', 'no length'];
  if (!STEPS.includes(pitch.step) || !isWhole(pitch.alter, -3, 3) || !Number.isInteger(pitch.octave))
    return ['pitch', 'no note of the staff'];
  if (!isWhole(toMidi(pitch), 0, 127)) return ['pitch', 'no instrument plays that high or low'];
  if (!isWhole(staff, 1, 8)) return ['staff', 'no staff of a part'];
  if (!isWhole(voice, 1, 100_000)) return ['voice', 'no voice of a staff'];
  return undefined;
}

/** In one loop: a hundred thousand notes are checked note by note in no time, and schema by schema in half a second. */
const notes = z.custom<readonly Note[]>(Array.isArray).check((context) => {
  const list = context.value;
  if (list.length > MOST_NOTES)
    context.issues.push({ code: 'custom', message: `more than ${MOST_NOTES} notes`, input: list });
  const at = list.findIndex((note) => faultOf(note));
  if (at < 0) return;
  const [field, message] = faultOf(list[at]!)!;
  context.issues.push({ code: 'custom', path: [at, field], message, input: list[at] });
});

const measure = z.object({
  start: ticks,
  length: ticks.min(1),
  beginsAt: ticks,
  time: z.object({ beats: z.int().min(1).max(64), beatType: z.int().min(1).max(64) }),
  key: z.object({ fifths: z.int().min(-7).max(7), mode: z.enum(MODES) }),
});

const scoreSchema = z.object({
  tempo: z.number().min(0).max(2000),
  measures: z.array(measure).min(1).max(MOST_MEASURES),
  parts: z.array(z.object({ staves: z.int().min(1).max(8), notes })).max(MOST_PARTS),
  chordSymbols: z.array(z.object({ onset: ticks })).max(100_000),
  pedals: z.array(z.object({ onset: ticks })).max(200_000),
});

/** The score as it came. Throws InputError with the measure in which something is wrong. */
export function checkedScore(score: Score): Score {
  const checked = scoreSchema.safeParse(score);
  if (checked.success) return score;
  const issue = checked.error.issues[0]!;
  const [list, index, inner, item] = issue.path;
  const onset =
    list === 'parts' && inner === 'notes'
      ? score.parts[Number(index)]?.notes[Number(item)]?.onset
      : list === 'measures'
        ? score.measures[Number(index)]?.start
        : undefined;
  const where =
    onset !== undefined && Number.isFinite(onset) && score.measures.length > 0
      ? ` in measure ${measureAt(score.measures, onset).number}`
      : '';
  throw new InputError(
    `This music can’t be used: ${String(issue.path.at(-1) ?? 'something')}${where} is not possible (${issue.message}).`,
  );
}
