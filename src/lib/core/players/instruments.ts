/** The instruments of General MIDI by families, with what each family does in a band as a rule. Data. */

interface Family {
  /** First and last program, from 0. */
  readonly from: number;
  readonly to: number;
  /** What one of them is called where its track says nothing. */
  readonly name: string;
  /** How readily it has the tune, in the points of `tune.ts`. */
  readonly leads: number;
}

const FAMILIES: readonly Family[] = [
  { from: 0, to: 7, name: 'Piano', leads: 0.2 },
  { from: 8, to: 15, name: 'Bells and mallets', leads: 0.1 },
  { from: 16, to: 20, name: 'Organ', leads: -0.1 },
  { from: 21, to: 23, name: 'Accordion or harmonica', leads: 0.5 },
  { from: 24, to: 25, name: 'Acoustic guitar', leads: -0.1 },
  { from: 26, to: 28, name: 'Electric guitar', leads: -0.2 },
  { from: 29, to: 31, name: 'Lead guitar', leads: 0.1 },
  { from: 32, to: 39, name: 'Bass', leads: -3 },
  { from: 40, to: 42, name: 'Violin or cello', leads: 0.5 },
  { from: 43, to: 43, name: 'Double bass', leads: -3 },
  { from: 44, to: 45, name: 'Strings', leads: -0.5 },
  { from: 46, to: 46, name: 'Harp', leads: -0.2 },
  { from: 47, to: 47, name: 'Timpani', leads: -3 },
  { from: 48, to: 51, name: 'Strings', leads: -0.5 },
  { from: 52, to: 54, name: 'Choir', leads: 0 },
  { from: 55, to: 55, name: 'Orchestra hit', leads: -2 },
  { from: 56, to: 57, name: 'Trumpet or trombone', leads: 0.5 },
  { from: 58, to: 58, name: 'Tuba', leads: -1.5 },
  { from: 59, to: 60, name: 'Trumpet or horn', leads: 0.4 },
  { from: 61, to: 63, name: 'Brass', leads: -0.2 },
  { from: 64, to: 67, name: 'Saxophone', leads: 0.7 },
  { from: 68, to: 69, name: 'Oboe', leads: 0.7 },
  { from: 70, to: 70, name: 'Bassoon', leads: 0 },
  { from: 71, to: 71, name: 'Clarinet', leads: 0.7 },
  { from: 72, to: 79, name: 'Flute', leads: 0.7 },
  { from: 80, to: 87, name: 'Lead synthesizer', leads: 0.6 },
  { from: 88, to: 95, name: 'Synthesizer pad', leads: -0.8 },
  { from: 96, to: 103, name: 'Effects', leads: -1 },
  { from: 104, to: 108, name: 'Plucked strings', leads: 0.1 },
  { from: 109, to: 111, name: 'Bagpipe, fiddle or reed', leads: 0.5 },
  { from: 112, to: 119, name: 'Percussion', leads: -3 },
  { from: 120, to: 127, name: 'Sound effects', leads: -3 },
];

/** The family of a General MIDI program. */
export const familyOf = (program: number): Family | undefined =>
  FAMILIES.find(({ from, to }) => program >= from && program <= to);

/** Programs of keyboards that both hands play. */
export const isKeyboard = (program: number | undefined): boolean => program !== undefined && program <= 7;

/** Programs that two hands play on keys or strings of their own: pianos, mallets, organs, the harp. */
export const isForTwoHands = (program: number | undefined): boolean =>
  program === undefined || program <= 23 || program === 46;

/** What players call what they do, and how readily it is the tune. The first that is found in a name holds. */
const NAMED_ROLES: readonly (readonly [RegExp, number])[] = [
  [/\b(back(ing|up|ground)|harmon(y|ies)|2nd voice)\b/i, -0.6],
  [/\b(bass|basse?s|contrabass|sub)\b/i, -3],
  [/\b(drums?|percussion|perc|fx|effects?|hits?)\b/i, -3],
  [/\b(pads?|chords?|comp(ing)?|rhythm|rhy|strum|arp(eggio)?s?|accomp(animent)?|ostinato|riff)\b/i, -0.8],
  [/\b(melod(y|ie|ia)|lead|voc(al)?s?|voice|singer|sing|tune|theme|solo|cantus|soprano)\b/i, 1.2],
];

/** How much a name speaks for the tune. */
export const leadOfName = (name: string): number =>
  NAMED_ROLES.find(([pattern]) => pattern.test(name))?.[1] ?? 0;
