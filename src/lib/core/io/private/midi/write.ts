/** A Score as a MIDI file of type 1: a track of tempo, metre and keys, then one for each hand; all as it is performed. */
import { writeMidi as encode, type MidiEvent } from 'midi-file';
import { perform } from '../../../performance/perform';
import { type Performance } from '../../../performance/played';
import type { Score } from '../../../score/score';
import { TICKS_PER_QUARTER, type Ticks } from '../../../score/ticks';

/** Ticks of the file to the quarter: triplets and sixteenths are whole. */
const DIVISION = 480;

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
  const performance = perform(score);
  const hands = handsOf(score, performance);
  // The pedal goes with the last hand, the left one of a piano.
  const pedal = pedalEvents(performance, channelOf(Math.max(0, hands.length - 1)));
  const tracks = [conductor(score, performance), ...hands.slice(0, -1), [...(hands.at(-1) ?? []), ...pedal]];
  return encoded(tracks.map(toTrack));
}

/** Events that are encoded at a time: the library copies what it has written at every longer number. */
const AT_ONCE = 400;
/** Bytes of a file before its first track, and of a track before its events. */
const HEADER = { file: 14, track: 8 };

/** A file of type 1. */
function encoded(tracks: readonly MidiEvent[][]): Uint8Array {
  const header = { format: 1, numTracks: tracks.length, ticksPerBeat: DIVISION } as const;
  const parts: number[][] = [encode({ header, tracks: tracks.map(() => []) }).slice(0, HEADER.file)];
  for (const track of tracks) {
    const bodies: number[][] = [];
    for (let i = 0; i < track.length; i += AT_ONCE)
      bodies.push(
        encode({ header, tracks: [track.slice(i, i + AT_ONCE)] }).slice(HEADER.file + HEADER.track),
      );
    const length = bodies.reduce((sum, body) => sum + body.length, 0);
    const bytes = [24, 16, 8, 0].map((shift) => (length >> shift) & 0xff);
    parts.push([...'MTrk'].map((c) => c.charCodeAt(0)).concat(bytes), ...bodies);
  }
  const file = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    file.set(part, at);
    at += part.length;
  }
  return file;
}

/** Title, tempi, metres and keys. */
function conductor(score: Score, { measures, tempi }: Performance): Timed[] {
  const events: Timed[] = [
    meta(0, { type: 'trackName', text: score.title }),
    ...tempi.map(({ onset, tempo }) =>
      meta(onset, { type: 'setTempo', microsecondsPerBeat: Math.round(60_000_000 / tempo) }),
    ),
  ];
  let before = '';
  for (const { onset, index } of measures) {
    const { time, key } = score.measures[index]!;
    const now = `${time.beats}/${time.beatType} ${key.fifths} ${key.mode}`;
    if (now !== before) {
      const metre = { numerator: time.beats, denominator: time.beatType, metronome: 24, thirtyseconds: 8 };
      events.push(meta(onset, { type: 'timeSignature', ...metre }));
      events.push(
        meta(onset, { type: 'keySignature', key: key.fifths, scale: key.mode === 'minor' ? 1 : 0 }),
      );
    }
    before = now;
  }
  return events;
}

/** Channels in turn, without the one that is kept for percussion. */
const channelOf = (track: number): number => [0, 1, 2, 3, 4, 5, 6, 7, 8, 10, 11, 12, 13, 14, 15][track % 15]!;

/** The staves of all parts, each a track of its own. */
function handsOf(score: Score, { notes }: Performance): Timed[][] {
  const hands = score.parts.flatMap((part, index): { name: string; index: number; staff?: 1 | 2 }[] =>
    part.staves < 2
      ? [{ name: part.name, index }]
      : [
          { name: 'Right hand', index, staff: 1 },
          { name: 'Left hand', index, staff: 2 },
        ],
  );
  return hands.map(({ name, index, staff }, i): Timed[] => [
    meta(0, { type: 'trackName', text: name }),
    ...notes
      .filter((n) => n.part === index && (staff === undefined || (n.staff === 1) === (staff === 1)))
      .flatMap(({ onset, duration, midi, velocity }): Timed[] => {
        const sounded = { deltaTime: 0, channel: channelOf(i), noteNumber: midi };
        return [
          { at: onset, order: 2, event: { ...sounded, type: 'noteOn', velocity } },
          // A key is let go before it is struck again.
          { at: onset + duration, order: 1, event: { ...sounded, type: 'noteOff', velocity: 0 } },
        ];
      }),
  ]);
}

/** Pedal down after what is struck with it, up before what is struck next; a change is up a moment before. */
const pedalEvents = ({ pedals }: Performance, channel: number): Timed[] =>
  pedals.map(({ onset, down }, i): Timed => {
    const isChange = !down && pedals[i + 1]?.down === true && pedals[i + 1]!.onset === onset;
    return {
      at: isChange ? Math.max(0, onset - 1) : onset,
      order: down ? 3 : 0,
      event: { deltaTime: 0, type: 'controller', channel, controllerType: 64, value: down ? 127 : 0 },
    };
  });

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
