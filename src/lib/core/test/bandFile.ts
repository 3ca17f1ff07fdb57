/** Bands as MIDI files, for tests: players with a program and notes in quarters, and drums. */
import { writeMidi, type MidiEvent } from 'midi-file';

export interface BandPlayer {
  readonly name?: string;
  readonly program: number;
  readonly velocity?: number;
  /** Onset and length in quarters, MIDI key. */
  readonly notes: readonly (readonly [number, number, number])[];
}

interface Band {
  readonly players: readonly BandPlayer[];
  /** Onset in quarters, General MIDI key. */
  readonly drums?: readonly (readonly [number, number])[];
  readonly time?: readonly [number, number];
  readonly title?: string;
  /** Onset in quarters, quarters a minute. */
  readonly tempos?: readonly (readonly [number, number])[];
  readonly words?: readonly { readonly kind: 'text' | 'copyrightNotice' | 'marker'; readonly text: string }[];
  /** All in one track, as files of type 0 are. */
  readonly inOneTrack?: boolean;
}

const DIVISION = 480;

/** With its tick instead of the time since the event before. */
type Timed = { readonly at: number; readonly order: number; readonly event: object };

function track(events: readonly Timed[]): MidiEvent[] {
  let before = 0;
  return [
    ...[...events]
      .sort((a, b) => a.at - b.at || a.order - b.order)
      .map(({ at, event }) => {
        const deltaTime = Math.round((at - before) * DIVISION);
        before = at;
        return { deltaTime, ...event } as MidiEvent;
      }),
    { deltaTime: 0, meta: true, type: 'endOfTrack' } as MidiEvent,
  ];
}

const strokes = (channel: number, notes: BandPlayer['notes'], velocity = 90): Timed[] =>
  notes.flatMap(([at, length, noteNumber]) => [
    { at, order: 2, event: { type: 'noteOn', channel, noteNumber, velocity } },
    { at: at + length, order: 1, event: { type: 'noteOff', channel, noteNumber, velocity: 0 } },
  ]);

/** The bytes of the file. */
export function bandFile({
  players,
  drums = [],
  time,
  title,
  tempos = [[0, 120]],
  words = [],
  inOneTrack,
}: Band): Uint8Array {
  const meta = (at: number, event: object): Timed => ({ at, order: 0, event: { meta: true, ...event } });
  const conductor: Timed[] = [
    ...(title ? [meta(0, { type: 'trackName', text: title })] : []),
    ...(time
      ? [
          meta(0, {
            type: 'timeSignature',
            numerator: time[0],
            denominator: time[1],
            metronome: 24,
            thirtyseconds: 8,
          }),
        ]
      : []),
    ...tempos.map(([at, tempo]) =>
      meta(at, { type: 'setTempo', microsecondsPerBeat: Math.round(60_000_000 / tempo) }),
    ),
    ...words.map(({ kind, text }) => meta(0, { type: kind, text })),
  ];
  const channels = players.map(({ name, program, velocity, notes }, i): Timed[] => {
    // The tenth channel is the drums'.
    const channel = i < 9 ? i : i + 1;
    return [
      ...(name && !inOneTrack ? [meta(0, { type: 'trackName', text: name })] : []),
      { at: 0, order: 0, event: { type: 'programChange', channel, programNumber: program } },
      ...strokes(channel, notes, velocity),
    ];
  });
  const beaten = strokes(
    9,
    drums.map(([at, key]) => [at, 0.1, key] as const),
  );
  const tracks = inOneTrack
    ? [track([...conductor, ...channels.flat(), ...beaten])]
    : [conductor, ...channels, ...(beaten.length > 0 ? [beaten] : [])].map(track);
  return new Uint8Array(
    writeMidi({
      header: { format: inOneTrack ? 0 : 1, numTracks: tracks.length, ticksPerBeat: DIVISION },
      tracks,
    }),
  );
}
