/** What a MIDI file holds, gathered from its tracks: notes, pedal, maps of tempo, metre and key. Times in file ticks. */
import { parseMidi, type MidiData, type MidiEvent } from 'midi-file';
import type { TimeSignature } from '../../score/score';
import type { Key } from '../../theory/key';
import { InputError } from '../inputError';
import { atMost, MOST_MIDI_BYTES, MOST_NOTES } from '../limits';

export interface PlayedNote {
  readonly at: number;
  readonly end: number;
  readonly midi: number;
  readonly track: number;
}

export interface MidiFile {
  /** Ticks of the file to the quarter note. */
  readonly division: number;
  readonly notes: readonly PlayedNote[];
  readonly pedals: readonly { readonly at: number; readonly down: boolean }[];
  readonly tempos: readonly { readonly at: number; readonly tempo: number }[];
  readonly times: readonly { readonly at: number; readonly time: TimeSignature }[];
  readonly keys: readonly { readonly at: number; readonly key: Key }[];
  /** Names of the tracks, by number; empty where they have none. */
  readonly names: readonly string[];
  /** Notes of percussion, which are left out. */
  readonly drums: number;
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
  let drums = 0;
  data.tracks.forEach((track, index) => {
    const found = notesOfTrack(track, index);
    // One by one: a track of a hundred thousand is more than a call takes arguments.
    for (const note of found.notes) notes.push(note);
    drums += found.percussion;
    let at = 0;
    for (const event of track) {
      at += event.deltaTime;
      switch (event.type) {
        case 'setTempo': {
          const tempo = 60_000_000 / event.microsecondsPerBeat;
          if (tempo >= 5 && tempo <= 1000) tempos.push({ at, tempo });
          break;
        }
        case 'trackName':
          names[index] ??= event.text.trim();
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
      drums > 0 ? 'The MIDI file holds percussion only.' : 'The MIDI file holds no notes.',
    );
  atMost(notes.length, MOST_NOTES, 'notes');
  const inOrder = <T extends { at: number }>(items: T[]): T[] => items.sort((a, b) => a.at - b.at);
  return {
    division,
    notes: inOrder(notes),
    pedals: inOrder(pedals),
    tempos: inOrder(tempos),
    times: inOrder(times),
    keys: inOrder(keys),
    names,
    drums,
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

interface Down {
  readonly at: number;
  readonly midi: number;
  /** Note-offs still to come for earlier strokes of the key. */
  late: number;
  /** The last of them, for files that send one for two strokes. */
  lateAt?: number;
}

/**
 * Pairs note-ons with note-offs. A key struck again while it sounds ends there, and the note-off that comes late for the
 * stroke before ends nothing. Keys never let go end with the track.
 */
function notesOfTrack(
  track: readonly MidiEvent[],
  index: number,
): { notes: PlayedNote[]; percussion: number } {
  const notes: PlayedNote[] = [];
  const down = new Map<string, Down>();
  let percussion = 0;
  let at = 0;
  const end = (name: string, open: Down, when: number): void => {
    if (when > open.at) notes.push({ at: open.at, end: when, midi: open.midi, track: index });
    down.delete(name);
  };
  for (const event of track) {
    at += event.deltaTime;
    if (event.type !== 'noteOn' && event.type !== 'noteOff') continue;
    if (event.channel === PERCUSSION) {
      if (event.type === 'noteOn') percussion += 1;
      continue;
    }
    const name = `${event.channel}:${event.noteNumber}`;
    const open = down.get(name);
    if (event.type === 'noteOn' && event.velocity > 0) {
      if (open) end(name, open, at);
      down.set(name, { at, midi: event.noteNumber, late: open && open.at < at ? open.late + 1 : 0 });
    } else if (open && open.late > 0) {
      open.late -= 1;
      open.lateAt = at;
    } else if (open) end(name, open, at);
  }
  for (const [name, open] of [...down]) end(name, open, open.lateAt ?? at);
  return { notes, percussion };
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
