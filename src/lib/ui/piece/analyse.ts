/** The page's end of the analysing worker: one piece, one worker, which can be stopped. */
import type { PieceReport, Stage } from '$core/analysis/report';
import type { Score } from '$core/score/score';
import type { AnalyseRequest, AnalyseResponse } from './analyse.worker';

export interface Analysis {
  readonly report: Promise<PieceReport>;
  stop(): void;
}

/** Fetches the score of a piece and analyses it in a worker. Browser only. */
export function analyse(pieceId: string, onStage: (stage: Stage) => void): Analysis {
  const worker = new Worker(new URL('./analyse.worker.ts', import.meta.url), { type: 'module' });
  const fetching = new AbortController();
  const report = fetch(`/pieces/${pieceId}/score`, { signal: fetching.signal })
    .then(async (response) => {
      if (!response.ok) throw new Error('The piece could not be loaded.');
      return (await response.json()) as Score;
    })
    .then(
      (score) =>
        new Promise<PieceReport>((resolve, reject) => {
          worker.addEventListener('message', ({ data }: MessageEvent<AnalyseResponse>) => {
            if ('stage' in data) onStage(data.stage);
            else if ('report' in data) resolve(data.report);
            else reject(new Error(data.error));
          });
          worker.addEventListener('error', (event) =>
            reject(new Error(event.message || 'The analysis stopped.')),
          );
          worker.postMessage({ score } satisfies AnalyseRequest);
        }),
    )
    .finally(() => worker.terminate());
  return {
    report,
    stop() {
      fetching.abort();
      worker.terminate();
    },
  };
}
