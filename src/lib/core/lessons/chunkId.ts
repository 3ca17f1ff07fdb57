/** Names of chunks: their measures by their ids in the source, with the beat where one begins or ends inside its measure: "m4:3..m8". */
import type { Places } from '../score/places';
import { z } from 'zod';

/** One end of a chunk: "m4", or "m4:3" for its third beat. */
const EDGE = String.raw`[mi]\d{1,5}(?::\d{1,2})?`;
export const edgeSchema = z.string().regex(new RegExp(`^${EDGE}$`));
/** First and last measure by their ids in the source. */
export const chunkSchema = z
  .string()
  .regex(new RegExp(String.raw`^${EDGE}\.\.${EDGE}$`), 'Name the measures.');

/** The name of the measures from one end to the other. */
export const chunkId = (from: string, to: string): string => `${from}..${to}`;

/** The name of an end. */
export const edgeId = (measure: string, beat: number | undefined): string =>
  beat === undefined ? measure : `${measure}:${beat}`;

/** The two ends of a chunk. */
export function edgesOf(chunk: string): readonly [from: string, to: string] {
  const [from = '', to = from] = chunk.split('..');
  return [from, to];
}

/** The measure and the beat that an end names. */
function readEdge(edge: string): { readonly measure: string; readonly beat: number | undefined } {
  const [measure = '', beat] = edge.split(':');
  return { measure, beat: beat === undefined ? undefined : Number(beat) };
}

/** Where ends lie among measures, by their ids; undefined where one is not there, or the last comes before the first. */
export function placesBetween(ids: readonly string[], from: string, to: string): Places | undefined {
  const [first, last] = [readEdge(from), readEdge(to)];
  const [begins, ends] = [ids.indexOf(first.measure), ids.indexOf(last.measure)];
  if (begins < 0 || ends < begins) return undefined;
  if (begins === ends && (last.beat ?? Infinity) < (first.beat ?? 0)) return undefined;
  return {
    from: begins,
    to: ends,
    ...(first.beat === undefined ? {} : { fromBeat: first.beat }),
    ...(last.beat === undefined ? {} : { toBeat: last.beat }),
  };
}

/** The name of some places as a chunk. */
export const chunkOf = (ids: readonly string[], { from, to, fromBeat, toBeat }: Places): string =>
  chunkId(edgeId(ids[from]!, fromBeat), edgeId(ids[to]!, toBeat));

/** Where a chunk lies among measures, by their ids; undefined where it is not there. */
export const placesOf = (ids: readonly string[], chunk: string): Places | undefined =>
  placesBetween(ids, ...edgesOf(chunk));
