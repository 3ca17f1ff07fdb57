/** A class: how far each of its learners is in their own version of the piece, and what they can play together now. */
import type { Db } from '../db/open';
import type { Work } from '../pool/work';
import { partsOf } from './groups';
import { findProgress, type Progress } from './progress';

interface ClassMember {
  readonly id: string;
  readonly name: string;
  /** null where they have no version of the piece. */
  readonly part: {
    readonly assignment: string;
    readonly versionId: string;
    readonly level: number;
    readonly goalTempo: number;
    readonly reachedTempo: number | null;
    readonly bothHands: number;
    readonly newMeasures: number;
    readonly progress: Progress;
  } | null;
}

/** A section of the piece, and who can play it. */
interface ClassSection {
  readonly label: string;
  readonly numbers: readonly [string, string];
  readonly can: readonly string[];
  readonly cannot: readonly string[];
}

/** The members of a class with their parts. */
export async function membersOf(
  db: Db,
  work: Work,
  pieceId: string,
  members: readonly { readonly id: string; readonly name: string }[],
): Promise<ClassMember[]> {
  const parts = partsOf(
    db,
    pieceId,
    members.map((m) => m.id),
  );
  const made: ClassMember[] = [];
  for (const { id, name } of members) {
    const found = parts.has(id) ? await findProgress(db, work, parts.get(id)!) : undefined;
    made.push({
      id,
      name,
      part: found
        ? {
            assignment: found.progress.id,
            versionId: found.progress.versionId,
            level: found.progress.level,
            goalTempo: found.progress.goalTempo,
            reachedTempo: found.progress.reachedTempo,
            bothHands: found.progress.bothHands,
            newMeasures: found.progress.form.newMeasures,
            progress: found.progress,
          }
        : null,
    });
  }
  return made;
}

/**
 * The sections of the piece, as the first member has them, with who can play each: every one of its measures (by the source's names)
 * with both hands, in their own version.
 */
export function sectionsTogether(members: readonly ClassMember[]): ClassSection[] {
  const parts = members.flatMap(({ name, part }) => (part ? [{ name, ...part.progress }] : []));
  const [first] = parts;
  if (!first) return [];
  return first.form.sections.map(({ label, from, to }) => {
    const ids = first.ids.slice(from, to + 1);
    const canPlay = ({ ids: own, states }: Progress): boolean =>
      ids.every((id) => {
        const at = own.indexOf(id);
        // A measure that a version does not have (an introduction) asks nothing of it.
        return at < 0 || states[at] === 'both' || states[at] === 'goal';
      });
    return {
      label,
      numbers: [first.numbers[from]!, first.numbers[to]!] as const,
      can: parts.filter(canPlay).map((p) => p.name),
      cannot: parts.filter((p) => !canPlay(p)).map((p) => p.name),
    };
  });
}

/** The fastest tempo that everybody who has a part has reached, in quarter notes per minute; null where somebody has none. */
export function tempoTogether(members: readonly ClassMember[]): number | null {
  const tempi = members.flatMap(({ part }) => (part ? [part.reachedTempo] : []));
  return tempi.length > 0 && tempi.every((t) => t !== null) ? Math.min(...tempi) : null;
}
