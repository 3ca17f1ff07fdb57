/** Sections of a long piece as pieces of their own. Runs in the pool; pieces.ts keeps what comes out. */
import { cutsOf } from '$core/analysis/cuts';
import { writeMusicXml } from '$core/io/musicxml/write';
import { excerpt } from '$core/score/excerpt';
import { measuresText } from '$core/score/measureText';
import type { Db } from '../db/open';
import { preparedPiece, readPiece } from './prepared';

/** Each section with its printed measures. */
export function sectionsOfLong(db: Db, pieceId: string) {
  const { score } = preparedPiece(db, pieceId);
  const numbers = score.measures.map((m) => m.number);
  return cutsOf(score).map((cut) => ({ ...cut, measures: measuresText(numbers, cut.from, cut.to) }));
}

/** A section as a file, read as any other; undefined where the piece has no such measures. */
export function sectionFile(
  db: Db,
  { pieceId, from, to }: { readonly pieceId: string; readonly from: number; readonly to: number },
) {
  const { score } = preparedPiece(db, pieceId);
  const numbers = score.measures.map((m) => m.number);
  if (from > to || to >= numbers.length) return undefined;
  const title = `${score.title}, ${measuresText(numbers, from, to)}`;
  const bytes = new TextEncoder().encode(writeMusicXml({ ...excerpt(score, { from, to }), title }));
  const name = `${title}.musicxml`;
  return { name, bytes, found: { ...readPiece(db, { name, bytes }), title } };
}
