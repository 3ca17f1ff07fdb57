/**
 * The jury: what a teacher expects of short pieces, as data beside each of them, and how it is looked at. `npm run jury` prints
 * the table; README.md says how to add a piece.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { reportOf, type PieceReport } from '../../src/lib/core/analysis/report';
import { readScoreFile } from '../../src/lib/core/io/readScoreFile';
import { pitchClass } from '../../src/lib/core/theory/fifths';
import { tonicName } from '../../src/lib/core/theory/key';
import { lowestAt, measureAt, soundingNotes, type SoundingNote } from '../../src/lib/core/score/query';
import { pitchClassName, pitchName } from '../../src/lib/core/score/pitch';
import { beatLength } from '../../src/lib/core/score/metre';
import type { Score } from '../../src/lib/core/score/score';
import { bassOf, chordTones } from '../../src/lib/core/theory/chord';
import { realise, type Version } from '../../src/lib/core/version/realise';
import { recipeSchema } from '../../src/lib/core/version/recipe';

const level = z.number().int().min(1).max(6);
/** "3" is the first beat of measure 3, "3.2" its second. */
const place = z.string().regex(/^X?\d+(\.\d+)?$/);
const hand = z.enum(['right', 'left']);

const expectationSchema = z.discriminatedUnion('expects', [
  /** "D dorian" */
  z.strictObject({ expects: z.literal('key'), is: z.string() }),
  /** Chords that sound at places; "F|Dm" where either would do. */
  z.strictObject({ expects: z.literal('chords'), at: z.record(place, z.string()) }),
  z.strictObject({ expects: z.literal('chords from'), is: z.enum(['symbol', 'notes', 'harmonised']) }),
  /** How many chords there are at least and at most. */
  z.strictObject({ expects: z.literal('number of chords'), least: z.number(), most: z.number() }),
  /** "A B A" by letters, or names and roles as in "A(bridge)". */
  z.strictObject({ expects: z.literal('sections'), are: z.string() }),
  /** A warning that holds these words. */
  z.strictObject({ expects: z.literal('warning'), of: z.string() }),
  /** The lowest note of a version at places: "C" or "C/E" by name. */
  z.strictObject({ expects: z.literal('basses'), level, at: z.record(place, z.string()) }),
  /** Fingers of a hand, one after another from the first note of a measure. */
  z.strictObject({ expects: z.literal('fingers'), level, hand, from: place, are: z.string() }),
  /** No two of these levels are note for note the same. */
  z.strictObject({ expects: z.literal('levels differ'), levels: z.array(level) }),
  /** Each level at least as hard as the one before. */
  z.strictObject({ expects: z.literal('levels rise'), levels: z.array(level) }),
  /** Share of the measures of each hand at most in which the contract is broken. */
  z.strictObject({ expects: z.literal('contract kept'), levels: z.array(level), but: z.number().default(0) }),
  /** The hands never strike or hold the same key, nor cross. */
  z.strictObject({ expects: z.literal('hands apart'), levels: z.array(level) }),
  /** Nothing but the melody sounds on no chord tone for long: no note of the left hand is foreign to its chord. */
  z.strictObject({ expects: z.literal('left hand in its chords'), levels: z.array(level) }),
]);

const caseSchema = z.strictObject({
  /** What kind of material it is, and what a teacher looks for. */
  about: z.string(),
  expectations: z.array(expectationSchema).min(1),
});

export type Expectation = z.infer<typeof expectationSchema>;

export interface Verdict {
  readonly piece: string;
  readonly expects: string;
  /** Undefined where it is as expected, else what was found. */
  readonly found: string | undefined;
}

/** What is looked at, made once for a piece. */
class Looked {
  readonly score: Score;
  readonly warnings: readonly string[];
  readonly report: PieceReport;
  #versions = new Map<number, Version>();

  constructor(name: string, bytes: Uint8Array) {
    ({ score: this.score, warnings: this.warnings } = readScoreFile(name, bytes));
    this.report = reportOf(this.score);
  }

  version(level: number): Version {
    const known = this.#versions.get(level) ?? realise(this.score, recipeSchema.parse({ level }), []);
    this.#versions.set(level, known);
    return known;
  }
}

/** The tick of a place in a score. Throws where it has none. */
function tickOf(score: Score, at: string): number {
  const [number, beat = '1'] = at.split('.');
  const measure = score.measures.find((m) => m.number === number);
  if (!measure) throw new Error(`There is no measure ${number}.`);
  return measure.start + (Number(beat) - 1) * beatLength(measure.time) - measure.beginsAt;
}

const handOf = ({ score }: Version, staff: number): readonly SoundingNote[] =>
  soundingNotes(score.parts[0]!.notes.filter((n) => n.staff === staff));

const allOf = ({ score }: Version): readonly SoundingNote[] => soundingNotes(score.parts[0]!.notes);

/** What was found where it is not as expected. */
function fault(looked: Looked, e: Expectation): string | undefined {
  const { report, score, warnings } = looked;
  switch (e.expects) {
    case 'key': {
      const found = `${tonicName(report.key)} ${report.key.mode}`;
      return found === e.is ? undefined : found;
    }
    case 'chords': {
      const wrong = Object.entries(e.at).flatMap(([at, wanted]) => {
        const tick = tickOf(score, at);
        const chord = report.progression.findLast((c) => {
          const m = score.measures[c.measure]!;
          return m.start + (c.beat - 1) * beatLength(m.time) - m.beginsAt <= tick;
        });
        const found = chord?.symbol ?? 'none';
        return wanted.split('|').includes(found) ? [] : [`${at}: ${found}`];
      });
      return wrong.length > 0 ? wrong.join(', ') : undefined;
    }
    case 'chords from':
      return report.chordsFrom === e.is ? undefined : report.chordsFrom;
    case 'number of chords': {
      const { length } = report.progression;
      return length >= e.least && length <= e.most ? undefined : String(length);
    }
    case 'sections': {
      const found = report.form.sections.map((s) => s.label + (s.role ? `(${s.role.role})` : '')).join(' ');
      return found === e.are ? undefined : found;
    }
    case 'warning':
      return warnings.some((w) => w.includes(e.of)) ? undefined : warnings.join(' / ') || 'none';
    case 'basses': {
      const version = looked.version(e.level);
      const notes = allOf(version);
      const wrong = Object.entries(e.at).flatMap(([at, wanted]) => {
        const lowest = lowestAt(notes, tickOf(version.score, at));
        const note = notes.find((n) => n.midi === lowest);
        const found = note ? pitchClassName(note.pitch) : 'none';
        return wanted.split('|').includes(found) ? [] : [`${at}: ${found}`];
      });
      return wrong.length > 0 ? wrong.join(', ') : undefined;
    }
    case 'fingers': {
      const version = looked.version(e.level);
      const from = tickOf(version.score, e.from);
      const wanted = e.are.split(' ');
      const found = handOf(version, e.hand === 'right' ? 1 : 2)
        .filter((n) => n.onset >= from)
        .slice(0, wanted.length)
        .map((n) => String(version.fingers[n.id]?.finger ?? '?'));
      return found.every((f, i) => wanted[i]!.split('|').includes(f)) ? undefined : found.join(' ');
    }
    case 'levels differ': {
      const text = (l: number): string =>
        allOf(looked.version(l))
          .map((n) => `${n.onset} ${n.duration} ${pitchName(n.pitch)}`)
          .join();
      const same = e.levels.flatMap((a, i) =>
        e.levels.slice(i + 1).flatMap((b) => (text(a) === text(b) ? [`${a} = ${b}`] : [])),
      );
      return same.length > 0 ? same.join(', ') : undefined;
    }
    case 'levels rise': {
      const hard = e.levels.map((l) => meanOf(looked.version(l).difficulty.map((d) => d.score)));
      const falls = hard.flatMap((h, i) =>
        i > 0 && h < hard[i - 1]! - 0.5
          ? [`${e.levels[i - 1]} to ${e.levels[i]}: ${hard[i - 1]!.toFixed(0)} to ${h.toFixed(0)}`]
          : [],
      );
      return falls.length > 0 ? falls.join(', ') : undefined;
    }
    case 'contract kept': {
      const broken = e.levels.flatMap((l) => {
        const { violations, score: written } = looked.version(l);
        const places = new Set(violations.map((v) => `${v.measure} ${v.hand}`));
        const share = places.size / (2 * written.measures.length);
        return share > e.but
          ? [`level ${l}: ${violations[0]!.limit} in ${places.size} of ${2 * written.measures.length}`]
          : [];
      });
      return broken.length > 0 ? broken.join(', ') : undefined;
    }
    case 'hands apart': {
      const wrong = e.levels.flatMap((l) => {
        const version = looked.version(l);
        const [right, left] = [handOf(version, 1), handOf(version, 2)];
        const at = left.find((a) =>
          right.some(
            (b) => b.midi <= a.midi && b.onset < a.onset + a.duration && a.onset < b.onset + b.duration,
          ),
        );
        return at
          ? [`level ${l}: ${pitchName(at.pitch)} in ${measureAt(version.score.measures, at.onset).number}`]
          : [];
      });
      return wrong.length > 0 ? wrong.join(', ') : undefined;
    }
    case 'left hand in its chords': {
      const wrong = e.levels.flatMap((l) => {
        const version = looked.version(l);
        const foreign = handOf(version, 2).find((n) => {
          const { chordSymbols } = version.score;
          const over = chordSymbols.filter(
            (c, i) =>
              c.chord && c.onset < n.onset + n.duration && n.onset < (chordSymbols[i + 1]?.onset ?? Infinity),
          );
          return over.some(({ chord }) => {
            const { midi } = n;
            return !tonesOf(chord!).has(midi % 12);
          });
        });
        return foreign
          ? [
              `level ${l}: ${pitchName(foreign.pitch)} in ${measureAt(version.score.measures, foreign.onset).number}`,
            ]
          : [];
      });
      return wrong.length > 0 ? wrong.join(', ') : undefined;
    }
  }
}

const meanOf = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;

const tonesOf = (chord: Parameters<typeof bassOf>[0]): ReadonlySet<number> =>
  new Set([...chordTones(chord), bassOf(chord)].map(pitchClass));

/** Judges every piece of a folder: each has its expectations beside it, under the same name with ".json". */
export function judge(folder: string, only = ''): Verdict[] {
  return readdirSync(folder)
    .filter((file) => file.endsWith('.json') && file.startsWith(only))
    .sort()
    .flatMap((file) => {
      const piece = file.replace(/\.json$/, '');
      const source = readdirSync(folder).find((f) => f.startsWith(`${piece}.`) && f !== file)!;
      const { expectations } = caseSchema.parse(JSON.parse(readFileSync(join(folder, file), 'utf8')));
      const looked = new Looked(source, new Uint8Array(readFileSync(join(folder, source))));
      return expectations.map((e): Verdict => {
        const { expects, ...more } = e;
        return { piece, expects: `${expects} ${JSON.stringify(more)}`, found: fault(looked, e) };
      });
    });
}
