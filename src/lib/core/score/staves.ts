/**
 * How the notes of two staves are read without counting lines: a staff takes the other clef where its notes lie far outside for a while, and
 * what is still more than three lines off is written an octave nearer, under an octave sign.
 */
import { cheapestPath } from '../cheapestPath';
import { endOf } from './metre';
import { staffPosition } from '../theory/pitch';
import { byMeasure } from './query';
import type { ClefMark, Mark, Measure, Note } from './score';
import type { Ticks } from './ticks';

/** Lines outside the staff that are read at sight. */
export const MOST_LINES = 3;

/** Bottom and top line of a clef, in letters from C0. */
const LINES = {
  G: {
    low: staffPosition({ step: 'E', alter: 0, octave: 4 }),
    high: staffPosition({ step: 'F', alter: 0, octave: 5 }),
  },
  F: {
    low: staffPosition({ step: 'G', alter: 0, octave: 2 }),
    high: staffPosition({ step: 'A', alter: 0, octave: 3 }),
  },
} as const;
type Sign = keyof typeof LINES;
const SIGNS: readonly Sign[] = ['G', 'F'];

/** Ledger lines of a note in a clef: above positive, below negative. `by` letters are added to where it stands. */
export function ledgerLines({ pitch }: Pick<Note, 'pitch'>, sign: Sign, by = 0): number {
  const { low, high } = LINES[sign];
  const at = staffPosition(pitch) + by;
  return at > high ? Math.floor((at - high) / 2) : at < low ? -Math.floor((low - at) / 2) : 0;
}

/** Costs of reading: a ledger line, each one beyond what is read at sight, another clef than usual for a measure, a change of clef. */
const LINE = 0.25;
const BEYOND = 3;
const UNUSUAL = 0.6;
const CHANGE = 5;

/** The clef of a staff in each measure: the cheapest to read. */
function signsOf(measures: readonly Measure[], notes: readonly Note[], staff: number): Sign[] {
  const usual: Sign = staff === 1 ? 'G' : 'F';
  const groups = byMeasure(
    measures,
    notes.filter((n) => n.staff === staff),
  );
  const costIn = (own: readonly Note[], sign: Sign): number => {
    const lines = own.map((n) => Math.abs(ledgerLines(n, sign)));
    const sum = lines.reduce((a, b) => a + b, 0);
    const beyond = lines.reduce((a, b) => a + Math.max(0, b - MOST_LINES), 0);
    return (
      (LINE * sum + BEYOND * beyond) / Math.max(1, Math.sqrt(own.length)) + (sign === usual ? 0 : UNUSUAL)
    );
  };
  const path = cheapestPath(
    groups.map((own) => SIGNS.map((sign) => costIn(own, sign))),
    (from, to) => (from === to ? 0 : CHANGE),
  );
  return path.map((k) => SIGNS[k]!);
}

/** The clefs of two staves, where they begin. */
export function readableClefs(measures: readonly Measure[], notes: readonly Note[]): ClefMark[] {
  return [1, 2].flatMap((staff) => {
    const signs = signsOf(measures, notes, staff);
    return signs.flatMap((sign, i): ClefMark[] =>
      i === 0 || sign !== signs[i - 1]
        ? [{ onset: measures[i]?.start ?? 0, staff, sign, line: sign === 'G' ? 2 : 4 }]
        : [],
    );
  });
}

/** What lies under the octave signs that there are already. */
export function underSigns(marks: readonly Mark[]): (onset: Ticks, staff: number) => boolean {
  const spans = new Map<string, { staff: number; from: Ticks; to: Ticks }>();
  marks.forEach((mark, i) => {
    if (mark.kind !== 'octave shift' || mark.type === 'stop') return;
    const stop = marks
      .slice(i + 1)
      .find(
        (m) =>
          m.kind === 'octave shift' &&
          m.type === 'stop' &&
          m.number === mark.number &&
          m.staff === mark.staff,
      );
    spans.set(`${i}`, { staff: mark.staff, from: mark.onset, to: stop?.onset ?? Infinity });
  });
  return (onset, staff) =>
    [...spans.values()].some((s) => s.staff === staff && onset >= s.from && onset < s.to);
}

/** Letters of an octave. */
const OCTAVE = 7;
/** A stretch under an octave sign goes on over what lies nearer for so many measures at most. */
const BRIDGED = 1;

/** Octave signs over what is still too far off in the clefs that hold; `taken` are stretches that have one already. */
export function octaveSigns(
  measures: readonly Measure[],
  notes: readonly Note[],
  clefs: readonly ClefMark[],
  taken: (onset: Ticks, staff: number) => boolean = () => false,
): Mark[] {
  const marks: Mark[] = [];
  let number = 11;
  for (const staff of [1, 2]) {
    const own = notes
      .filter((n) => n.staff === staff && !taken(n.onset, staff))
      .sort((a, b) => a.onset - b.onset);
    const signAt = (onset: Ticks): Sign => {
      const clef = clefs.filter((c) => c.staff === staff && c.onset <= onset).at(-1);
      return clef ? (clef.sign === 'F' ? 'F' : 'G') : staff === 1 ? 'G' : 'F';
    };
    for (const way of [1, -1] as const) {
      const isFar = (n: Note): boolean => way * ledgerLines(n, signAt(n.onset)) > MOST_LINES;
      /** Written an octave nearer it is still read. */
      const mayMove = (n: Note): boolean =>
        -way * ledgerLines(n, signAt(n.onset), -way * OCTAVE) <= MOST_LINES - 1;
      let open: { from: Ticks; to: Ticks } | undefined;
      const close = (): void => {
        if (!open) return;
        const place = { staff, above: way > 0, size: 8, number } as const;
        marks.push({ ...place, kind: 'octave shift', type: way > 0 ? 'down' : 'up', onset: open.from });
        marks.push({ ...place, kind: 'octave shift', type: 'stop', onset: open.to });
        number += 1;
        open = undefined;
      };
      for (const note of own) {
        const end = note.onset + note.duration;
        if (isFar(note)) {
          const measure = measures.find((m) => endOf(m) > note.onset);
          const near = open && note.onset - open.to <= BRIDGED * (measure?.length ?? 0);
          const between = open && own.filter((n) => n.onset >= open!.to && n.onset < note.onset);
          if (open && !(near && between!.every(mayMove))) close();
          open = open ? { from: open.from, to: Math.max(open.to, end) } : { from: note.onset, to: end };
        }
      }
      close();
    }
  }
  return marks.sort((a, b) => a.onset - b.onset);
}
