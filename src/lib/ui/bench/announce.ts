/** What a screen reader hears of a note: "Measure 7, right hand, F♯4, quarter, finger 2, decided, because …". */
import type { Pitch } from '$core/score/pitch';
import { writtenValue } from '$core/score/notate';
import { measureAt, soundingNotes } from '$core/score/query';
import type { Note } from '$core/score/score';
import type { Version } from '$core/version/realise';
import { capital, measureText } from '$ui/text';

const ALTERATIONS: Readonly<Record<number, string>> = {
  [-2]: ' double flat',
  [-1]: ' flat',
  1: ' sharp',
  2: ' double sharp',
};

/** "F sharp 4": signs are read out by few voices. */
const spokenPitch = ({ step, alter, octave }: Pitch): string =>
  `${step}${ALTERATIONS[alter] ?? ''} ${octave}`;

const VALUES: Readonly<Record<number, string>> = {
  1: 'whole note',
  2: 'half note',
  4: 'quarter',
  8: 'eighth',
  16: 'sixteenth',
  32: 'thirty-second',
};
const DOTS = ['', 'dotted ', 'double-dotted '] as const;

/** "dotted quarter", "eighth of a triplet", "half note, held on" */
export function lengthText(note: Note): string {
  const value = writtenValue(note.duration, note.tuplet);
  if (!value) return 'a note';
  const name = VALUES[value.type] ?? `${value.type}th`;
  const tuplet =
    value.tuplet?.actual === 3 ? ' of a triplet' : value.tuplet ? ` of ${value.tuplet.actual}` : '';
  const tied = note.tie === 'start' || note.tie === 'both' ? ', tied on' : '';
  return `${DOTS[value.dots]}${name}${tuplet}${tied}`;
}

export function announced(version: Version, note: Note, why?: string): string {
  const { number } = measureAt(version.score.measures, note.onset);
  const finger = version.fingers[note.id];
  const hand = note.staff === 1 ? 'right' : 'left';
  const together = soundingNotes(version.score.parts[0]!.notes).filter(
    (n) => n.onset === note.onset && n.staff === note.staff,
  ).length;
  return (
    [
      capital(measureText(number)),
      `${hand} hand`,
      spokenPitch(note.pitch),
      ...(together > 1 ? [`in a chord of ${together}`] : []),
      lengthText(note),
      `finger ${finger?.finger ?? 'none'}`,
      finger?.decided ? 'your choice' : 'suggested',
    ].join(', ') + (why ? `: ${why}` : '.')
  );
}
