/** Measures of a source as they stand, to look at: melody and keyboard part, nothing added. */
import { writeMusicXml } from '$core/io/musicxml/write';
import { excerpt } from '$core/score/excerpt';
import { endOf } from '$core/score/metre';
import { toMidi } from '$core/score/pitch';
import type { Score } from '$core/score/score';
import type { Sheet } from './sheet';

/** Measures at the beginning; a pickup comes on top of them. */
const SHOWN = 4;

/** How a source begins: its first measures. */
export const firstMeasures = (score: Score): { readonly from: number; readonly to: number } => ({
  from: 0,
  to: Math.min(score.measures.length - 1, SHOWN - 1 + (score.measures[0]!.beginsAt > 0 ? 1 : 0)),
});

/** A sheet of some measures, by index. `score` has its parts chosen; parts left alone are not shown. */
export function sourceSheet(
  score: Score,
  width: number,
  { from, to }: { readonly from: number; readonly to: number } = firstMeasures(score),
): Sheet {
  const shown = score.parts.filter((p) => p.role !== 'other');
  const part = excerpt({ ...score, parts: shown.length > 0 ? shown : score.parts.slice(0, 1) }, from, to);
  const parts = part.parts.map((p) => ({ ...p, name: '' }));
  return {
    xml: writeMusicXml({ ...part, parts, title: '', composer: '', tempo: 0 }),
    width,
    measures: part.measures.map((m) => ({ index: m.index, number: m.number, start: m.start, end: endOf(m) })),
    notes: Object.fromEntries(
      parts.flatMap((p) =>
        p.notes.map((n) => [
          n.id,
          {
            onset: n.onset,
            midi: toMidi(n.pitch),
            hand: n.staff === 1 ? ('right' as const) : ('left' as const),
            ...(n.finger ? { finger: n.finger } : {}),
            decided: false,
          },
        ]),
      ),
    ),
    counts: [],
  };
}
