/**
 * Standard MIDI files (type 0 and 1) into a Score: tempo and metre from their maps, times onto a grid, a pickup found,
 * hands from the tracks or, where they do not say, by register and motion, pitches spelled by the key.
 */
import { parseMidi, type MidiData, type MidiEvent } from 'midi-file';
import { keyFromProfile } from '../../analysis/keyProfile';
import { measureLength } from '../../score/metre';
import { notate } from '../../score/notate';
import type { Measure, Note, PedalMark, TimeSignature } from '../../score/score';
import { TICKS_PER_QUARTER, type Ticks } from '../../score/ticks';
import { measureAt } from '../../score/query';
import { spellMidi } from '../../theory/fifths';
import { spellInKey, type Key } from '../../theory/key';
import { InputError } from '../inputError';
import type { ReadResult } from '../readResult';
import { quantise } from './quantise';
import { splitHands } from './splitHands';

interface Played {
  readonly onset: Ticks;
  readonly duration: Ticks;
  readonly midi: number;
  readonly track: number;
}

const PERCUSSION = 9;
const MOST_NOTES = 200_000;
const MOST_MEASURES = 4000;

/** Reads the bytes of a MIDI file. Throws InputError when it is none, or holds no notes. */
export function readMidi(bytes: Uint8Array): ReadResult {
  const data = parse(bytes);
  const division = data.header.ticksPerBeat;
  if (!division)
    throw new InputError(
      'This MIDI file counts in film frames instead of beats, which gives no measures to write.',
    );
  const toTicks = (ticks: number): Ticks => Math.round((ticks * TICKS_PER_QUARTER) / division);

  const warnings: string[] = [];
  const played: Played[] = [];
  const pedals: PedalMark[] = [];
  const times: { at: Ticks; time: TimeSignature }[] = [];
  const keys: { at: Ticks; key: Key }[] = [];
  let tempo = 0;
  let title = '';
  let drums = 0;
  data.tracks.forEach((track, index) => {
    const { notes, percussion } = notesOfTrack(track, index, toTicks);
    played.push(...notes);
    drums += percussion;
    let at = 0;
    for (const event of track) {
      at += event.deltaTime;
      if (event.type === 'setTempo' && tempo === 0)
        tempo = Math.round(60_000_000 / event.microsecondsPerBeat);
      if (event.type === 'trackName' && !title && event.text.trim()) title = event.text.trim();
      if (event.type === 'timeSignature' && isUsable(event.numerator, event.denominator))
        times.push({ at: toTicks(at), time: { beats: event.numerator, beatType: event.denominator } });
      if (event.type === 'keySignature' && Math.abs(event.key) <= 7)
        keys.push({
          at: toTicks(at),
          key: { fifths: event.key, mode: event.scale === 1 ? 'minor' : 'major' },
        });
      if (event.type === 'controller' && event.controllerType === 64)
        pedals.push({ onset: toTicks(at), type: event.value >= 64 ? 'start' : 'stop' });
    }
  });
  if (played.length === 0) throw new InputError('The MIDI file holds no notes.');
  if (played.length > MOST_NOTES)
    throw new InputError(`The MIDI file holds ${played.length} notes: too many to read.`);
  if (drums > 0) warnings.push(`${drums} notes of percussion were left out.`);

  const notes = quantise(played).sort((a, b) => a.onset - b.onset || a.midi - b.midi);
  const weights = new Array<number>(12).fill(0);
  for (const note of notes) weights[note.midi % 12]! += note.duration;
  const key = keys[0]?.key ?? keyFromProfile(weights);
  const end = Math.max(...notes.map((n) => n.onset + n.duration));
  const { measures, shift } = frame(times, keys.length > 0 ? keys : [{ at: 0, key }], notes[0]!.onset, end);
  const staves = stavesOf(notes);
  const lastEnd = measures.at(-1)!.start + measures.at(-1)!.length;

  const sounding = notes.map((note, i): Note => {
    const onset = note.onset - shift;
    const inKey = measureAt(measures, onset).key;
    return {
      id: `n${i}`,
      onset,
      duration: Math.min(note.duration, lastEnd - onset),
      pitch: spellMidi(note.midi, spellInKey(note.midi % 12, inKey, 'sharp')),
      staff: staves[i]!,
      voice: staves[i] === 1 ? 1 : 5,
    };
  });
  return {
    score: {
      title: title || 'Untitled',
      composer: '',
      tempo,
      measures,
      parts: [
        {
          id: 'P1',
          name: 'Piano',
          staves: 2,
          notes: notate(measures, sounding).sort((a, b) => a.onset - b.onset || a.staff - b.staff),
        },
      ],
      chordSymbols: [],
      pedals: cleanPedals(pedals, shift, lastEnd),
    },
    warnings,
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

/** Pairs note-ons with note-offs; a key struck again while it sounds ends there. Keys never let go end with the track. */
function notesOfTrack(
  track: readonly MidiEvent[],
  index: number,
  toTicks: (ticks: number) => Ticks,
): { notes: Played[]; percussion: number } {
  const notes: Played[] = [];
  const down = new Map<string, { at: number; midi: number }>();
  let percussion = 0;
  let at = 0;
  const release = (name: string): void => {
    const open = down.get(name);
    if (open && at > open.at)
      notes.push({
        onset: toTicks(open.at),
        duration: toTicks(at) - toTicks(open.at),
        midi: open.midi,
        track: index,
      });
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
    release(name);
    if (event.type === 'noteOn' && event.velocity > 0) down.set(name, { at, midi: event.noteNumber });
  }
  for (const name of [...down.keys()]) release(name);
  return { notes, percussion };
}

/** Two tracks with notes are two hands, the higher one the right; otherwise register and motion decide. */
function stavesOf(notes: readonly Played[]): (1 | 2)[] {
  const tracks = [...new Set(notes.map((n) => n.track))];
  if (tracks.length !== 2) return splitHands(notes);
  const mean = (track: number): number => {
    const own = notes.filter((n) => n.track === track);
    return own.reduce((sum, n) => sum + n.midi, 0) / own.length;
  };
  const upper = mean(tracks[0]!) >= mean(tracks[1]!) ? tracks[0] : tracks[1];
  return notes.map((n) => (n.track === upper ? 1 : 2));
}

/** Measures from the metre map. Where the music begins late in the first measure, that measure is a pickup. */
function frame(
  times: readonly { at: Ticks; time: TimeSignature }[],
  keys: readonly { at: Ticks; key: Key }[],
  firstOnset: Ticks,
  end: Ticks,
): { measures: Measure[]; shift: Ticks } {
  const timeAt = (tick: Ticks): TimeSignature =>
    times.filter((t) => t.at <= tick).at(-1)?.time ?? times[0]?.time ?? { beats: 4, beatType: 4 };
  const keyAt = (tick: Ticks): Key => keys.filter((k) => k.at <= tick).at(-1)?.key ?? keys[0]!.key;
  const first = measureLength(timeAt(0));
  const silent = Math.floor(firstOnset / first) * first; // whole measures of silence before the music
  const late = firstOnset - silent;
  const beginsAt =
    late >= first / 2 ? Math.floor(late / (TICKS_PER_QUARTER / 2)) * (TICKS_PER_QUARTER / 2) : 0;
  const shift = silent + beginsAt;
  const measures: Measure[] = [];
  for (let at = silent; at < end;) {
    if (measures.length >= MOST_MEASURES)
      throw new InputError(
        `The MIDI file lasts for more than ${MOST_MEASURES} measures: it is damaged, or no piece.`,
      );
    const time = timeAt(at);
    const full = measureLength(time);
    // A change of metre inside a measure cuts it short.
    const change = times.find((t) => t.at > at && t.at < at + full)?.at;
    const skipped = at === silent ? beginsAt : 0;
    const length = (change ?? at + full) - at - skipped;
    const index = measures.length;
    measures.push({
      index,
      number: String(beginsAt > 0 ? index : index + 1),
      start: at + skipped - shift,
      length,
      time,
      key: keyAt(at),
      beginsAt: skipped,
    });
    at += length + skipped;
  }
  return { measures, shift };
}

/** Downs and ups in turn, within the music; a down that comes with an up is a change. */
function cleanPedals(pedals: readonly PedalMark[], shift: Ticks, end: Ticks): PedalMark[] {
  const result: PedalMark[] = [];
  let down = false;
  for (const mark of [...pedals].sort((a, b) => a.onset - b.onset)) {
    const onset = Math.min(end, Math.max(0, mark.onset - shift));
    if ((mark.type === 'start') === down) continue;
    down = !down;
    const last = result.at(-1);
    if (mark.type === 'start' && last?.type === 'stop' && onset - last.onset < TICKS_PER_QUARTER / 4)
      result[result.length - 1] = { onset: last.onset, type: 'change' };
    else result.push({ onset, type: mark.type });
  }
  return down ? [...result, { onset: end, type: 'stop' }] : result;
}
