import { z } from 'zod';
import { toMidi, type Pitch } from '../../theory/pitch';
import type { Note } from '../../score/score';
import { bassOf, chordTones, type Chord } from '../../theory/chord';
import { nearestPitch, pitchClass, spellMidi, type Fifths } from '../../theory/fifths';
import { defineKind } from '../kind';
import { changedStrokes, widthOf, type DecidedStroke, type StruckChord } from '../private/notes';

/** Which tones of the chord are struck, as places in it (0 the bass, then its tones in order), and octaves added to each. */
interface VoicingFacts {
  readonly name: string;
  readonly tones: (chord: Chord) => readonly Fifths[];
}

const nth = (chord: Chord, ...places: readonly number[]): Fifths[] =>
  places.flatMap((place) => chordTones(chord)[place] ?? []);

const VOICINGS = {
  root: { name: 'the bass alone', tones: (chord) => [bassOf(chord)] },
  octave: { name: 'the bass in octaves', tones: (chord) => [bassOf(chord), bassOf(chord)] },
  fifth: { name: 'bass and fifth', tones: (chord) => [bassOf(chord), ...nth(chord, 2)] },
  third: { name: 'bass and third', tones: (chord) => [bassOf(chord), ...nth(chord, 1)] },
  seventh: { name: 'bass and seventh', tones: (chord) => [bassOf(chord), ...nth(chord, 3)] },
  shell: { name: 'bass, third and seventh', tones: (chord) => [bassOf(chord), ...nth(chord, 1, 3)] },
  close: { name: 'the whole chord, close', tones: (chord) => [bassOf(chord), ...chordTones(chord)] },
  open: { name: 'bass, fifth and tenth', tones: (chord) => [bassOf(chord), ...nth(chord, 2, 1)] },
} as const satisfies Record<string, VoicingFacts>;

type Voicing = keyof typeof VOICINGS;
const VOICING_IDS = Object.keys(VOICINGS) as [Voicing, ...Voicing[]];

/** The keys of one stroke of a chord. */
export const voicing = defineKind({
  id: 'voicing',
  name: 'Chord voicing',
  words: 'thinner fuller open close easier chord notes shape octave octaves',
  value: z.enum(VOICING_IDS),
  scopes: ['note', 'measure', 'range', 'section'],
  says: (value) => `chord as ${VOICINGS[value].name}`,
  choices: ({ isSingAlong }) =>
    isSingAlong ? [] : VOICING_IDS.map((id) => [id, VOICINGS[id].name] as const),
  apply: (notes, held, passage) =>
    changedStrokes(notes, held, passage, (stroke) => {
      const chord = passage.chordAt(stroke.onset);
      if (!chord) return stroke.refuse('no chord sounds here');
      const pitches = voiced(VOICINGS[stroke.value].tones(chord), stroke);
      return widthOf(pitches) > passage.reach(stroke.staff)
        ? stroke.refuse('the hand does not reach this voicing')
        : withPitches(stroke, pitches);
    }),
});

/** The tones one above another, the first as near as can be to the lowest key that was struck. */
function voiced(tones: readonly Fifths[], { notes }: StruckChord): Pitch[] {
  const [bass, ...others] = tones;
  const pitches = [nearestPitch(bass!, notes[0]!.midi)];
  for (const tone of others) {
    const below = toMidi(pitches.at(-1)!);
    const isThere = pitches.some((p) => (toMidi(p) - 7 * tone) % 12 === 0 && pitches.length > 1);
    const step = (((pitchClass(tone) - below) % 12) + 12) % 12 || 12;
    if (!isThere && !(others.length > 1 && tone === bass)) pitches.push(spellMidi(below + step, tone));
  }
  return pitches;
}

/** Written notes on other keys: as many as there are pitches, in the rhythm of the lowest. */
function withPitches({ notes: struck, written }: DecidedStroke<unknown>, pitches: readonly Pitch[]): Note[] {
  const lowest = struck[0]!;
  return pitches.flatMap((pitch, i) => {
    const own = struck[i];
    return written(own ?? lowest).map((w): Note => {
      if (own) return { ...w, pitch };
      const { lyrics: _lyrics, slurs: _slurs, ...rest } = w;
      return { ...rest, id: w.id.replace(lowest.id, `${lowest.id}v${i}`), pitch };
    });
  });
}
