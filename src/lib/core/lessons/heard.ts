/** What the ear heard of a step, as it is kept with the event that rests on it: a proposal and its reasons, never the sound itself. */
import { z } from 'zod';

const share = z.number().min(0).max(1);

const heardMeasureSchema = z.object({
  /** Id of the measure in the source. */
  id: z.string().regex(/^[mi]\d{1,5}$/),
  /** Its number as it is printed. */
  number: z.string().max(12),
  /** Share of its notes that were right. */
  right: share,
  /** What was not, in words: "F♯, not F". */
  slips: z.array(z.string().max(80)).max(40),
});

export const heardSchema = z.object({
  /** The grade that was proposed. */
  grade: z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(4)]),
  right: share,
  /** Quarter notes per minute that were reached; null where too little was struck. */
  tempo: z.number().min(0).max(1000).nullable(),
  /** Places where the player stood still. */
  stops: z.number().int().min(0).max(1000),
  from: z.enum(['keyboard', 'microphone']),
  measures: z.array(heardMeasureSchema).max(400),
});

export type Heard = Readonly<z.infer<typeof heardSchema>>;
