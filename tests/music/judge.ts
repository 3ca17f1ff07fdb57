/**
 * The jury: what a teacher expects of short pieces, as data beside each of them, and how it is looked at. `npm run jury` prints
 * the table; README.md says how to add a piece.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { reportOf, type PieceReport } from '../../src/lib/core/report/report';
import { readScoreFile } from '../../src/lib/core/io/readScoreFile';
import { pitchClass } from '../../src/lib/core/theory/fifths';
import { tonicName } from '../../src/lib/core/theory/key';
import {
  byMeasure,
  byOnset,
  lowestAt,
  measureAt,
  soundingNotes,
  type SoundingNote,
} from '../../src/lib/core/score/query';
import { parsePitch, pitchClassName, pitchName, toMidi } from '../../src/lib/core/theory/pitch';
import { shownAccidentals } from '../../src/lib/core/score/accidentals';
import { beatLength, endOf } from '../../src/lib/core/score/metre';
import type { Score } from '../../src/lib/core/score/score';
import { bassOf, chordTones } from '../../src/lib/core/theory/chord';
import { realise, type Version } from '../../src/lib/core/version/realise';
import { recipeSchema } from '../../src/lib/core/version/recipe';
import { broken } from './rules';

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
  /** The beats on which a hand strikes in measures: "1 3.5". */
  z.strictObject({ expects: z.literal('strikes'), level, hand, at: z.record(place, z.string()) }),
  /** A hand stays between two notes. */
  z.strictObject({
    expects: z.literal('range'),
    levels: z.array(level),
    hand,
    from: z.string(),
    to: z.string(),
  }),
  /** Accidentals before the notes of both hands, at most. */
  z.strictObject({ expects: z.literal('accidentals'), levels: z.array(level), most: z.number() }),
  /** The version's account of itself has these words. */
  z.strictObject({ expects: z.literal('said'), level, of: z.string() }),
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
  /** "two voices", "hymn and chorale": the jury counts by it. */
  kind: z.string(),
  /** What kind of material it is, and what a teacher looks for. */
  about: z.string(),
  expectations: z.array(expectationSchema).min(1),
});

export type Expectation = z.infer<typeof expectationSchema>;

export interface Verdict {
  readonly kind: string;
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

  /** Levels that are no step up from the one below: easier, or as hard with other notes. */
  flat(): string | undefined {
    const steps = LEVELS.map((l) => {
      const version = this.version(l);
      return { l, hard: meanOf(version.difficulty.map((d) => d.score)), text: notesText(version) };
    });
    const found = steps.slice(1).flatMap(({ l, hard, text }, i) => {
      const below = steps[i]!;
      // What is within a level already stays as it is.
      const isStep = text === below.text ? hard >= below.hard : hard > below.hard;
      return isStep ? [] : [`${below.l} to ${l}: ${below.hard.toFixed(1)} to ${hard.toFixed(1)}`];
    });
    return found.length > 0 ? found.join(', ') : undefined;
  }

  /** Measures in which the source sounds and a version is silent. */
  silent(): string | undefined {
    const source = this.score.parts.flatMap((p) => soundingNotes(p.notes));
    const found = LEVELS.flatMap((l) => {
      const { score } = this.version(l);
      const notes = allOf(this.version(l));
      const sounds = (list: readonly SoundingNote[], from: number, to: number): boolean =>
        list.some((n) => n.onset < to && n.onset + n.duration > from);
      const shift = score.measures.length - this.score.measures.length;
      return this.score.measures.flatMap((m, i) => {
        const own = score.measures[i + shift];
        // A short pickup goes to the beat at the first levels.
        return !own ||
          m.beginsAt > 0 ||
          !sounds(source, m.start, endOf(m)) ||
          sounds(notes, own.start, endOf(own))
          ? []
          : [`level ${l}: measure ${m.number}`];
      });
    });
    return found.length > 0 ? found.join(', ') : undefined;
  }

  /** Which of the rules that hold for all versions are broken, and where. */
  broken(): string | undefined {
    const hasOwn = this.score.parts.some((p) => p.staves > 1) || this.score.parts.length > 1;
    const found = RULED.flatMap((level) => broken(this.version(level), level, hasOwn));
    return found.length > 0 ? found.join('; ') : undefined;
  }
}

/** All levels that ship. */
const LEVELS = [1, 2, 3, 4, 5, 6] as const;

/** The levels at which the rules are looked at: the highest moves its inner voices as it likes. */
const RULED = [1, 2, 3, 4, 5] as const;

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

const notesText = (version: Version): string =>
  allOf(version)
    .map((n) => `${n.onset} ${n.duration} ${pitchName(n.pitch)}`)
    .join();

type Kind = Expectation['expects'];
type Judge<K extends Kind> = (
  looked: Looked,
  expected: Extract<Expectation, { expects: K }>,
) => string | undefined;

/** For each kind of expectation: what was found where it is not as expected. */
const JUDGES: { readonly [K in Kind]: Judge<K> } = {
  key: ({ report }, e) => {
    const found = `${tonicName(report.key)} ${report.key.mode}`;
    return found === e.is ? undefined : found;
  },
  chords: ({ report, score }, e) => {
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
  },
  'chords from': ({ report }, e) => {
    return report.chordsFrom === e.is ? undefined : report.chordsFrom;
  },
  'number of chords': ({ report }, e) => {
    const { length } = report.progression;
    return length >= e.least && length <= e.most ? undefined : String(length);
  },
  sections: ({ report }, e) => {
    const found = report.form.sections.map((s) => s.label + (s.role ? `(${s.role.role})` : '')).join(' ');
    return found === e.are ? undefined : found;
  },
  warning: ({ warnings }, e) => {
    return warnings.some((w) => w.includes(e.of)) ? undefined : warnings.join(' / ') || 'none';
  },
  basses: (looked, e) => {
    const version = looked.version(e.level);
    const notes = allOf(version);
    const wrong = Object.entries(e.at).flatMap(([at, wanted]) => {
      const lowest = lowestAt(notes, tickOf(version.score, at));
      const note = notes.find((n) => n.midi === lowest);
      const found = note ? pitchClassName(note.pitch) : 'none';
      return wanted.split('|').includes(found) ? [] : [`${at}: ${found}`];
    });
    return wrong.length > 0 ? wrong.join(', ') : undefined;
  },
  fingers: (looked, e) => {
    const version = looked.version(e.level);
    const from = tickOf(version.score, e.from);
    const wanted = e.are.split(' ');
    const found = handOf(version, e.hand === 'right' ? 1 : 2)
      .filter((n) => n.onset >= from)
      .slice(0, wanted.length)
      .map((n) => String(version.fingers[n.id]?.finger ?? '?'));
    return found.every((f, i) => wanted[i]!.split('|').includes(f)) ? undefined : found.join(' ');
  },
  'levels differ': (looked, e) => {
    const text = (l: number): string => notesText(looked.version(l));
    const same = e.levels.flatMap((a, i) =>
      e.levels.slice(i + 1).flatMap((b) => (text(a) === text(b) ? [`${a} = ${b}`] : [])),
    );
    return same.length > 0 ? same.join(', ') : undefined;
  },
  'levels rise': (looked, e) => {
    const hard = e.levels.map((l) => meanOf(looked.version(l).difficulty.map((d) => d.score)));
    const falls = hard.flatMap((h, i) =>
      i > 0 && h < hard[i - 1]! - 0.5
        ? [`${e.levels[i - 1]} to ${e.levels[i]}: ${hard[i - 1]!.toFixed(0)} to ${h.toFixed(0)}`]
        : [],
    );
    return falls.length > 0 ? falls.join(', ') : undefined;
  },
  'contract kept': (looked, e) => {
    const broken = e.levels.flatMap((l) => {
      const { violations, score: written } = looked.version(l);
      const places = new Set(violations.map((v) => `${v.measure} ${v.hand}`));
      const share = places.size / (2 * written.measures.length);
      return share > e.but
        ? [`level ${l}: ${violations[0]!.limit} in ${places.size} of ${2 * written.measures.length}`]
        : [];
    });
    return broken.length > 0 ? broken.join(', ') : undefined;
  },
  'hands apart': (looked, e) => {
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
  },
  'left hand in its chords': (looked, e) => {
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
  },
  strikes: (looked, e) => {
    const version = looked.version(e.level);
    const { score } = version;
    const wrong = Object.entries(e.at).flatMap(([number, wanted]) => {
      const measure = score.measures.find((m) => m.number === number);
      if (!measure) return [`there is no measure ${number}`];
      const found = byOnset(handOf(version, e.hand === 'right' ? 1 : 2))
        .filter(({ onset }) => onset >= measure.start && onset < endOf(measure))
        .map(({ onset }) => 1 + (onset - measure.start + measure.beginsAt) / beatLength(measure.time));
      const says = found.map((beat) => String(Math.round(100 * beat) / 100)).join(' ');
      return says === wanted ? [] : [`${number}: ${says || 'nothing'}`];
    });
    return wrong.length > 0 ? wrong.join(', ') : undefined;
  },
  range: (looked, e) => {
    const [low, high] = [e.from, e.to].map((name) => toMidi(parsePitch(name)!));
    const wrong = e.levels.flatMap((l) => {
      const out = handOf(looked.version(l), e.hand === 'right' ? 1 : 2).find(
        (n) => n.midi < low! || n.midi > high!,
      );
      return out ? [`level ${l}: ${pitchName(out.pitch)}`] : [];
    });
    return wrong.length > 0 ? wrong.join(', ') : undefined;
  },
  accidentals: (looked, e) => {
    const wrong = e.levels.flatMap((l) => {
      const { score } = looked.version(l);
      const inMeasures = byMeasure(score.measures, score.parts[0]!.notes);
      const shown = score.measures.reduce((sum, m, i) => sum + shownAccidentals(m, inMeasures[i]!).size, 0);
      return shown > e.most ? [`level ${l}: ${shown}`] : [];
    });
    return wrong.length > 0 ? wrong.join(', ') : undefined;
  },
  said: (looked, e) => {
    const { accountText } = looked.version(e.level);
    return accountText.includes(e.of) ? undefined : accountText;
  },
};

const fault = <K extends Kind>(looked: Looked, e: Extract<Expectation, { expects: K }>): string | undefined =>
  (JUDGES[e.expects] as Judge<K>)(looked, e);

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
      const { kind, expectations } = caseSchema.parse(JSON.parse(readFileSync(join(folder, file), 'utf8')));
      const looked = new Looked(source, new Uint8Array(readFileSync(join(folder, source))));
      const own = expectations.map((e): Verdict => {
        const { expects, ...more } = e;
        return { kind, piece, expects: `${expects} ${JSON.stringify(more)}`, found: fault(looked, e) };
      });
      return [
        ...own,
        { kind, piece, expects: 'the rules of every version', found: looked.broken() },
        { kind, piece, expects: 'levels are steps', found: looked.flat() },
        { kind, piece, expects: 'something sounds where the source does', found: looked.silent() },
      ];
    });
}
