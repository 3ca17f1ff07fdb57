/**
 * Rules that hold for any version of any piece, whatever a teacher expects of this one: a reader of its own, which knows nothing of how
 * the arranger works. Each gives the places where it is broken, in words.
 */
import { beatLength, endOf, placeInMeasure } from '../../src/lib/core/score/metre';
import { pitchName } from '../../src/lib/core/theory/pitch';
import { measureAt, soundingNotes, type SoundingNote } from '../../src/lib/core/score/query';
import type { Ticks } from '../../src/lib/core/score/ticks';
import { isClear } from '../../src/lib/core/hands/register';
import { bassOf, chordTones, type Chord } from '../../src/lib/core/theory/chord';
import { pitchClass } from '../../src/lib/core/theory/fifths';
import type { Version } from '../../src/lib/core/version/realise';

/** What the readers look at. */
interface Read {
  readonly version: Version;
  readonly level: number;
  readonly right: readonly SoundingNote[];
  readonly left: readonly SoundingNote[];
  /** Notes of the right hand with another above them that is struck with them: chord tones under the tune. */
  readonly under: readonly SoundingNote[];
  /** Chords from where their names stand to the next name, within a measure. */
  readonly stretches: readonly { readonly onset: Ticks; readonly end: Ticks; readonly chord: Chord }[];
}

function readVersion(version: Version, level: number): Read {
  const part = version.score.parts[0]!;
  const handOf = (staff: number): readonly SoundingNote[] =>
    soundingNotes(part.notes.filter((n) => n.staff === staff));
  const [right, left] = [handOf(1), handOf(2)];
  const top = new Map<Ticks, number>();
  for (const n of right) top.set(n.onset, Math.max(top.get(n.onset) ?? 0, n.midi));
  const { chordSymbols, measures } = version.score;
  const stretches = measures.flatMap((m) => {
    const before = chordSymbols.findLast((c) => c.onset <= m.start);
    const inside = chordSymbols.filter((c) => c.onset > m.start && c.onset < endOf(m));
    const here = [...(before ? [{ ...before, onset: m.start }] : []), ...inside];
    return here.flatMap(({ onset, chord }, i) =>
      chord ? [{ onset, end: here[i + 1]?.onset ?? endOf(m), chord }] : [],
    );
  });
  return {
    version,
    level,
    right,
    left,
    under: right.filter((n) => n.midi < top.get(n.onset)! && /^F/.test(n.id)),
    stretches,
  };
}

type Rule = (read: Read) => string[];

/**
 * Every rule that a version breaks, with its places. From the third level on a source's own left hand can be kept, by its style
 * or because it is within the level: what it has low down or leaves out is its composer's.
 */
export function broken(version: Version, level: number, keepsOwnLeft: boolean): string[] {
  const read = readVersion(version, level);
  return Object.entries(RULES).flatMap(([name, rule]) => {
    // A riff is the source's own from the first level on.
    const ownFrom = read.version.idiom === 'riff' ? 1 : 3;
    if (keepsOwnLeft && level >= ownFrom && OF_THE_SOURCE.has(name)) return [];
    const found = rule(read);
    return found.length > 0 ? [`level ${level}: ${name}: ${found.join(', ')}`] : [];
  });
}

const inChord = (midi: number, chord: Chord): boolean =>
  [...chordTones(chord), bassOf(chord)].some((t) => pitchClass(t) === ((midi % 12) + 12) % 12);

const placeOf = ({ version }: Read, tick: Ticks): string => {
  const m = measureAt(version.score.measures, tick);
  return `${m.number}.${Math.round((placeInMeasure(m, tick) / beatLength(m.time) + 1) * 100) / 100}`;
};

const said = (read: Read, n: SoundingNote): string => `${pitchName(n.pitch)} at ${placeOf(read, n.onset)}`;

const overlaps = (a: SoundingNote, from: Ticks, to: Ticks): boolean =>
  a.onset < to && a.onset + a.duration > from;

/** Sevenths and what lies above them. */
const seventhOf = (chord: Chord): number | undefined => {
  const root = pitchClass(chord.root);
  const tone = chordTones(chord).find((t) => [9, 10, 11].includes((pitchClass(t) - root + 12) % 12));
  return tone === undefined || /sixth/i.test(chord.kind) ? undefined : pitchClass(tone);
};

const heldIntoForeign = (read: Read, notes: readonly SoundingNote[]): string[] =>
  notes
    .filter((n) =>
      read.stretches.some(
        (s) => s.onset > n.onset && overlaps(n, s.onset, s.end) && !inChord(n.midi, s.chord),
      ),
    )
    .map((n) => said(read, n));

const RULES: Readonly<Record<string, Rule>> = {
  'no filling is held into a chord that it is foreign to': (read) => heldIntoForeign(read, read.under),
  'nothing of the left hand is held into a chord that it is foreign to': (read) =>
    heldIntoForeign(read, read.left),
  'fillings stand on beats': (read) =>
    read.under
      .filter((n) => {
        const m = measureAt(read.version.score.measures, n.onset);
        return placeInMeasure(m, n.onset) % beatLength(m.time) !== 0;
      })
      .map((n) => said(read, n)),
  'a filling does not strike a key just struck': (read) =>
    read.under
      .filter((n) => {
        const m = measureAt(read.version.score.measures, n.onset);
        const beat = beatLength(m.time);
        return [...read.right, ...read.left].some(
          (o) =>
            o !== n &&
            o.midi === n.midi &&
            o.onset <= n.onset &&
            n.onset - o.onset <= beat &&
            !read.under.includes(o),
        );
      })
      .map((n) => said(read, n)),
  'the hands are not on top of each other': (read) =>
    read.left
      .filter((a) =>
        read.right.some((b) => overlaps(b, a.onset, a.onset + a.duration) && b.midi <= a.midi + 1),
      )
      .map((n) => said(read, n)),
  'no mud in the left hand': (read) =>
    read.stretches.flatMap((s) => {
      const keys = [
        ...new Set(read.left.filter((n) => n.onset >= s.onset && n.onset < s.end).map((n) => n.midi)),
      ].sort((a, b) => a - b);
      return keys.length > 1 && keys.every((k) => inChord(k, s.chord)) && !isClear(keys)
        ? [`${keys.join(' ')} at ${placeOf(read, s.onset)}`]
        : [];
    }),
  'sevenths sound from level 4': (read) =>
    read.level < 4
      ? []
      : read.stretches.flatMap((s) => {
          const seventh = seventhOf(s.chord);
          const beat = beatLength(measureAt(read.version.score.measures, s.onset).time);
          return seventh === undefined ||
            s.end - s.onset < 2 * beat ||
            [...read.left, ...read.right].some((n) => overlaps(n, s.onset, s.end) && n.midi % 12 === seventh)
            ? []
            : [`${placeOf(read, s.onset)}`];
        }),
  'slash chords keep bass and root': (read) =>
    read.level < 2
      ? []
      : read.stretches.flatMap((s) => {
          const beat = beatLength(measureAt(read.version.score.measures, s.onset).time);
          // Within two beats or less a beginner's hand has the bass alone.
          const isShort = s.end - s.onset <= 2 * beat && read.level < 4;
          if (isShort || s.chord.bass === undefined || s.chord.bass === s.chord.root) return [];
          const here = [...read.left, ...read.right].filter((n) => overlaps(n, s.onset, s.end));
          const lowest = Math.min(...here.map((n) => n.midi));
          return here.length > 0 &&
            (lowest % 12 !== pitchClass(s.chord.bass) ||
              !here.some((n) => n.midi % 12 === pitchClass(s.chord.root)))
            ? [placeOf(read, s.onset)]
            : [];
        }),
  'repeats are set the same way': (read) => {
    const seen = new Map<string, string>();
    return read.version.score.measures.flatMap((m) => {
      const textOf = (notes: readonly SoundingNote[]): string =>
        notes
          .filter((n) => n.onset >= m.start && n.onset < endOf(m))
          .map((n) => `${n.onset - m.start}+${n.duration}=${n.midi}`)
          .join(' ');
      const top = read.right.filter((n) => !read.under.includes(n));
      const chords = read.stretches
        .filter((s) => s.onset >= m.start && s.onset < endOf(m))
        .map((s) => `${s.onset - m.start}:${JSON.stringify(s.chord)}`)
        .join(' ');
      const key = `${textOf(top)}|${chords}`;
      const left = textOf(read.left);
      const before = seen.get(key);
      seen.set(key, before ?? left);
      // The end is held, whatever came before it.
      const isEnd = m === read.version.score.measures.at(-1);
      return before !== undefined && before !== left && left.length > 0 && !isEnd ? [`${m.number}`] : [];
    });
  },
};

/** Rules about what a source's own left hand may have otherwise. */
const OF_THE_SOURCE: ReadonlySet<string> = new Set([
  'no mud in the left hand',
  'the hands are not on top of each other',
  'sevenths sound from level 4',
  'slash chords keep bass and root',
  'nothing of the left hand is held into a chord that it is foreign to',
  'repeats are set the same way',
] satisfies (keyof typeof RULES)[]);
