/**
 * Standard MIDI files (type 0 and 1) into a Score: tempo and metre from their maps, times onto a grid, a pickup found,
 * hands from the tracks or, where they do not say, by register and motion, pitches spelled by the key.
 */
import { keyFromProfile } from '../../analysis/keyProfile';
import { notate } from '../../score/notate';
import { measureAt } from '../../score/query';
import type { Measure, Note, Part, PedalMark, TempoMark } from '../../score/score';
import { TICKS_PER_QUARTER, type Ticks } from '../../score/ticks';
import { spellMidi } from '../../theory/fifths';
import { spellInKey, type Key } from '../../theory/key';
import type { ReadResult } from '../readResult';
import { beatPosition, trackBeats } from './beats';
import { settleEnds } from './ends';
import { readMidiEvents, secondsAt, type MidiFile } from './events';
import { measuresFor } from './measures';
import { quantise } from './quantise';
import { splitHands } from './splitHands';

interface Played {
  readonly onset: Ticks;
  readonly duration: Ticks;
  readonly midi: number;
  readonly track: number;
}

/** More tracks with notes than these are players of their own, not two hands. */
const TWO_HANDS = 2;

/** Reads the bytes of a MIDI file. Throws InputError when it is none, or holds no notes. */
export function readMidi(bytes: Uint8Array): ReadResult {
  const file = readMidiEvents(bytes);
  const warnings: string[] = [];
  if (file.drums > 0) warnings.push(`${file.drums} notes of percussion were left out.`);
  const { toTicks, tempos } = clockOf(file, warnings);

  const onGrid = quantise(
    file.notes.map(({ at, end, midi, track }): Played => {
      const onset = toTicks(at);
      return { onset, duration: Math.max(1, toTicks(end) - onset), midi, track };
    }),
  ).sort((a, b) => a.onset - b.onset || a.midi - b.midi);
  const tracks = [...new Set(onGrid.map((n) => n.track))].sort((a, b) => a - b);
  const staves = tracks.length > TWO_HANDS ? onGrid.map(() => 1 as const) : stavesOf(onGrid);
  const notes = settleEnds(onGrid.map((n, i) => ({ ...n, staff: staves[i]! })));

  const weights = new Array<number>(12).fill(0);
  for (const note of notes) weights[note.midi % 12]! += note.duration;
  const keys = file.keys.map(({ at, key }) => ({ at: toTicks(at), key }));
  const { measures, shift } = measuresFor(notes, {
    times: file.times.map(({ at, time }) => ({ at: toTicks(at), time })),
    keys: keys.length > 0 ? keys : [{ at: 0, key: keyFromProfile(weights) }],
  });
  const end = measures.at(-1)!.start + measures.at(-1)!.length;
  const written = notes.map((note, i): Note & { track: number } => ({
    id: `n${i}`,
    track: note.track,
    onset: note.onset - shift,
    duration: Math.min(note.duration, end - (note.onset - shift)),
    pitch: spelled(note.midi, measureAt(measures, note.onset - shift).key),
    staff: note.staff,
    voice: note.staff === 1 ? 1 : 5,
  }));
  const changes = tempoChanges(tempos, shift, end);
  return {
    score: {
      title: titleOf(file, tracks),
      composer: '',
      tempo: tempoAtStart(tempos, shift),
      ...(changes.length > 0 ? { tempoChanges: changes } : {}),
      measures,
      parts:
        tracks.length > TWO_HANDS
          ? tracks.map((track, p) =>
              partOf(`P${p + 1}`, file.names[track] ?? '', 1, written, measures, track),
            )
          : [partOf('P1', 'Piano', 2, written, measures)],
      chordSymbols: [],
      pedals: cleanPedals(
        file.pedals.map(({ at, down }) => ({ onset: toTicks(at), type: down ? 'start' : 'stop' })),
        shift,
        end,
      ),
    },
    warnings,
  };
}

const spelled = (midi: number, key: Key): Note['pitch'] =>
  spellMidi(midi, spellInKey(midi % 12, key, 'sharp'));

function partOf(
  id: string,
  name: string,
  staves: number,
  notes: readonly (Note & { track: number })[],
  measures: readonly Measure[],
  track?: number,
): Part {
  const own = notes.filter((n) => track === undefined || n.track === track);
  return {
    id,
    name,
    staves,
    notes: notate(
      measures,
      own.map(({ track: _track, ...note }) => note),
    ).sort((a, b) => a.onset - b.onset || a.staff - b.staff),
  };
}

/** Seconds: longer playing is no piece. */
const LONGEST_PLAYING = 3600;

interface Clock {
  readonly toTicks: (fileTick: number) => Ticks;
  readonly tempos: readonly TempoMark[];
}

/** Share of onsets on the beats and their usual parts above which a file was made with its beats in mind. */
const PLAYED_TO_A_CLICK = 0.7;
/** Playing of fewer onsets shows no beat to follow. */
const FEWEST_ONSETS = 12;

/** The file's own beats, or those found in playing that does not keep to them. */
function clockOf(file: MidiFile, warnings: string[]): Clock {
  const toTicks = (tick: number): Ticks => Math.round((tick * TICKS_PER_QUARTER) / file.division);
  const own: Clock = {
    toTicks,
    tempos: file.tempos.map(({ at, tempo }) => ({ onset: toTicks(at), tempo: rounded(tempo) })),
  };
  const onsets = [...new Set(file.notes.map((n) => n.at))];
  const onBeat = onsets.filter((at) => isUsualPlace(at / file.division)).length / onsets.length;
  if (file.tempos.length > 1 || onsets.length < FEWEST_ONSETS || onBeat >= PLAYED_TO_A_CLICK) return own;
  const seconds = secondsAt(file);
  const together = new Map<number, number>();
  for (const { at } of file.notes) together.set(at, (together.get(at) ?? 0) + 1);
  const strokes = onsets.map((at) => ({ at: seconds(at), weight: 1 + 0.3 * (together.get(at)! - 1) }));
  if (strokes.at(-1)!.at - strokes[0]!.at > LONGEST_PLAYING) return own;
  const beats = trackBeats(strokes);
  const mean = (beats.at(-1)! - beats[0]!) / (beats.length - 1);
  const tempo = Math.round(60 / mean);
  warnings.push(
    `The playing does not keep to the beats of its file: the beat was found in it, at about ${tempo} a minute. Check the rhythm.`,
  );
  return {
    toTicks: (tick) => Math.max(0, Math.round(beatPosition(beats, seconds(tick)) * TICKS_PER_QUARTER)),
    tempos: [{ onset: 0, tempo }],
  };
}

/** Within a sixteenth of a beat of a half, a third or a quarter of it; more than half of all places are not. */
function isUsualPlace(quarters: number): boolean {
  const within = quarters - Math.floor(quarters);
  return [0, 1 / 4, 1 / 3, 1 / 2, 2 / 3, 3 / 4, 1].some((place) => Math.abs(within - place) < 0.035);
}

const rounded = (tempo: number): number => Math.round(tempo * 100) / 100;

/** The tempo that holds when the music begins; whole, where it is all but whole. */
function tempoAtStart(tempos: readonly TempoMark[], shift: Ticks): number {
  const tempo = (tempos.filter((t) => t.onset <= shift).at(-1) ?? tempos[0])?.tempo ?? 0;
  return Math.abs(tempo - Math.round(tempo)) < 0.02 ? Math.round(tempo) : tempo;
}

/** Later tempos that can be told from the one before. */
function tempoChanges(tempos: readonly TempoMark[], shift: Ticks, end: Ticks): TempoMark[] {
  let before = tempoAtStart(tempos, shift);
  return tempos.flatMap(({ onset, tempo }) => {
    if (onset <= shift || onset - shift >= end || Math.abs(tempo - before) < 0.5) return [];
    before = tempo;
    return [{ onset: onset - shift, tempo }];
  });
}

/** Names that programs give to tracks, which are no titles. */
const NO_TITLE =
  /^(untitled|track|staff|instrument|piano|grand|acoustic|keyboard|right|left|upper|lower|melody|vocals?|voice|lead|bass|control|conductor|tempo|midi|new)\b/i;

/** The name of a track that only conducts, or of the only one. */
function titleOf({ names }: MidiFile, tracks: readonly number[]): string {
  const title = names.find(
    (name, i) => name && !(tracks.includes(i) && tracks.length > 1) && !NO_TITLE.test(name),
  );
  return title ?? 'Untitled';
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
