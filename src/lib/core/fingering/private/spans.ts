/**
 * How far two fingers of one hand lie apart, in semitones from the lower-numbered finger to the higher, outwards from
 * the thumb (upwards in the right hand, downwards in the left). After the table of Parncutt, Sloboda, Clarke,
 * Raekallio and Desain (Music Perception 14, 1997), for a hand that reaches a ninth. The upper limits between fingers 2 to 5
 * are a little wider than theirs: a third lies easily under 2 and 3 in every broken seventh (1-2-3-5).
 */
export interface Span {
  readonly minPractical: number;
  readonly minComfortable: number;
  readonly minRelaxed: number;
  readonly maxRelaxed: number;
  readonly maxComfortable: number;
  readonly maxPractical: number;
}

const span = (
  minPractical: number,
  minComfortable: number,
  minRelaxed: number,
  maxRelaxed: number,
  maxComfortable: number,
  maxPractical: number,
): Span => ({ minPractical, minComfortable, minRelaxed, maxRelaxed, maxComfortable, maxPractical });

const SPANS: Readonly<Record<string, Span>> = {
  '12': span(-5, -3, 1, 5, 8, 10),
  '13': span(-4, -2, 3, 6, 10, 12),
  '14': span(-3, -1, 5, 8, 12, 14),
  '15': span(-1, 1, 7, 11, 13, 15),
  '23': span(1, 1, 1, 3, 4, 5),
  '24': span(1, 1, 3, 5, 6, 7),
  '25': span(2, 2, 5, 8, 9, 10),
  '34': span(1, 1, 1, 2, 2, 4),
  '35': span(1, 1, 3, 5, 6, 7),
  '45': span(1, 1, 1, 2, 3, 5),
};

/** Reach, in semitones, of the hand for which the table was made. */
const TABLE_REACH = 14;

/** The spans of a hand by reach in semitones: what is relaxed stays, what is stretched shrinks or grows with the hand. */
export function spansFor(reach: number): (low: number, high: number) => Span {
  const known = byReach.get(reach);
  if (known) return known;
  const scale = reach / TABLE_REACH;
  const table: Span[] = [];
  for (const [pair, s] of Object.entries(SPANS)) {
    const maxComfortable = Math.max(s.maxRelaxed, s.maxComfortable * scale);
    const whole = pair === '15' ? reach : s.maxPractical * scale;
    table[Number(pair)] = { ...s, maxComfortable, maxPractical: Math.max(maxComfortable, whole) };
  }
  const spans = (low: number, high: number): Span => table[10 * low + high]!;
  byReach.set(reach, spans);
  return spans;
}

const byReach = new Map<number, (low: number, high: number) => Span>();
