/** Measures of a source as they stand, to look at: melody and keyboard part, nothing added. */
import { writeMusicXml } from '$core/io/musicxml/write';
import { excerpt } from '$core/score/excerpt';
import type { Score } from '$core/score/score';
import { sheetMeasures, sheetNames, sheetNote, withNamesOnce, type Sheet } from './sheet';

/** Measures at the beginning; a pickup comes on top of them. */
const SHOWN = 4;

/** How a source begins: its first measures. */
const firstMeasures = (score: Score): { readonly from: number; readonly to: number } => ({
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
  const part = excerpt({ ...score, parts: shown.length > 0 ? shown : score.parts.slice(0, 1) }, { from, to });
  const named = sheetNames(part.parts.flatMap((p) => p.notes));
  const names = new Map(named.map(({ name, note }) => [note, name]));
  const parts = part.parts.map((p) => ({
    ...p,
    name: '',
    notes: p.notes.map((n) => ({ ...n, id: names.get(n)! })),
  }));
  return {
    xml: withNamesOnce(writeMusicXml({ ...part, parts, title: '', composer: '', tempo: 0 })),
    width,
    measures: sheetMeasures(part.measures),
    notes: Object.fromEntries(
      named.map(({ name, note }) => [
        name,
        sheetNote(note, note.finger ? { finger: note.finger, decided: false } : undefined),
      ]),
    ),
    counts: [],
  };
}
