/** A take in words that a child understands, and as the facts that are kept of it. */
import { capital } from '../capital';
import type { Heard } from '../lessons/heard';
import { fromFifths, pitchClass } from '../theory/fifths';
import { nameOfNote } from '../theory/noteNames';
import { toMidi, type Pitch } from '../theory/pitch';
import { proposedGrade } from './grade';
import type { ExtraNote, JudgedMeasure, JudgedNote, Take } from './judge';

/** What words about a take need to know of its music. */
export interface TakenMusic {
  /** The written pitch of a note, by its id. */
  readonly pitchOf: (id: string) => Pitch | undefined;
  /** "measure 6", by the index of a written measure. */
  readonly measureText: (measure: number) => string;
  /** Ids of the measures in the source, by index. */
  readonly ids: readonly string[];
  /** Their numbers as they are printed. */
  readonly numbers: readonly string[];
  /** The key of a measure, on the line of fifths. */
  readonly fifthsAt: (measure: number) => number;
}

/** Measures that are named one by one; more are counted. */
const MOST_NAMED = 2;
const MOST_SLIPS = 3;

/** The name of a key that was struck, as it would be written in a key signature. */
function keyName(midi: number, fifths: number): string {
  // Of the spellings the one nearest to the middle of the scale: F, C, G, D, A, E, B and what lies around them.
  const near = Array.from({ length: 15 }, (_, i) => fifths + 2 + (i - 7)).filter(
    (f) => pitchClass(f) === midi % 12,
  );
  const best = near.reduce((a, b) => (Math.abs(b - fifths - 2) < Math.abs(a - fifths - 2) ? b : a));
  const { step, alter } = fromFifths(best);
  return nameOfNote(step, alter);
}

const nameOf = ({ step, alter }: Pitch): string => nameOfNote(step, alter);

/** Whether a key belongs to the scale of a key signature. */
const isInScale = (midi: number, fifths: number): boolean =>
  Array.from({ length: 7 }, (_, i) => pitchClass(fifths - 1 + i)).includes(midi % 12);

/** What was struck for a written note: by its name in the scale, else by the letter of the note. F, not F sharp; D, not E flat. */
function playedName(written: Pitch, played: number, fifths: number): string {
  const by = played - toMidi(written);
  const alter = written.alter + by;
  return Math.abs(by) === 1 && Math.abs(alter) <= 1 && !isInScale(played, fifths)
    ? nameOfNote(written.step, alter)
    : keyName(played, fifths);
}

function slipText({ note, verdict, played }: JudgedNote, music: TakenMusic): string {
  const written = music.pitchOf(note.id);
  const name = written ? nameOf(written) : keyName(note.midi, music.fifthsAt(note.measure));
  if (verdict === 'missed' || played === undefined) return `${name} is missing`;
  if ((played - note.midi) % 12 === 0)
    return `${name}, not an octave ${played > note.midi ? 'higher' : 'lower'}`;
  const other = written
    ? playedName(written, played, music.fifthsAt(note.measure))
    : keyName(played, music.fifthsAt(note.measure));
  return `${name}, not ${other}`;
}

const extraText = ({ midi, measure }: ExtraNote, { fifthsAt }: TakenMusic): string =>
  `an extra ${keyName(midi, fifthsAt(measure))}`;

/** What was not right in a measure, each said once. */
export const slipsOf = ({ notes, extra }: JudgedMeasure, music: TakenMusic): readonly string[] => [
  ...new Set([
    ...notes.filter((n) => n.verdict === 'other' || n.verdict === 'missed').map((n) => slipText(n, music)),
    ...extra.map((e) => extraText(e, music)),
  ]),
];

/** A take in a sentence or three. `tempoText`: the tempo that was reached, where one was: "72". */
export function sayTake(take: Take, music: TakenMusic, tempoText: string | undefined): string {
  if (take.played.length === 0) return 'Nothing was heard yet.';
  const slips = take.measures
    .map((m) => ({ measure: m.measure, texts: slipsOf(m, music) }))
    .filter(({ texts }) => texts.length > 0);
  const alone = take.handAlone ? `The ${take.handAlone} hand alone. ` : '';
  const at = tempoText ? ` at ${tempoText}` : '';
  const stops = take.measures.filter((m) => m.stood > 0).map((m) => music.measureText(m.measure));
  const stopped = stops.length > 0 ? ` You stopped in ${listed(stops.slice(0, MOST_NAMED))}.` : '';
  if (slips.length === 0) return `${alone}Everything was right${at}.${stopped}`;
  const named = [...slips]
    .sort((a, b) => b.texts.length - a.texts.length || a.measure - b.measure)
    .slice(0, MOST_NAMED)
    .sort((a, b) => a.measure - b.measure)
    .map(
      ({ measure, texts }) =>
        `${capital(music.measureText(measure))}: ${texts.slice(0, MOST_SLIPS).join('; ')}${texts.length > MOST_SLIPS ? '; and more' : ''}.`,
    )
    .join(' ');
  const others = slips.length - Math.min(MOST_NAMED, slips.length);
  const rest =
    others > 0
      ? ` ${others === 1 ? 'One more measure needs' : `${others} more measures need`} a look${at ? `; played${at}` : ''}.`
      : ` Everything else was right${at}.`;
  return `${alone}${named}${rest}${stopped}`;
}

const listed = (texts: readonly string[]): string => texts.join(' and ');

/** The facts of a take that are kept with an event; undefined where nothing was played. `tempo`: quarter notes per minute asked for. */
export function heardOf(
  take: Take,
  music: TakenMusic,
  tempo: number,
  from: Heard['from'],
): Heard | undefined {
  const proposed = proposedGrade(take, tempo);
  if (!proposed) return undefined;
  return {
    grade: proposed.grade,
    right: take.right,
    tempo: take.tempo === undefined ? null : Math.round(take.tempo),
    stops: take.stops,
    from,
    measures: take.measures.map((m) => ({
      id: music.ids[m.measure]!,
      number: music.numbers[m.measure]!,
      right: m.right,
      slips: slipsOf(m, music).slice(0, 40),
    })),
  };
}
