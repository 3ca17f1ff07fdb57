/** The idioms: what each kind of music asks of an accompaniment before any level does, and the words by which pieces name theirs. */

export const IDIOMS = {
  waltz: { name: 'Waltz', says: 'a low note, then the chord twice' },
  march: { name: 'March', says: 'low notes alternating with chords, without pedal' },
  rag: { name: 'Rag', says: 'low notes alternating with chords under a syncopated melody, without pedal' },
  swing: { name: 'Swing', says: 'swung eighths over a walking or swinging bass' },
  walking: { name: 'Walking bass', says: 'a bass that walks in even notes, without pedal' },
  bossa: { name: 'Bossa', says: 'root and fifth, each pushed by the note before it' },
  tango: { name: 'Tango', says: 'a dotted quarter, an eighth and two quarters, without pedal' },
  hymn: { name: 'Hymn', says: 'all voices move together' },
  voices: { name: 'Two voices', says: 'a melody in each hand, without pedal' },
  study: { name: 'Study', says: 'running notes in either hand, without pedal' },
  prelude: { name: 'Prelude', says: 'chords broken between the hands, held by the pedal' },
  ballad: { name: 'Ballad', says: 'slow, over broken chords held by the pedal' },
  lullaby: { name: 'Lullaby', says: 'slow and rocking' },
  riff: { name: 'Riff', says: 'a short figure that repeats in the left hand' },
  dance: { name: 'Dance', says: 'light on its beats, without pedal' },
  plain: { name: 'Plain', says: 'none of these' },
} as const satisfies Record<string, { readonly name: string; readonly says: string }>;

export type Idiom = keyof typeof IDIOMS;

export const IDIOM_IDS = Object.keys(IDIOMS) as Idiom[];

/** Words by which pieces name their kind, in several languages; the narrower kinds first. */
const NAMES: readonly (readonly [RegExp, Idiom])[] = [
  [/\b(waltz|valse|walzer|vals)\b/i, 'waltz'],
  [/\b(rag|ragtime)\b/i, 'rag'],
  [/\b(boogie|boogie-woogie|walking bass)\b/i, 'walking'],
  [/\b(bossa|bossa nova)\b/i, 'bossa'],
  [/\b(tango|habanera|milonga)\b/i, 'tango'],
  [/\b(march|marche|marcia|marsch|quickstep)\b/i, 'march'],
  [/\b(swing|swung|shuffle|blues|jazz)\b/i, 'swing'],
  [/\b(hymn|hymne|chorale?|choral|psalm|carol)\b/i, 'hymn'],
  [/\b(canon|kanon|invention|fugue|fughetta|fuga|fuge)\b/i, 'voices'],
  [/\b([ée]tude|study|etüde|exercise)\b/iu, 'study'],
  [/\b(lullaby|berceuse|wiegenlied|cradle song)\b/i, 'lullaby'],
  [/\b(ballad|ballade|nocturne|slow air)\b/i, 'ballad'],
  [
    /\b(dance|tanz|danse|jig|reel|polka|hornpipe|gigue|minuet|menuet|menuett|gavotte|bourr[ée]e|mazurka|schottische|strathspey|galop|l[äa]ndler|tarantella)\b/i,
    'dance',
  ],
];

/** The idiom that a text names. */
export const idiomNamed = (text: string): Idiom | undefined =>
  NAMES.find(([pattern]) => pattern.test(text))?.[1];
