/**
 * The root of a diminished seventh. Four roots sound alike: the chord is named by where it leads, a half step below the next root, else
 * as its source spells it; its bass, else the first tone, only where neither says anything.
 */
import type { SoundingNote } from '../../score/query';
import { bassOf, chordTones, type Chord } from '../../theory/chord';
import { pitchClass, toFifths, type Fifths } from '../../theory/fifths';
import { tonicFifths, type Key } from '../../theory/key';

/** Tones are spelled no further from the natural notes than this: one sharp or flat, and the double ones that chords need. */
const FURTHEST = 12;

/** Every root that sounds a diminished seventh of these keys, spelled in each way that a page would have. */
function rootsOf(chord: Chord): Fifths[] {
  const keys = new Set(chordTones(chord).map(pitchClass));
  return Array.from({ length: 2 * FURTHEST + 1 }, (_, i) => i - FURTHEST).filter((root) =>
    keys.has(pitchClass(root)),
  );
}

/** A diminished seventh under the right root; any other chord as it is. `sounding` is what its source has while it sounds. */
export function ledDiminished(
  chord: Chord,
  next: Chord | null | undefined,
  sounding: readonly SoundingNote[],
  key: Key,
): Chord {
  if (chord.kind !== 'diminished7') return chord;
  const spelled = new Set(sounding.map((n) => toFifths(n.pitch)));
  const asSpelled = (root: Fifths): number =>
    chordTones({ root, kind: 'diminished7' }).filter((tone) => spelled.has(tone)).length;
  const leads = (root: Fifths): boolean =>
    !!next && next.kind !== 'diminished7' && next.root - root === HALF_STEP_UP;
  const bass = pitchClass(bassOf(chord));
  const root = rootsOf(chord)
    .map((candidate) => ({
      candidate,
      worth:
        (leads(candidate) ? LEADS : 0) +
        (candidate === tonicFifths(key) + LEADING_NOTE ? LEADS_HOME : 0) +
        asSpelled(candidate) +
        (candidate === chord.root ? AS_HEARD : 0) +
        (pitchClass(candidate) === bass ? IN_THE_BASS : 0),
    }))
    .sort((a, b) => b.worth - a.worth || Math.abs(a.candidate) - Math.abs(b.candidate))[0]!.candidate;
  const tones = chordTones({ root, kind: 'diminished7' });
  const low = tones.find((tone) => pitchClass(tone) === bass);
  return {
    root,
    kind: 'diminished7',
    ...(pitchClass(root) === bass ? {} : { bass: low ?? bassOf(chord) }),
  };
}

/** A diatonic half step up, on the line of fifths. */
const HALF_STEP_UP = -5;
/** What its way is worth against one tone that is spelled so, and what its bass is. */
const LEADS = 4;
const IN_THE_BASS = 0.5;
const AS_HEARD = 0.3;
/** The leading note of the key, on the line of fifths from its home: its diminished seventh is a dominant by itself. */
const LEADING_NOTE = 5;
const LEADS_HOME = 1.2;
