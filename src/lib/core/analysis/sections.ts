/**
 * Where sections begin, and by which name: as the teacher has decided, else at rehearsal marks and named words, at double
 * bars and repeats, at what comes again, at last every eight measures. What the teacher does to a form is done here too.
 */
import { lineText } from '../plainText';
import { z } from 'zod';
import type { Measure, Score } from '../score/score';
import { instrumentals } from './instrumentals';
import { proposedStarts } from './private/boundaries';
import type { MeasureContent } from './private/likeness';
import { roleNamed, type Role } from './roles';

/** The beginning of one section. */
export interface SectionStart {
  /** Index of its first measure. */
  readonly measure: number;
  /** As the source or the teacher calls it; without a name it goes by its letter. */
  readonly name?: string | undefined;
  /** What it is for, where the teacher says so. */
  readonly role?: Role | undefined;
  /** Nothing in the source says that a section begins here: it was found in what comes again, or counted. */
  readonly isFound?: boolean;
}

/** A whole form as a teacher has decided it: at least one section, the first at the first measure. */
export const sectionStartsSchema = z
  .array(
    z.object({
      measure: z.number().int().min(0).max(100_000),
      name: lineText().max(60).optional(),
    }),
  )
  .min(1)
  .max(400)
  .refine((starts) => starts[0]?.measure === 0, 'The first section begins with the first measure.')
  .refine(
    (starts) => starts.every((s, i) => i === 0 || s.measure > starts[i - 1]!.measure),
    'Sections follow each other, each with at least one measure.',
  );

const USUAL_SECTION = 8;

/** A pickup: a measure that lacks its beginning, at the start of the piece or of a section that borrows a beat. */
export const isPickup = (measure: Measure): boolean =>
  measure.beginsAt > 0 && (measure.index === 0 || measure.section !== undefined);

/** The sections of a score in order, the first at measure 0. */
export function sectionStarts(score: Score, contents: readonly MeasureContent[]): SectionStart[] {
  const { measures } = score;
  const decided = (score.sectionStarts ?? []).filter((s) => s.measure < measures.length);
  if (decided.length > 0) return [...decided];
  const names = namesOf(score);
  const first = measures[0] && isPickup(measures[0]) ? 1 : 0;
  const named = [...names.keys()];
  const used =
    named.length > 0
      ? named
      : measures
          .filter(
            // An ending is no section of its own: it belongs to what it ends.
            (m, i) =>
              !m.ending &&
              (m.repeatStart ||
                measures[i - 1]?.barline === 'double' ||
                measures[i - 1]?.repeatEnd ||
                (measures[i - 1]?.endingEnd && i < measures.length - 1)),
          )
          .map((m) => m.index);
  const starts = new Set([0, ...used]);
  if (first === 1) starts.delete(1); // the pickup goes with what follows
  if (used.length === 0) for (const start of foundStarts(score, contents, first)) starts.add(start);
  const sorted = [...starts].sort((a, b) => a - b);
  return sorted.map((measure, i) => {
    // A mark behind the pickup names the section all the same.
    const name =
      names.get(measure) ?? (measure === 0 && first === 1 && sorted[i + 1] !== 1 ? names.get(1) : undefined);
    return {
      measure,
      ...(name === undefined ? {} : { name }),
      ...(used.length === 0 ? { isFound: true } : {}),
    };
  });
}

/** Where sections begin when nothing in the source says so: with and after instrumentals, and between them at what comes again. */
function foundStarts(score: Score, contents: readonly MeasureContent[], first: number): readonly number[] {
  const borders = instrumentals(score).flatMap(({ from, to }) => [from, to + 1]);
  const edges = [...new Set([first, ...borders, contents.length])]
    .filter((i) => i >= first && i <= contents.length)
    .sort((a, b) => a - b);
  return edges.slice(0, -1).flatMap((from, i) => {
    const to = edges[i + 1]!;
    return [...(from > first ? [from] : []), ...startsBetween(contents.slice(0, to), from)];
  });
}

/** Where sections begin after `from` in what comes again, or every eight measures. */
function startsBetween(contents: readonly MeasureContent[], from: number): readonly number[] {
  const proposed = proposedStarts(contents, from);
  if (proposed.length > 0) return proposed.filter((s) => s > from);
  const starts: number[] = [];
  // A remainder shorter than half a section stays with the section before it.
  for (let i = from + USUAL_SECTION; i <= contents.length - USUAL_SECTION / 2; i += USUAL_SECTION)
    starts.push(i);
  return starts;
}

/** Names by measure: rehearsal marks; where there are none, words above the music that name a part of a song. */
function namesOf(score: Score): Map<number, string> {
  const names = new Map(score.measures.flatMap((m) => (m.section ? [[m.index, m.section] as const] : [])));
  if (names.size > 0) return names;
  const byStart = new Map(score.measures.map((m) => [m.start, m.index]));
  for (const mark of score.parts.flatMap((p) => p.marks ?? [])) {
    if (mark.kind !== 'words' || !roleNamed(mark.text)) continue;
    const index = byStart.get(mark.onset);
    if (index !== undefined && !names.has(index)) names.set(index, mark.text.trim());
  }
  return names;
}

/** The section `index` begins at `measure` instead: it takes measures from its neighbour or gives them to it. */
export function moveSection(
  starts: readonly SectionStart[],
  index: number,
  measure: number,
  count: number,
): SectionStart[] {
  const [low, high] = [(starts[index - 1]?.measure ?? -1) + 1, (starts[index + 1]?.measure ?? count) - 1];
  if (index === 0 || low > high) return [...starts];
  const at = Math.min(high, Math.max(low, measure));
  return starts.map((s, i) => (i === index ? { ...s, measure: at } : s));
}

/** A new section begins at `measure`, inside the one that holds it. */
export function splitSection(starts: readonly SectionStart[], measure: number): SectionStart[] {
  if (starts.some((s) => s.measure === measure)) return [...starts];
  return [...starts, { measure }].sort((a, b) => a.measure - b.measure);
}

/** The section `index` becomes part of the one before it. */
export const joinSection = (starts: readonly SectionStart[], index: number): SectionStart[] =>
  index === 0 ? [...starts] : starts.filter((_, i) => i !== index);

/** The section `index` by another name; an empty one gives it its letter back. */
export const renameSection = (starts: readonly SectionStart[], index: number, name: string): SectionStart[] =>
  starts.map((s, i) =>
    i === index ? { measure: s.measure, ...(name.trim() ? { name: name.trim() } : {}) } : s,
  );
