/**
 * ABC text as the parser reads it: metres and bar lines in the ways that tune books write them and it does not, and without the
 * voices that are no music of keys. Lines stay lines, so that what the parser says of them is said of the file's.
 */
import { plural } from '../../plural';

export interface PreparedAbc {
  readonly text: string;
  readonly warnings: readonly string[];
  /** What stands in the head of a tune as P: the order in which its parts are played. */
  readonly partOrder: string | undefined;
}

const FIELD = /^[A-Za-z+]:/;

export function prepareAbc(text: string): PreparedAbc {
  const lines = text.split('\n').map((line) => {
    if (/^M:/.test(line)) return `M:${metre(line.slice(2))}`;
    if (FIELD.test(line) || line.startsWith('%')) return line;
    return barsIn(line).replace(/\[M:([^\]]*)\]/g, (_, value: string) => `[M:${metre(value)}]`);
  });
  const { kept, leftOut } = withoutPercussion(lines);
  const key = lines.findIndex((line) => /^K:/.test(line));
  const order = lines.slice(0, Math.max(0, key)).find((line) => /^P:/.test(line));
  return {
    text: kept.join('\n'),
    partOrder: order?.slice(2).replace(/%.*/, '').trim() || undefined,
    warnings:
      leftOut.length > 0
        ? [
            `Left out: ${plural(leftOut.length, 'percussion voice')} (${leftOut.join(', ')}), which no piano plays.`,
          ]
        : [],
  };
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

/** Bar lines written loosely, as in "| :" and ": |", outside of texts and decorations. */
const barsIn = (line: string): string =>
  line
    .split(/("[^"]*"|![^!]*!)/)
    .map((piece, i) =>
      i % 2 === 1 ? piece : piece.replace(/\|[ \t]+:(?!\|)/g, '|:').replace(/:[ \t]+\|/g, ':|'),
    )
    .join('');

/** Voices of drums: by a clef of percussion, or the tenth channel of MIDI. */
function withoutPercussion(lines: readonly string[]): { kept: string[]; leftOut: string[] } {
  const voiceAt: (string | undefined)[] = [];
  let voice: string | undefined;
  for (const line of lines) {
    const named = /^V:\s*(\S+)/.exec(line)?.[1] ?? /^\[V:\s*([^\]\s]+)/.exec(line)?.[1];
    if (named) voice = named;
    if (/^X:/.test(line)) voice = undefined;
    voiceAt.push(voice);
  }
  const drums = new Set(
    lines.flatMap((line, i) => {
      const isDrum = /^(%%|I:)\s*MIDI\s+channel\s+10\b/.test(line) || /^V:.*\bclef\s*=\s*"?perc/.test(line);
      return isDrum && voiceAt[i] !== undefined ? [voiceAt[i]] : [];
    }),
  );
  const isKept = (line: string, i: number): boolean => {
    const own = voiceAt[i];
    if (own === undefined || !drums.has(own)) return true;
    // The head's fields and the tune's words are nobody's.
    return /^[XTCKMLQP]:/.test(line) && !lines.slice(0, i).some((l) => /^K:/.test(l));
  };
  const leftOut = [...drums].filter((name) => name !== undefined);
  return leftOut.length === 0
    ? { kept: [...lines], leftOut }
    : { kept: lines.map((line, i) => (isKept(line, i) ? line : '%')), leftOut };
}
