/** The engraver's own thread: sheets in, pictures out. */
import { z } from 'zod';
import { engrave } from './engrave';
import { sheetSchema } from './sheet';

export const requestSchema = z.object({ id: z.number(), sheet: sheetSchema });

export type EngraveRequest = z.infer<typeof requestSchema>;
export type EngraveResponse = { id: number; svg: string } | { id: number; error: string };

self.addEventListener('message', async (event: MessageEvent<unknown>) => {
  const parsed = requestSchema.safeParse(event.data);
  if (!parsed.success) return;
  const { id, sheet } = parsed.data;
  const answer = await engrave(sheet).then(
    (svg): EngraveResponse => ({ id, svg }),
    (error: unknown): EngraveResponse => ({
      id,
      error: error instanceof Error ? error.message : String(error),
    }),
  );
  self.postMessage(answer);
});
