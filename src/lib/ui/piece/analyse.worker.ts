/** Analyses a long piece off the page's own thread, and says how far it is. */
import { reportOf, type PieceReport, type Stage } from '$core/report/report';
import type { Score } from '$core/score/score';
import { expose } from 'comlink';
import { z } from 'zod';

const scoreSchema = z.custom<Score>((v) => typeof v === 'object' && v !== null && 'measures' in v);

const service = {
  report: (score: unknown, onStage: (stage: Stage) => void): PieceReport =>
    reportOf(scoreSchema.parse(score), onStage),
};

export type AnalyseService = typeof service;

expose(service);
