/** The shape under the hands at a moment: the keys that are down with their fingers, which of them stay, and what comes next. */
import type { Finger } from '$core/fingering/grips';
import { pitchClassName, toMidi } from '$core/theory/pitch';
import { isStruck } from '$core/score/query';
import type { Note } from '$core/score/score';
import type { Ticks } from '$core/score/ticks';
import type { Version } from '$core/version/realise';

interface ShapeKey {
  readonly midi: number;
  readonly hand: 'right' | 'left';
  readonly finger: number;
  readonly decided: boolean;
  readonly name: string;
}

interface HandShape {
  readonly down: readonly ShapeKey[];
  readonly next: readonly { readonly midi: number; readonly hand: 'right' | 'left'; readonly name: string }[];
  /** "C stays; next D, F♯" */
  readonly text: string;
}

const handOf = ({ staff }: Note): 'right' | 'left' => (staff === 1 ? 'right' : 'left');

/** A note of a chord as a key with its finger; the finger of what is tied is that of its beginning. */
const keyOf =
  ({ fingers }: Version, tried?: Readonly<Record<string, Finger>>) =>
  (note: Note): ShapeKey[] => {
    const id = note.id in fingers ? note.id : note.id.replace(/\.\d+$/, '');
    const struck = fingers[id];
    if (!struck) return [];
    const finger = tried?.[id];
    return [
      {
        midi: toMidi(note.pitch),
        hand: handOf(note),
        finger: finger ?? struck.finger,
        decided: finger === undefined && struck.decided,
        name: pitchClassName(note.pitch),
      },
    ];
  };

/** The shape at a written tick; where it sounds, of the notes that are down. */
export function shapeAt(
  version: Version,
  at: Ticks,
  sounding?: {
    readonly ids: ReadonlySet<string>;
    readonly fingers?: Readonly<Record<string, Finger>> | undefined;
  },
): HandShape {
  const { notes } = version.score.parts[0]!;
  const held = sounding
    ? notes.filter((n) => sounding.ids.has(n.id))
    : notes.filter((n) => !n.grace && !n.cue && n.onset <= at && at < n.onset + n.duration);
  const down = held.flatMap(keyOf(version, sounding?.fingers));
  const from = sounding ? Math.max(0, ...held.map((n) => n.onset)) : at;
  const following = notes.filter((n) => isStruck(n) && n.onset > from);
  const onset = Math.min(...following.map((n) => n.onset));
  const next = following
    .filter((n) => n.onset === onset)
    .map((n) => ({ midi: toMidi(n.pitch), hand: handOf(n), name: pitchClassName(n.pitch) }));
  const goesOn = new Set(
    notes
      .filter((n) => n.onset <= onset && onset < n.onset + n.duration && !isStruck(n))
      .map((n) => toMidi(n.pitch)),
  );
  for (const n of held) if (n.onset + n.duration > onset) goesOn.add(toMidi(n.pitch));
  const stays = down.filter((k) => goesOn.has(k.midi) || next.some((n) => n.midi === k.midi));
  const names = (list: readonly { readonly name: string }[]): string =>
    [...new Set(list.map((k) => k.name))].join(', ');
  const text = [
    stays.length > 0
      ? `${names(stays)} ${new Set(stays.map((k) => k.name)).size > 1 ? 'stay' : 'stays'}`
      : '',
    next.length > 0 ? `next ${names(next)}` : '',
  ]
    .filter(Boolean)
    .join('; ');
  return { down, next: next.filter((n) => !down.some((k) => k.midi === n.midi)), text };
}
