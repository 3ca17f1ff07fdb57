/** What long work is at, in words: stages of the pipeline and steps by their names. */
const WORDS: Readonly<Record<string, string>> = {
  waits: 'Waiting for its turn',
  read: 'Reading the file',
  analyse: 'Finding form and chords',
  introduce: 'Finding form and chords',
  transpose: 'Changing the key',
  reduce: 'Arranging',
  arrange: 'Arranging',
  hands: 'Assigning hands',
  struck: 'Fingering',
  fingers: 'Fingering',
  positions: 'Fingering',
  counts: 'Counting',
  pedal: 'Placing the pedal',
  tempo: 'Setting the tempo',
  write: 'Writing the notes',
  check: 'Checking limits',
  account: 'Checking limits',
  difficulty: 'Measuring difficulty',
  sound: 'Checking',
  engrave: 'Engraving',
};

/** As in "Reading the file". */
export const wordsFor = (step: string): string => WORDS[step] ?? 'Working';
