/** A Score as a MIDI file of type 1: a track of tempo, metre and keys, then one for each hand; repeats are played. */
import { writeMidi as encode, type MidiEvent } from 'midi-file';
import { toMidi } from '../../score/pitch';
import { soundingNotes } from '../../score/query';
import type { Note, Score } from '../../score/score';
import { playingOrder } from '../../score/unfold';
import { TICKS_PER_QUARTER, type Ticks } from '../../score/ticks';

/** Ticks of the file to the quarter: triplets and sixteenths are whole. */
const DIVISION = 480;
const USUAL_TEMPO = 96;

type Timed = { readonly at: Ticks; readonly order: number; readonly event: MidiEvent };

type Meta = Extract<MidiEvent, { type: 'trackName' | 'setTempo' | 'timeSignature' | 'keySignature' }>;

/** An event of the conductor's track. */
const meta = (at: Ticks, event: DistributiveOmit<Meta, 'deltaTime' | 'meta'>): Timed => ({
  at,
  order: 0,
  event: { ...event, deltaTime: 0, meta: true } as Meta,
});

/** Omit that keeps the members of a union apart. */
type DistributiveOmit<T, K extends PropertyKey> = T extends unknown ? Omit<T, K> : never;

/** The bytes of the file. */
export function writeMidi(score: Score): Uint8Array {
  const passes = passesOf(score);
  const conductor: Timed[] = [
    meta(0, { type: 'trackName', text: score.title }),
    meta(0, { type: 'setTempo', microsecondsPerBeat: Math.round(60_000_000 / (score.tempo || USUAL_TEMPO)) }),
  ];
  let before = '';
  for (const { at, index } of passes) {
    const { time, key } = score.measures[index]!;
    const now = `${time.beats}/${time.beatType} ${key.fifths} ${key.mode}`;
    if (now !== before) {
      const metre = { numerator: time.beats, denominator: time.beatType, metronome: 24, thirtyseconds: 8 };
      conductor.push(meta(at, { type: 'timeSignature', ...metre }));
      conductor.push(
        meta(at, { type: 'keySignature', key: key.fifths, scale: key.mode === 'minor' ? 1 : 0 }),
      );
    }
    before = now;
  }
  for (const change of score.tempoChanges ?? [])
    for (const at of played(passes, score, change.onset))
      conductor.push(
        meta(at, { type: 'setTempo', microsecondsPerBeat: Math.round(60_000_000 / change.tempo) }),
      );
  const hands = handsOf(score).map(({ name, notes }, i): Timed[] => [
    meta(0, { type: 'trackName', text: name }),
    ...soundingNotes(notes).flatMap((note) =>
      played(passes, score, note.onset).flatMap((at): Timed[] => {
        const sounded = { deltaTime: 0, channel: channelOf(i), noteNumber: toMidi(note.pitch) };
        return [
          { at, order: 2, event: { ...sounded, type: 'noteOn', velocity: 80 } },
          // A key is let go before it is struck again.
          { at: at + note.duration, order: 1, event: { ...sounded, type: 'noteOff', velocity: 0 } },
        ];
      }),
    ),
  ]);
  const pedal = score.pedals.flatMap((mark) =>
    played(passes, score, mark.onset).flatMap((at): Timed[] => {
      const press = (value: number, order: number): Timed => ({
        at: value === 0 ? Math.max(0, at - (mark.type === 'change' ? 1 : 0)) : at,
        order,
        event: {
          deltaTime: 0,
          type: 'controller',
          channel: channelOf(Math.max(0, hands.length - 1)),
          controllerType: 64,
          value,
        },
      });
      return mark.type === 'start'
        ? [press(127, 3)]
        : mark.type === 'stop'
          ? [press(0, 0)]
          : [press(0, 0), press(127, 3)];
    }),
  );
  // The pedal goes with the last hand, the left one of a piano.
  const tracks = [conductor, ...hands.slice(0, -1), [...(hands.at(-1) ?? []), ...pedal]].map(toTrack);
  return Uint8Array.from(
    encode({ header: { format: 1, numTracks: tracks.length, ticksPerBeat: DIVISION }, tracks }),
  );
}

/** Channels in turn, without the one that is kept for percussion. */
const channelOf = (track: number): number => [0, 1, 2, 3, 4, 5, 6, 7, 8, 10, 11, 12, 13, 14, 15][track % 15]!;

/** The staves of all parts, each for a track of its own. */
function handsOf(score: Score): { name: string; notes: Note[] }[] {
  return score.parts.flatMap((part) =>
    part.staves < 2
      ? [{ name: part.name, notes: [...part.notes] }]
      : [1, 2].map((hand) => ({
          name: hand === 1 ? 'Right hand' : 'Left hand',
          notes: part.notes.filter((n) => (n.staff === 1) === (hand === 1)),
        })),
  );
}

interface Pass {
  readonly index: number;
  readonly at: Ticks;
}

/** The measures as they are played, with the time at which each begins. */
function passesOf(score: Score): Pass[] {
  let at = 0;
  return playingOrder(score.measures).map((index) => {
    const pass = { index, at };
    at += score.measures[index]!.length;
    return pass;
  });
}

/** Every time at which something written at a tick is played. The end of the piece belongs to its last measure. */
function played(passes: readonly Pass[], score: Score, tick: Ticks): Ticks[] {
  return passes.flatMap(({ index, at }) => {
    const { start, length } = score.measures[index]!;
    const isLast = index === score.measures.length - 1;
    const inside = tick >= start && (tick < start + length || (isLast && tick === start + length));
    return inside ? [at + tick - start] : [];
  });
}

/** Sorted events with the time since the one before. */
function toTrack(events: readonly Timed[]): MidiEvent[] {
  const sorted = [...events].sort((a, b) => a.at - b.at || a.order - b.order);
  let before = 0;
  const track = sorted.map(({ at, event }) => {
    const tick = Math.round((at * DIVISION) / TICKS_PER_QUARTER);
    const deltaTime = tick - before;
    before = tick;
    return { ...event, deltaTime };
  });
  return [...track, { deltaTime: 0, meta: true, type: 'endOfTrack' }];
}
