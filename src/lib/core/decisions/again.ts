/** Where a figure comes again: what is decided in one place can be decided in all of them at once. */
import { endOf } from '../score/metre';
import { soundingNotes, type SoundingNote } from '../score/query';
import type { Measure, Note, Score } from '../score/score';

/** What the hands strike in a measure, apart from where it stands: alike where the same keys are struck for as long at the same places. */
const figureOf = (notes: readonly SoundingNote[], { start }: Measure): string =>
  notes.map((n) => `${n.staff}:${n.onset - start}:${n.duration}:${n.midi}`).join(' ');

const strokesIn = (
  notes: readonly Note[],
  measure: Measure,
  isCounted: (note: SoundingNote) => boolean,
): SoundingNote[] =>
  soundingNotes(notes).filter((n) => n.onset >= measure.start && n.onset < endOf(measure) && isCounted(n));

/**
 * For each of some struck notes the notes of other measures that stand as it does, in a figure of its hand that is the same: the
 * same keys, struck at the same places for as long. Notes whose figure never comes again are missing.
 */
export function notesAgain(
  { measures, parts }: Pick<Score, 'measures' | 'parts'>,
  chosen: readonly string[],
): ReadonlyMap<string, readonly string[]> {
  const { notes } = parts[0]!;
  const again = new Map<string, string[]>();
  for (const staff of [1, 2]) {
    const figures = measures.map((m) => strokesIn(notes, m, (n) => n.staff === staff));
    const texts = figures.map((f, i) => figureOf(f, measures[i]!));
    figures.forEach((figure, i) => {
      figure.forEach(({ id }, place) => {
        if (!chosen.includes(id)) return;
        const twins = figures.flatMap((other, k) =>
          k !== i && texts[k] === texts[i] ? other[place]!.id : [],
        );
        if (twins.length > 0) again.set(id, twins);
      });
    });
  }
  return again;
}

/** Ids of the other measures in which both hands strike the same. */
export function measuresAgain(
  { measures, parts }: Pick<Score, 'measures' | 'parts'>,
  measure: string,
): readonly string[] {
  const texts = measures.map((m) =>
    figureOf(
      strokesIn(parts[0]!.notes, m, () => true),
      m,
    ),
  );
  const own = texts[measures.findIndex((m) => m.id === measure)];
  return own ? measures.flatMap((m, i) => (m.id !== measure && texts[i] === own ? [m.id] : [])) : [];
}
