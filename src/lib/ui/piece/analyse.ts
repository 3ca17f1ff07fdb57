/** The page's end of the analysing worker: one piece, one worker, which can be stopped. */
import type { PieceReport, Stage } from '$core/report/report';
import { proxy, wrap } from 'comlink';
import type { AnalyseService } from './analyse.worker';

interface Analysis {
  readonly report: Promise<PieceReport>;
  stop(): void;
}

/** Fetches the score of a piece and analyses it in a worker. Browser only. */
export function analyse(pieceId: string, onStage: (stage: Stage) => void): Analysis {
  const worker = new Worker(new URL('./analyse.worker.ts', import.meta.url), { type: 'module' });
  const stopping = new AbortController();
  const made = async (): Promise<PieceReport> => {
    const response = await fetch(`/pieces/${pieceId}/score`, { signal: stopping.signal });
    if (!response.ok) throw new Error('The piece couldn’t be loaded.');
    return wrap<AnalyseService>(worker).report(await response.json(), proxy(onStage));
  };
  // A worker that cannot be loaded, or is stopped, answers nothing by itself.
  const ended = new Promise<never>((_, reject) => {
    worker.addEventListener('error', (event) => reject(new Error(event.message || 'The analysis stopped.')));
    stopping.signal.addEventListener('abort', () => reject(new Error('The analysis was stopped.')));
  });
  return {
    report: Promise.race([made(), ended]).finally(() => worker.terminate()),
    stop: () => stopping.abort(),
  };
}
