/** Analyses a long piece off the page's own thread, and says how far it is. */
import { reportOf, type PieceReport, type Stage } from '$core/analysis/report';
import type { Score } from '$core/score/score';
import { z } from 'zod';

const requestSchema = z.object({ score: z.custom<Score>((v) => typeof v === 'object' && v !== null) });

export type AnalyseRequest = z.infer<typeof requestSchema>;
export type AnalyseResponse = { stage: Stage } | { report: PieceReport } | { error: string };

const send = (response: AnalyseResponse): void => self.postMessage(response);

self.addEventListener('message', (event: MessageEvent<unknown>) => {
  try {
    const { score } = requestSchema.parse(event.data);
    send({ report: reportOf(score, (stage) => send({ stage })) });
  } catch (error) {
    send({ error: error instanceof Error ? error.message : String(error) });
  }
});
