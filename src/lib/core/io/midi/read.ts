/**
 * Standard MIDI files (type 0 and 1) into a Score: tempo and metre from their maps, times onto a grid, a pickup found,
 * hands from the tracks or, where they do not say, by register and motion, pitches spelled by the key.
 */
import { keyFromProfile } from '../../analysis/keyProfile';
import { notate } from '../../score/notate';
import { byMeasure, measureAt } from '../../score/query';
import { speaksOfTempo } from '../../score/tempoWords';
import { familyOf, isKeyboard } from '../../players/instruments';
import { plural } from '../../plural';
import type { Mark, Measure, Note, Part, PedalMark, TempoMark } from '../../score/score';
import { TICKS_PER_QUARTER, type Ticks } from '../../score/ticks';
import { spellMidi } from '../../theory/fifths';
import { keyName, spellInKey, type Key } from '../../theory/key';
import type { ReadResult } from '../readResult';
import { tempoLine } from '../private/tempoLine';
import { beatPosition, trackBeats } from '../private/midi/beats';
import { withHeardGroups } from '../private/groups';
import { beginsGroup, drumAccents, drumsSwing, drumStyle, type Struck } from '../private/midi/drums';
import { settleEnds } from '../private/midi/ends';
import { readMidiEvents, secondsAt, type MidiFile, type Player } from './events';
import { measuresFor } from '../private/midi/measures';
import { quantise } from '../private/midi/quantise';
import { splitHands } from '../../players/splitHands';
import { composerOf, rightsOf, titleOf } from '../private/midi/titles';

interface Played {
  readonly onset: Ticks;
  readonly duration: Ticks;
  readonly midi: number;
  readonly player: number;
}

/** More players than these are a band, not two hands. */
const TWO_HANDS = 2;

/** Reads the bytes of a MIDI file. Throws InputError when it is none, or holds no notes. */
export function readMidi(bytes: Uint8Array): ReadResult {
  const file = readMidiEvents(bytes);
  const warnings: string[] = [];
  const { toTicks, tempos } = clockOf(file, warnings);
  const drums = file.drums.map(({ at, key }) => ({ onset: toTicks(at), key }));
  const swings = drumsSwing(drums);

  const onGrid = quantise(
    file.notes.map(({ at, end, midi, player }): Played => {
      const onset = toTicks(at);
      return { onset, duration: Math.max(1, toTicks(end) - onset), midi, player };
    }),
  ).sort((a, b) => a.onset - b.onset || a.midi - b.midi);
  const even = swings ? straightened(onGrid) : onGrid;
  const ensemble = ensembleOf(even, file);
  const notes = ensemble.flatMap(({ notes, staves }, part) =>
    settleEnds(notes.map((n, i) => ({ ...n, staff: staves[i]!, part }))),
  );
  notes.sort((a, b) => a.onset - b.onset || a.midi - b.midi);

  const weights = new Array<number>(12).fill(0);
  for (const note of notes) weights[note.midi % 12]! += note.duration;
  const keys = file.keys.map(({ at, key }) => ({ at: toTicks(at), key }));
  const { measures: plain, shift } = measuresFor(
    notes,
    {
      times: file.times.map(({ at, time }) => ({ at: toTicks(at), time })),
      keys: keys.length > 0 ? keys : [{ at: 0, key: keyFromProfile(weights) }],
    },
    drumAccents(drums),
  );
  const measures = groupedBy(drums, plain, shift);
  const end = measures.at(-1)!.start + measures.at(-1)!.length;
  const written = notes.map((note, i): Note & { part: number } => ({
    id: `n${i}`,
    part: note.part,
    onset: note.onset - shift,
    duration: Math.min(note.duration, end - (note.onset - shift)),
    pitch: spelled(note.midi, measureAt(measures, note.onset - shift).key),
    staff: note.staff,
    voice: note.staff === 1 ? 1 : 5,
  }));
  const time = measures.at(-1)!.time;
  const line = tempoLine(tempos, { measures, shift, end });
  const style = drumStyle(drums, time, measures[0]!.start + shift - measures[0]!.beginsAt);
  if (file.times.length === 0)
    warnings.push(
      `The file has no time signature; its notes suggest ${measures[0]!.time.beats}/${measures[0]!.time.beatType}.`,
    );
  if (file.keys.length === 0)
    warnings.push(`The file has no key; its notes suggest ${keyName(measures[0]!.key)}.`);
  if (file.drums.length > 0)
    warnings.push(
      `${plural(file.drums.length, 'drum stroke')} left out.${style ? ` They play ${DRUM_STYLES[style].says}.` : ''}`,
    );
  const above = [
    ...(style ? [wordsAt(0, DRUM_STYLES[style].word)] : []),
    ...line.words.map(({ onset, text }) => wordsAt(onset, text)),
    ...file.words
      .filter((w) => w.kind !== 'copyright' && speaksOfTempo(w.text))
      .map((w) => wordsAt(Math.max(0, toTicks(w.at) - shift), w.text))
      .filter((m) => m.onset < end),
  ].sort((a, b) => a.onset - b.onset);
  return {
    score: {
      title: titleOf(file),
      composer: composerOf(file),
      ...rightsOf(file),
      tempo: line.tempo,
      ...(line.tempoChanges.length > 0 ? { tempoChanges: line.tempoChanges } : {}),
      measures,
      parts: ensemble.map(({ name, staves, program, loudness }, p) =>
        partOf(
          {
            id: `P${p + 1}`,
            name,
            staves: staves.includes(2) || ensemble.length === 1 ? 2 : 1,
            ...(program === undefined ? {} : { instrument: program }),
            ...(ensemble.length > 1 ? { loudness } : {}),
            ...(p === 0 && above.length > 0 ? { marks: above } : {}),
          },
          written.filter((n) => n.part === p),
          measures,
        ),
      ),
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

const DRUM_STYLES = {
  swing: { word: 'Swing', says: 'swing: eighths are written straight' },
  waltz: { word: 'Waltz', says: 'a waltz' },
  march: { word: 'March', says: 'a march' },
} as const;

const wordsAt = (onset: Ticks, text: string): Mark => ({ kind: 'words', onset, staff: 1, above: true, text });

function partOf(
  part: Omit<Part, 'notes'>,
  own: readonly (Note & { part: number })[],
  measures: readonly Measure[],
): Part {
  return {
    ...part,
    notes: notate(
      measures,
      own.map(({ part: _part, ...note }) => note),
    ).sort((a, b) => a.onset - b.onset || a.staff - b.staff),
  };
}

/** Measures of five, seven or eight pulses with the groups that the drums give them, as beams do in a score. */
function groupedBy(drums: readonly Struck[], measures: readonly Measure[], shift: Ticks): Measure[] {
  const strokes = drums.filter(beginsGroup).map(({ onset }) => ({ onset: onset - shift }));
  const within = byMeasure(
    measures,
    strokes.filter(({ onset }) => onset >= 0),
  );
  return withHeardGroups(
    measures,
    within.map((own, i) => own.map(({ onset }) => ({ at: onset - measures[i]!.start, begins: true }))),
  );
}

/** A part of the score to be, with the staff of each of its notes. */
interface Ensemble {
  readonly name: string;
  readonly program: number | undefined;
  readonly loudness: number;
  readonly notes: readonly Played[];
  readonly staves: readonly (1 | 2)[];
}

/** The players of a file as parts: one or two that are a pianist's hands as one part of two staves, one with a piano as two, more as a band. */
function ensembleOf(notes: readonly Played[], { players }: MidiFile): Ensemble[] {
  const numbers = [...new Set(notes.map((n) => n.player))].sort((a, b) => a - b);
  const partFor = (number: number, staves?: readonly (1 | 2)[]): Ensemble => {
    const { name, program, loudness } = players[number]!;
    const own = notes.filter((n) => n.player === number);
    return {
      name: name || (program === undefined ? '' : (familyOf(program)?.name ?? '')),
      program,
      loudness,
      notes: own,
      staves: staves ?? own.map(() => 1 as const),
    };
  };
  if (numbers.length > TWO_HANDS) return numbers.map((n) => partFor(n));
  const [first, second] = numbers;
  const piano = second === undefined ? undefined : pianoAmong(first!, second, players);
  if (piano !== undefined) {
    const own = notes.filter((n) => n.player === piano);
    return numbers.map((n) => partFor(n, n === piano ? splitHands(own) : undefined));
  }
  return [{ name: 'Piano', program: undefined, loudness: 1, notes, staves: stavesOf(notes) }];
}

/** Of two players the one at the piano, where the other plays something that no pianist's hand does. */
function pianoAmong(a: number, b: number, players: readonly Player[]): number | undefined {
  const [one, two] = [players[a]!.program, players[b]!.program];
  if (one === undefined || two === undefined || isKeyboard(one) === isKeyboard(two)) return undefined;
  return isKeyboard(one) ? a : b;
}

/** Swung eighths written even, as players read them: what comes on the last third of a beat that has nothing on its second comes on the half. */
function straightened(notes: readonly Played[]): Played[] {
  const third = TICKS_PER_QUARTER / 3;
  const [late, early, half] = [2 * third, third, TICKS_PER_QUARTER / 2];
  const triplets = new Set(
    notes
      .filter((n) => n.onset % TICKS_PER_QUARTER === early)
      .map((n) => Math.floor(n.onset / TICKS_PER_QUARTER)),
  );
  const moved = (tick: Ticks): Ticks =>
    tick % TICKS_PER_QUARTER === late && !triplets.has(Math.floor(tick / TICKS_PER_QUARTER))
      ? tick - late + half
      : tick;
  return notes.map((n) => {
    const onset = moved(n.onset);
    return { ...n, onset, duration: Math.max(1, moved(n.onset + n.duration) - onset) };
  });
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
    `The recording doesn’t follow its file’s beats. Key Path found the beat at about ${tempo} a minute. Check the rhythm.`,
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

/** Two players are two hands, the higher one the right; otherwise register and motion decide. */
function stavesOf(notes: readonly Played[]): (1 | 2)[] {
  const players = [...new Set(notes.map((n) => n.player))];
  if (players.length !== 2) return splitHands(notes);
  const mean = (player: number): number => {
    const own = notes.filter((n) => n.player === player);
    return own.reduce((sum, n) => sum + n.midi, 0) / own.length;
  };
  const upper = mean(players[0]!) >= mean(players[1]!) ? players[0] : players[1];
  return notes.map((n) => (n.player === upper ? 1 : 2));
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
