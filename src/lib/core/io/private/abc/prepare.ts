/**
 * ABC text as the parser reads it: metres and bar lines in the ways that tune books write them and it does not, and without the
 * voices that are no music of keys. Lines stay lines, so that what the parser says of them is said of the file's.
 */
import { plural } from '../../../plural';

export interface PreparedAbc {
  readonly text: string;
  readonly warnings: readonly string[];
  /** What stands in the head of a tune as P: the order in which its parts are played. */
  readonly partOrder: string | undefined;
  /** What stands there as R: "hornpipe", "waltz". */
  readonly rhythm: string | undefined;
  /** The length of a note without a figure (L:), in quarters. */
  readonly unit: number;
}

const FIELD = /^[A-Za-z+]:/;

export function prepareAbc(text: string): PreparedAbc {
  const written = withoutContinuations(text.split('\n'));
  const signs = written.filter((line) => SIGNS.test(line)).length;
  const lines = written.map((line) => {
    if (SIGNS.test(line)) return '%';
    if (/^M:/.test(line)) return `M:${metre(line.slice(2))}`;
    if (/^K:\s*H[Pp]\b/.test(line)) return line.replace(/H[Pp]/, PIPES);
    if (FIELD.test(line) || line.startsWith('%')) return line;
    return barsIn(line).replace(/\[M:([^\]]*)\]/g, (_, value: string) => `[M:${metre(value)}]`);
  });
  const { kept, leftOut } = withoutPercussion(lines);
  const key = lines.findIndex((line) => /^K:/.test(line));
  const head = (field: RegExp, end = Math.max(0, key)): string | undefined =>
    lines
      .slice(0, end)
      .find((line) => field.test(line))
      ?.slice(2)
      .replace(/%.*/, '')
      .trim() || undefined;
  return {
    text: kept.join('\n'),
    partOrder: head(/^P:/),
    rhythm: head(/^R:/),
    unit: unitLength(head(/^L:/, lines.length), head(/^M:/)),
    warnings: [
      ...(leftOut.length > 0
        ? [
            `Left out: ${plural(leftOut.length, 'percussion voice')} (${leftOut.join(', ')}), which a piano can’t play.`,
          ]
        : []),
      ...(signs > 0
        ? [`Left out: ${plural(signs, 'line')} of signs (d: or s:), which belong to no note.`]
        : []),
    ],
  };
}

/** What L: says, in quarters; where it says nothing a sixteenth in metres below three quarters, else an eighth. */
function unitLength(length: string | undefined, metre: string | undefined): number {
  const fraction = (text: string | undefined): number | undefined => {
    const [, over, under] = /^(\d+)\s*\/\s*(\d+)/.exec(text ?? '') ?? [];
    return over && Number(under) > 0 ? Number(over) / Number(under) : undefined;
  };
  return 4 * (fraction(length) ?? ((fraction(metre) ?? 1) < 0.75 ? 1 / 16 : 1 / 8));
}

/** Lines of signs that stand under the music as words do. */
const SIGNS = /^[ds]:/;

/** Highland pipes, whose music has no signature, sound F♯ and C♯. */
const PIPES = 'Amix';

/**
 * Lines that a backslash joins. A field that goes on takes the next line into it; music goes on anyhow, and must not where a
 * field stands in between, which the parser would read as notes.
 */
function withoutContinuations(lines: readonly string[]): string[] {
  const GOES_ON = /\\[ \t]*(%.*)?$/;
  const out = [...lines];
  for (let i = 0; i + 1 < out.length; i++) {
    const line = out[i]!;
    if (line.startsWith('%') || !GOES_ON.test(line)) continue;
    const next = out[i + 1]!;
    if (/^[A-Z]:/.test(line) && !FIELD.test(next)) {
      out[i] = line.replace(GOES_ON, '') + next;
      out[i + 1] = '%';
    } else if (FIELD.test(next)) out[i] = line.replace(GOES_ON, '');
  }
  return out;
}

/**
 * A metre that the parser knows. "5/4 (2/4 3/4)" and "5/4 2+3/4" say how a measure is grouped; a bare figure counts halves
 * where it is a 2, and quarters otherwise.
 */
function metre(value: string): string {
  const [said = ''] = value.split('%');
  const bare = /^\s*(\d+)\s*$/.exec(said)?.[1];
  if (bare) return bare === '2' ? '2/2' : `${bare}/4`;
  const whole = /^\s*(\d+)\s*\/\s*(\d+)\s*\S/.exec(said);
  if (!whole) return value;
  const [, beats, beatType] = whole;
  const groups = [...said.slice(said.indexOf(beatType!) + beatType!.length).matchAll(/(\d+)(?:\/(\d+))?/g)]
    .filter(([, , type]) => type === undefined || type === beatType)
    .map(([, count]) => Number(count));
  const sum = groups.reduce((total, n) => total + n, 0);
  return groups.length > 1 && sum === Number(beats)
    ? `(${groups.join('+')})/${beatType}`
    : `${beats}/${beatType}`;
}

/**
 * Bar lines written loosely, as in "| :" and ": |", outside of texts and decorations. One that is not to be seen ("[|]") is a bar
 * line; a dotted one (":" alone) parts no measures. A tie may stand before the octave of its note ("C-,").
 */
const barsIn = (line: string): string =>
  line
    .split(/("[^"]*"|![^!]*!|\[[A-Za-z]:[^\]]*\]|%.*)/)
    .map((piece, i) =>
      i % 2 === 1
        ? piece
        : piece
            .replace(/\|[ \t]+:(?!\|)/g, '|:')
            .replace(/:[ \t]+\|/g, ':|')
            .replace(/\[\|\]/g, '|')
            .replace(/([A-Ga-g])-([,']+)/g, '$1$2-')
            .replace(/(?<![|:[\]0-9(][ \t]*):(?![ \t]*[|:\][0-9])/g, ' '),
    )
    .join('');

/** Of a tune's head, what belongs to all voices. */
const OF_ALL = /^[XTCKMLQP]:/;

/** Voices of drums: by a clef of percussion, or the tenth channel of MIDI. Their lines are left blank. */
function withoutPercussion(lines: readonly string[]): { kept: readonly string[]; leftOut: string[] } {
  const key = lines.findIndex((line) => /^K:/.test(line));
  let voice: string | undefined;
  const voices = lines.map((line, i) => {
    // Behind the head the first voice goes on until another is named.
    if (i === key + 1) voice = undefined;
    voice = /^\[?V:\s*([^\]\s]+)/.exec(line)?.[1] ?? voice;
    return voice;
  });
  const isDrum = (line: string): boolean =>
    /^(%%|I:)\s*MIDI\s+channel\s+10\b/.test(line) || /^V:.*\bclef\s*=\s*"?perc/.test(line);
  const drums = new Set(
    lines.flatMap((line, i) => (isDrum(line) && voices[i] !== undefined ? [voices[i]] : [])),
  );
  const isKept = (line: string, i: number): boolean =>
    !drums.has(voices[i] ?? '') || (i <= key && OF_ALL.test(line));
  return {
    kept: drums.size === 0 ? lines : lines.map((line, i) => (isKept(line, i) ? line : '%')),
    leftOut: [...drums],
  };
}
