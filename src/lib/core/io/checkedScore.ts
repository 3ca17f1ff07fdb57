/**
 * The boundary of every format: what a reader has made is checked before anything else sees it, so that a damaged file
 * becomes a sentence about a measure and not a strange score.
 */
import { z } from 'zod';
import { InputError } from './inputError';
import { MOST_MEASURES, MOST_NOTES, MOST_PARTS } from './limits';
import { toMidi } from '../score/pitch';
import { measureAt } from '../score/query';
import type { Score } from '../score/score';

const ticks = z.number().int().min(0).max(1e10);

const pitch = z
  .object({
    step: z.enum(['C', 'D', 'E', 'F', 'G', 'A', 'B']),
    alter: z.int().min(-3).max(3),
    octave: z.int(),
  })
  .refine((p) => toMidi(p) >= 0 && toMidi(p) <= 127, 'no instrument plays that high or low');

const note = z.object({
  onset: ticks,
  duration: ticks,
  pitch,
  staff: z.int().min(1).max(8),
  voice: z.int().min(1).max(100_000),
});

const measure = z.object({
  start: ticks,
  length: ticks.min(1),
  beginsAt: ticks,
  time: z.object({ beats: z.int().min(1).max(64), beatType: z.int().min(1).max(64) }),
  key: z.object({ fifths: z.int().min(-7).max(7), mode: z.enum(['major', 'minor']) }),
});

const scoreSchema = z.object({
  tempo: z.number().min(0).max(2000),
  measures: z.array(measure).min(1).max(MOST_MEASURES),
  parts: z
    .array(z.object({ staves: z.int().min(1).max(8), notes: z.array(note).max(MOST_NOTES) }))
    .max(MOST_PARTS),
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
    `The music cannot be used: ${String(issue.path.at(-1) ?? 'something')}${where} is not possible (${issue.message}).`,
  );
}
