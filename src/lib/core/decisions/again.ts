/** Where a figure comes again: what is decided in one place can be decided in all of them at once. */
import { byMeasure, soundingNotes, type SoundingNote } from '../score/query';
import type { Measure, Note, Score } from '../score/score';

/** What the hands strike in a measure, apart from where it stands: alike where the same keys are struck for as long at the same places. */
const figureOf = (notes: readonly SoundingNote[], { start }: Measure): string =>
  notes.map((n) => `${n.staff}:${n.onset - start}:${n.duration}:${n.midi}`).join(' ');

/** The strokes of some staves, measure by measure, with what they are as text. */
interface Figures {
  readonly strokes: readonly (readonly SoundingNote[])[];
  readonly texts: readonly string[];
}

/** A score never changes: its figures are found once. */
const known = new WeakMap<readonly Note[], Map<string, Figures>>();

function figuresOf(notes: readonly Note[], measures: readonly Measure[], staves: readonly number[]): Figures {
  const own = known.get(notes) ?? new Map<string, Figures>();
  known.set(notes, own);
  const before = own.get(staves.join());
  if (before) return before;
  const strokes = byMeasure(
    measures,
    soundingNotes(notes).filter((n) => staves.includes(n.staff)),
  );
  const made = { strokes, texts: strokes.map((s, i) => figureOf(s, measures[i]!)) };
  own.set(staves.join(), made);
  return made;
}

/**
 * For each of some struck notes the notes of other measures that stand as it does, in a figure of its hand that is the same: the
 * same keys, struck at the same places for as long. Notes whose figure never comes again are missing.
 */
export function notesAgain(
  { measures, parts }: Pick<Score, 'measures' | 'parts'>,
  chosen: readonly string[],
): ReadonlyMap<string, readonly string[]> {
  const { notes } = parts[0]!;
  const wanted = new Set(chosen);
  const again = new Map<string, string[]>();
  for (const staff of [1, 2]) {
    const { strokes, texts } = figuresOf(notes, measures, [staff]);
    strokes.forEach((figure, i) =>
      figure.forEach(({ id }, place) => {
        if (!wanted.has(id)) return;
        const twins = texts.flatMap((text, k) =>
          k !== i && text === texts[i] ? strokes[k]![place]!.id : [],
        );
        if (twins.length > 0) again.set(id, twins);
      }),
    );
  }
  return again;
}

/** Ids of the other measures in which both hands strike the same. */
export function measuresAgain(
  { measures, parts }: Pick<Score, 'measures' | 'parts'>,
  measure: string,
): readonly string[] {
  const { texts } = figuresOf(parts[0]!.notes, measures, [1, 2]);
  const own = texts[measures.findIndex((m) => m.id === measure)];
  return own ? measures.flatMap((m, i) => (m.id !== measure && texts[i] === own ? [m.id] : [])) : [];
}
