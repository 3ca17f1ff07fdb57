/** What a MIDI file holds, gathered from its tracks: notes, pedal, maps of tempo, metre and key. Times in file ticks. */
import { parseMidi, type MidiData, type MidiEvent } from 'midi-file';
import type { TimeSignature } from '../../score/score';
import type { Key } from '../../theory/key';
import { plainLine } from '../../plainText';
import { InputError } from '../inputError';
import { atMost, MOST_MIDI_BYTES, MOST_NOTES } from '../limits';

export interface PlayedNote {
  readonly at: number;
  readonly end: number;
  readonly midi: number;
  /** Who plays it: a number of `players`. */
  readonly player: number;
}

/** One channel of one track: an instrument, or one hand of it. */
export interface Player {
  /** The name of its track; empty where it has none. */
  readonly name: string;
  /** General MIDI program, 0 to 127, that most of its notes are played with; undefined where the file never says. */
  readonly program: number | undefined;
  /** Mean velocity of its notes times the volume of its channel, from 0 to 1. */
  readonly loudness: number;
}

/** A stroke of the drums, by its General MIDI key. */
export interface DrumStroke {
  readonly at: number;
  readonly key: number;
  readonly velocity: number;
}

export interface MidiFile {
  /** Ticks of the file to the quarter note. */
  readonly division: number;
  readonly notes: readonly PlayedNote[];
  /** In the order of the file. */
  readonly players: readonly Player[];
  readonly pedals: readonly { readonly at: number; readonly down: boolean }[];
  readonly tempos: readonly { readonly at: number; readonly tempo: number }[];
  readonly times: readonly { readonly at: number; readonly time: TimeSignature }[];
  readonly keys: readonly { readonly at: number; readonly key: Key }[];
  /** Names of tracks that no player of the music has: of the file, or of what conducts it. */
  readonly names: readonly string[];
  /** What the file says in words, with its tick: text, copyright, markers. */
  readonly words: readonly FileWords[];
  /** Strokes of percussion, in order of time. */
  readonly drums: readonly DrumStroke[];
}

export interface FileWords {
  readonly at: number;
  readonly kind: 'text' | 'copyright' | 'marker';
  readonly text: string;
}

const PERCUSSION = 9;
const PEDAL = 64;

/** Reads the bytes. Throws InputError when they are no MIDI file, or one without notes. */
export function readMidiEvents(bytes: Uint8Array): MidiFile {
  if (bytes.length > MOST_MIDI_BYTES)
    throw new InputError(
      `The MIDI file has ${Math.round(bytes.length / 1024 / 1024)} MB; up to ${MOST_MIDI_BYTES / 1024 / 1024} MB can be read.`,
    );
  const data = parse(bytes);
  const division = data.header.ticksPerBeat;
  if (!division)
    throw new InputError(
      'This MIDI file counts in film frames instead of beats, which gives no measures to write.',
    );
  const notes: PlayedNote[] = [];
  const pedals: { at: number; down: boolean }[] = [];
  const tempos: { at: number; tempo: number }[] = [];
  const times: { at: number; time: TimeSignature }[] = [];
  const keys: { at: number; key: Key }[] = [];
  const names: string[] = [];
  const words: FileWords[] = [];
  const drums: DrumStroke[] = [];
  const players: Player[] = [];
  data.tracks.forEach((track) => {
    const name = nameOf(track);
    const found = playersOf(track);
    for (const { strokes, isPercussion, ...player } of found) {
      if (isPercussion) {
        for (const { at, midi, velocity } of strokes) drums.push({ at, key: midi, velocity });
        continue;
      }
      const number = players.length;
      players.push({ name, ...player });
      // One by one: a track of a hundred thousand is more than a call takes arguments.
      for (const { at, end, midi } of strokes) notes.push({ at, end, midi, player: number });
    }
    if (found.length === 0 && name) names.push(name);
    let at = 0;
    for (const event of track) {
      at += event.deltaTime;
      switch (event.type) {
        case 'setTempo': {
          const tempo = 60_000_000 / event.microsecondsPerBeat;
          if (tempo >= 5 && tempo <= 1000) tempos.push({ at, tempo });
          break;
        }
        case 'text':
          words.push({ at, kind: 'text', text: plainText(event.text) });
          break;
        case 'copyrightNotice':
          words.push({ at, kind: 'copyright', text: plainText(event.text) });
          break;
        case 'marker':
          words.push({ at, kind: 'marker', text: plainText(event.text) });
          break;
        case 'timeSignature':
          if (isUsable(event.numerator, event.denominator))
            times.push({ at, time: { beats: event.numerator, beatType: event.denominator } });
          break;
        case 'keySignature':
          if (Math.abs(event.key) <= 7)
            keys.push({ at, key: { fifths: event.key, mode: event.scale === 1 ? 'minor' : 'major' } });
          break;
        case 'controller':
          if (event.controllerType === PEDAL) pedals.push({ at, down: event.value >= 64 });
      }
    }
  });
  if (notes.length === 0)
    throw new InputError(
      drums.length > 0 ? 'The MIDI file holds percussion only.' : 'The MIDI file holds no notes.',
    );
  atMost(notes.length, MOST_NOTES, 'notes');
  const inOrder = <T extends { at: number }>(items: T[]): T[] => items.sort((a, b) => a.at - b.at);
  return {
    division,
    notes: inOrder(notes),
    players,
    pedals: inOrder(pedals),
    tempos: inOrder(tempos),
    times: inOrder(times),
    keys: inOrder(keys),
    names,
    words: inOrder(words.filter((w) => w.text !== '')),
    drums: inOrder(drums),
  };
}

/** A metre that can be written; a damaged file may say anything. */
const isUsable = (beats: number, beatType: number): boolean =>
  beats >= 1 && beats <= 64 && [1, 2, 4, 8, 16, 32].includes(beatType);

function parse(bytes: Uint8Array): MidiData {
  try {
    return parseMidi(bytes);
  } catch {
    throw new InputError('This MIDI file is damaged: it may have been cut off when it was saved or sent.');
  }
}

/** A text of the file without what is no letter; files of the old days are in one byte a letter, newer ones in UTF-8. */
function plainText(raw: string): string {
  const bytes = Uint8Array.from(raw, (c) => c.charCodeAt(0) & 0xff);
  let text = raw;
  try {
    if (bytes.some((b) => b >= 0x80)) text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    // No UTF-8: it is what it says, byte by byte.
  }
  return plainLine(text);
}

/** The name of a track. */
function nameOf(track: readonly MidiEvent[]): string {
  for (const event of track) if (event.type === 'trackName') return plainText(event.text);
  return '';
}

interface Down {
  readonly at: number;
  readonly midi: number;
  readonly velocity: number;
  /** Note-offs still to come for earlier strokes of the key. */
  late: number;
  /** The last of them, for files that send one for two strokes. */
  lateAt?: number;
}

interface Stroke {
  readonly at: number;
  readonly end: number;
  readonly midi: number;
  /** 1 to 127. */
  readonly velocity: number;
}

/** What one channel of a track plays, while it is read. */
interface Channel {
  readonly strokes: Stroke[];
  readonly down: Map<number, Down>;
  program: number | undefined;
  volume: number;
  /** How often each program strikes. */
  readonly programs: Map<number, number>;
}

const VOLUME = 7;
/** What General MIDI begins with. */
const USUAL_VOLUME = 100;

/**
 * The channels of a track that play. Pairs note-ons with note-offs: a key struck again while it sounds ends there, and the note-off that
 * comes late for the stroke before ends nothing. Keys never let go end with the track.
 */
function playersOf(
  track: readonly MidiEvent[],
): (Omit<Player, 'name'> & { readonly strokes: readonly Stroke[]; readonly isPercussion: boolean })[] {
  const channels = new Map<number, Channel>();
  const channelOf = (number: number): Channel => {
    const known = channels.get(number);
    if (known) return known;
    const made: Channel = {
      strokes: [],
      down: new Map(),
      program: undefined,
      volume: USUAL_VOLUME,
      programs: new Map(),
    };
    channels.set(number, made);
    return made;
  };
  const end = ({ strokes, down }: Channel, { at, midi, velocity }: Down, when: number): void => {
    if (when > at) strokes.push({ at, end: when, midi, velocity });
    down.delete(midi);
  };
  let at = 0;
  for (const event of track) {
    at += event.deltaTime;
    if (event.type === 'programChange') channelOf(event.channel).program = event.programNumber;
    if (event.type === 'controller' && event.controllerType === VOLUME)
      channelOf(event.channel).volume = event.value;
    if (event.type !== 'noteOn' && event.type !== 'noteOff') continue;
    const channel = channelOf(event.channel);
    if (event.channel === PERCUSSION) {
      // A stroke of the drums has no length that matters.
      const { noteNumber: midi, velocity } = event;
      if (event.type === 'noteOn' && velocity > 0) channel.strokes.push({ at, end: at, midi, velocity });
      continue;
    }
    const open = channel.down.get(event.noteNumber);
    if (event.type === 'noteOn' && event.velocity > 0) {
      if (open) end(channel, open, at);
      channel.down.set(event.noteNumber, {
        at,
        midi: event.noteNumber,
        velocity: event.velocity,
        late: open && open.at < at ? open.late + 1 : 0,
      });
      if (channel.program !== undefined)
        channel.programs.set(channel.program, (channel.programs.get(channel.program) ?? 0) + 1);
    } else if (open && open.late > 0) {
      open.late -= 1;
      open.lateAt = at;
    } else if (open) end(channel, open, at);
  }
  return [...channels]
    .sort(([a], [b]) => a - b)
    .map(([number, channel]) => {
      for (const open of [...channel.down.values()]) end(channel, open, open.lateAt ?? at);
      const { strokes, volume, programs } = channel;
      const mean = strokes.reduce((sum, s) => sum + s.velocity, 0) / Math.max(1, strokes.length);
      return {
        strokes,
        isPercussion: number === PERCUSSION,
        program: [...programs].sort((a, b) => b[1] - a[1])[0]?.[0],
        loudness: (mean / 127) * (volume / 127),
      };
    })
    .filter(({ strokes }) => strokes.length > 0);
}

/** Seconds from the beginning of the file to a tick, by its tempo map. */
export function secondsAt({ tempos, division }: MidiFile): (tick: number) => number {
  const steps = [{ at: 0, tempo: 120 }, ...tempos];
  const starts: number[] = [0];
  for (let i = 1; i < steps.length; i++)
    starts.push(starts[i - 1]! + ((steps[i]!.at - steps[i - 1]!.at) / division) * (60 / steps[i - 1]!.tempo));
  return (tick) => {
    const i = steps.findLastIndex((s) => s.at <= tick);
    return starts[i]! + ((tick - steps[i]!.at) / division) * (60 / steps[i]!.tempo);
  };
}
