/** What the signs of ABC are called in a score: decorations, bars, clefs. Tables only. */
import type { Articulation, Note, Ornament, Route } from '../../../score/score';

export const ARTICULATION_OF: Readonly<Record<string, Articulation>> = {
  staccato: 'staccato',
  accent: 'accent',
  emphasis: 'accent',
  '>': 'accent',
  tenuto: 'tenuto',
  wedge: 'staccatissimo',
  marcato: 'strong-accent',
  umarcato: 'strong-accent',
  '^': 'strong-accent',
  breath: 'breath-mark',
  caesura: 'caesura',
};

export const ORNAMENT_OF: Readonly<Record<string, Ornament['kind']>> = {
  trill: 'trill-mark',
  trillh: 'trill-mark',
  turn: 'turn',
  roll: 'turn',
  invertedturn: 'inverted-turn',
  mordent: 'mordent',
  lowermordent: 'mordent',
  uppermordent: 'inverted-mordent',
  pralltriller: 'inverted-mordent',
};

export const DYNAMICS: ReadonlySet<string> = new Set([
  'pppp',
  'ppp',
  'pp',
  'p',
  'mp',
  'mf',
  'f',
  'ff',
  'fff',
  'ffff',
  'sfz',
  'sf',
  'fp',
]);

/** Where a hairpin begins, by the decoration that opens it; the one that closes it ends with a round bracket. */
export const HAIRPIN_OF: Readonly<Record<string, 'crescendo' | 'diminuendo' | 'stop'>> = {
  'crescendo(': 'crescendo',
  '<(': 'crescendo',
  'diminuendo(': 'diminuendo',
  '>(': 'diminuendo',
  'crescendo)': 'stop',
  '<)': 'stop',
  'diminuendo)': 'stop',
  '>)': 'stop',
};

/** The way through the piece. */
export function routeOf(decoration: string): Route | undefined {
  if (decoration === 'segno') return { segno: true };
  if (decoration === 'coda') return { coda: true };
  if (decoration === 'fine') return { fine: true };
  if (/^(da ?coda|tocoda)$/i.test(decoration)) return { toCoda: true };
  if (/^(D\.?C\.?|dacapo)/i.test(decoration)) return { jump: 'da capo' };
  if (/^(D\.?S\.?|dalsegno)/i.test(decoration)) return { jump: 'dal segno' };
  return undefined;
}

/** What grace notes take of what they are written with: the standard leaves it open, and players of ABC have settled on a quarter. */
export const GRACE = 1 / 4;

export const ALTER_OF: Readonly<Record<string, number>> = {
  dblflat: -2,
  flat: -1,
  natural: 0,
  sharp: 1,
  dblsharp: 2,
};

/** Signs that the writer puts before a note, by what they mean there. */
const ARTICULATION_SIGN: Partial<Record<Articulation, string>> = {
  staccato: '.',
  accent: '!accent!',
  tenuto: '!tenuto!',
  staccatissimo: '!wedge!',
  'strong-accent': '!marcato!',
  'breath-mark': '!breath!',
};

const ORNAMENT_SIGN: Partial<Record<Ornament['kind'], string>> = {
  'trill-mark': '!trill!',
  turn: '!turn!',
  'inverted-turn': '!invertedturn!',
  mordent: '!mordent!',
  'inverted-mordent': '!pralltriller!',
};

/** Marks of one note that stand before it. */
export const signsBefore = (note: Note): string =>
  [
    ...(note.ornaments ?? []).map((o) => ORNAMENT_SIGN[o.kind] ?? ''),
    ...(note.articulations ?? []).map((a) => ARTICULATION_SIGN[a] ?? ''),
    note.fermata ? '!fermata!' : '',
    note.arpeggio ? '!arpeggio!' : '',
  ].join('');
