import { z } from 'zod';
import { endOf } from '../../score/metre';
import { byMeasure, type SoundingNote } from '../../score/query';
import type { Measure, Note } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import { bassOf } from '../../theory/chord';
import { defineKind, type Passage } from '../kind';
import { replaced, retimed, struckChords, type StruckChord } from '../private/notes';
import { STAFF_VOICES } from '../private/voices';

const SUSTAINS = {
  chord: 'right-hand chord held, top note repeats',
  'left chord': 'left-hand chord held, top note repeats',
  bass: 'bass held, the rest repeats',
  both: 'right-hand chord and bass held',
} as const;
type Sustain = keyof typeof SUSTAINS;
const SUSTAIN_IDS = Object.keys(SUSTAINS) as [Sustain, ...Sustain[]];

/** What of a hand is held while the rest of it goes on: all but the highest key, or the lowest key alone. */
interface HeldPart {
  readonly staff: 1 | 2;
  readonly part: 'chord' | 'bass';
}
const PARTS: Readonly<Record<Sustain, readonly HeldPart[]>> = {
  chord: [{ staff: 1, part: 'chord' }],
  'left chord': [{ staff: 2, part: 'chord' }],
  bass: [{ staff: 2, part: 'bass' }],
  both: [
    { staff: 1, part: 'chord' },
    { staff: 2, part: 'bass' },
  ],
};

/** What is struck once and held as long as the harmony stays, while the rest of its hand repeats. */
export const sustain = defineKind({
  id: 'sustain',
  name: 'Hold and repeat',
  words: 'held sustained repeated top note bass through same chord letter stays easier',
  value: z.enum(SUSTAIN_IDS),
  scopes: ['measure', 'range', 'section', 'version'],
  says: (value) => SUSTAINS[value],
  choices: () => SUSTAIN_IDS.map((id) => [id, SUSTAINS[id]] as const),
  apply(notes, held, passage) {
    const { measures } = passage;
    const strokes = byMeasure(measures, struckChords(notes));
    const byId = new Map(notes.map((n) => [n.id, n]));
    const gone: SoundingNote[] = [];
    const made: Note[] = [];
    for (const measure of measures) {
      const value = held.measures[measure.index];
      for (const { staff, part } of value ? PARTS[value] : []) {
        const own = strokes[measure.index]!.filter((s) => s.staff === staff);
        const groups = groupsOf(own, part, passage);
        const written = groups.flatMap((group, i) => {
          const until = groups[i + 1]?.[0]!.onset ?? lastEnd(group, measure);
          const parted = part === 'chord' ? chordHeld(group) : bassHeld(group);
          return parted ? [{ group, until, ...parted }] : [];
        });
        if (written.length === 0) {
          passage.refuse(measure.index, 'nothing repeats here over the same chord');
          continue;
        }
        if (written.some(({ held: down, moves }) => widest(down, moves) > passage.reach(staff))) {
          passage.refuse(measure.index, 'the hand can’t reach the notes above what it would hold');
          continue;
        }
        const [upper, lower] = STAFF_VOICES[staff];
        for (const { group, until, held: down, moves } of written) {
          gone.push(...group.flatMap((s) => s.notes));
          for (const note of down)
            made.push(...inVoice(retimed(notes, note, note.onset, until - note.onset, measures), lower));
          for (const { written: ids } of moves)
            made.push(
              ...inVoice(
                ids.flatMap((id) => byId.get(id) ?? []),
                upper,
              ),
            );
        }
      }
    }
    return replaced(notes, gone, made);
  },
});

/** Strokes over one harmony: the same chord, or for a bass the same letter under it. */
function groupsOf(
  strokes: readonly StruckChord[],
  part: HeldPart['part'],
  { chordAt }: Pick<Passage, 'chordAt'>,
): StruckChord[][] {
  const harmony = (tick: Ticks): unknown => {
    const chord = chordAt(tick);
    return part === 'chord' || !chord ? chord : bassOf(chord);
  };
  return strokes.reduce<StruckChord[][]>((groups, stroke) => {
    const open = groups.at(-1);
    const stays = open && harmony(open[0]!.onset) === harmony(stroke.onset);
    // A melody that comes down to what would be held begins anew there.
    const isAbove = !open || part === 'bass' || stroke.notes.at(-1)!.midi > highestHeld(open[0]!);
    if (stays && isAbove) open.push(stroke);
    else groups.push([stroke]);
    return groups;
  }, []);
}

const highestHeld = ({ notes }: StruckChord): number => notes.at(-2)?.midi ?? -Infinity;

/** All but the highest key of the first stroke is held; of the others the highest keys go on. */
function chordHeld(group: readonly StruckChord[]): Parted | undefined {
  const [first, ...others] = group;
  if (!first || first.notes.length < 2 || others.length === 0) return undefined;
  return { held: first.notes.slice(0, -1), moves: group.map((s) => s.notes.at(-1)!) };
}

/** The lowest key of the first stroke is held, and not struck again; the rest goes on. */
function bassHeld(group: readonly StruckChord[]): Parted | undefined {
  const bass = group[0]?.notes[0];
  if (!bass || group.length < 2) return undefined;
  return {
    held: [bass],
    moves: group.flatMap((s) => s.notes.filter((n) => n !== bass && n.midi !== bass.midi)),
  };
}

interface Parted {
  readonly held: readonly SoundingNote[];
  readonly moves: readonly SoundingNote[];
}

const lastEnd = (group: readonly StruckChord[], measure: Measure): Ticks =>
  Math.min(endOf(measure), Math.max(...group.flatMap((s) => s.notes.map((n) => n.onset + n.duration))));

const widest = (down: readonly SoundingNote[], moves: readonly SoundingNote[]): number => {
  const keys = [...down, ...moves].map((n) => n.midi);
  return Math.max(...keys) - Math.min(...keys);
};

const inVoice = (notes: readonly Note[], voice: number): Note[] => notes.map((n) => ({ ...n, voice }));
