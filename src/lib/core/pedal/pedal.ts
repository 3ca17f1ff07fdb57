/**
 * Pedal down and up, in several styles. In each: up where both hands rest, at staccato and where a phrase ends; never
 * across a change of chord. Every mark says why it is there.
 */
import type { ChordSpan } from '../analysis/harmony';
import { beatLength } from '../score/metre';
import { pitchName } from '../theory/pitch';
import { byOnset, measureAt, type SoundingNote } from '../score/query';
import type { Measure, PedalMark } from '../score/score';
import type { Ticks } from '../score/ticks';
import { chordSymbol } from '../theory/chord';

export const PEDAL_STYLES = ['none', 'harmony', 'lifted', 'low-to-chord', 'long'] as const;
export type PedalStyle = (typeof PEDAL_STYLES)[number];

/** As a teacher says them; `source` keeps the marks that a piece came with. */
export const PEDAL_STYLE_NAMES: Readonly<Record<PedalStyle | 'source', string>> = {
  none: 'no pedal',
  harmony: 'with each harmony',
  lifted: 'with each harmony, lifted where it would blur',
  'low-to-chord': 'from the low note to the chord',
  long: 'on long notes only',
  source: 'as in the source',
};

interface PedalSettings {
  readonly measures: readonly Measure[];
  readonly chords: readonly ChordSpan[];
  /** Ticks at which a phrase begins. */
  readonly phraseStarts: ReadonlySet<Ticks>;
  /** The style that holds in a measure, by its index. */
  readonly styleIn: (measure: number) => PedalStyle;
}

export interface ReasonedMark extends PedalMark {
  /** "change: new chord D7" */
  readonly because: string;
}

/** Everything that decides about the pedal at one onset. */
interface Moment {
  readonly onset: Ticks;
  readonly struck: readonly SoundingNote[];
  /** What the left hand strikes; where there is no left hand, the lowest note. */
  readonly bass: readonly SoundingNote[];
  readonly chord: ChordSpan | undefined;
  /** In either hand: a pedal would hold on what is to be short. */
  readonly isStaccato: boolean;
  readonly beginsPhrase: boolean;
  readonly beat: Ticks;
}

/** What a style wants of the pedal at a moment: press anew, stay, or lift; with the reason. */
type Wish = { readonly do: 'press' | 'stay' | 'lift'; readonly because: string };

/** The pedal between two moments. */
interface PedalState {
  readonly down: boolean;
  readonly chord: ChordSpan | undefined;
  /** Notes struck since the pedal went down. */
  readonly under: readonly SoundingNote[];
}

const UP: PedalState = { down: false, chord: undefined, under: [] };

/** Marks for the notes of both hands. */
export function pedalMarks(notes: readonly SoundingNote[], settings: PedalSettings): ReasonedMark[] {
  const moments = momentsOf(notes, settings);
  const marks: ReasonedMark[] = [];
  let state = UP;
  let style: PedalStyle = 'none';
  let soundsUntil = 0;
  const lift = (onset: Ticks, because: string): void => {
    if (state.down) marks.push({ onset, type: 'stop', because });
    state = UP;
  };
  for (const moment of moments) {
    const { onset, struck } = moment;
    if (soundsUntil < onset) lift(soundsUntil, 'up: both hands rest');
    const wanted = settings.styleIn(measureAt(settings.measures, onset).index);
    if (wanted !== style) lift(onset, 'up: pedal style changes');
    style = wanted;
    const wish = wishAt(style, moment, state);
    if (wish.do === 'lift') lift(onset, wish.because);
    else if (wish.do === 'press') {
      marks.push({ onset, type: state.down ? 'change' : 'start', because: wish.because });
      state = { down: true, chord: moment.chord, under: struck };
    } else if (state.down) state = { ...state, under: [...state.under, ...struck] };
    for (const n of struck) soundsUntil = Math.max(soundsUntil, n.onset + n.duration);
  }
  lift(soundsUntil, 'up: the end');
  return marks;
}

function momentsOf(
  notes: readonly SoundingNote[],
  { measures, chords, phraseStarts }: PedalSettings,
): Moment[] {
  const hasLeftHand = notes.some((n) => n.staff > 1);
  let chord = 0;
  return byOnset(notes).map(({ onset, notes: struck }) => {
    while (chord < chords.length && chords[chord]!.onset + chords[chord]!.duration <= onset) chord += 1;
    const span = chords[chord];
    const low = struck.reduce((a, b) => (b.midi < a.midi ? b : a));
    return {
      onset,
      struck,
      bass: hasLeftHand ? struck.filter((n) => n.staff > 1) : [low],
      chord: span && span.onset <= onset && span.chord ? span : undefined,
      isStaccato: struck.some((n) => n.articulations.some((a) => a.startsWith('staccat'))),
      beginsPhrase: phraseStarts.has(onset),
      beat: beatLength(measureAt(measures, onset).time),
    };
  });
}

const STAY: Wish = { do: 'stay', because: '' };

function wishAt(style: PedalStyle, moment: Moment, state: PedalState): Wish {
  if (style === 'none') return { do: 'lift', because: 'up: no pedal from here' };
  if (moment.isStaccato) return { do: 'lift', because: 'up: staccato' };
  switch (style) {
    case 'harmony':
      return byHarmony(moment, state);
    case 'lifted':
      return lifted(moment, state);
    case 'low-to-chord':
      return lowToChord(moment, state);
    case 'long':
      return onLongNotes(moment, state);
  }
}

/** Down just after the bass, up and down again with each new chord; up where a chord changes without a bass. */
function byHarmony({ chord, bass, beginsPhrase }: Moment, state: PedalState): Wish {
  const isNew = chord !== state.chord;
  if (!chord) return state.down ? { do: 'lift', because: 'up: no chord here' } : STAY;
  const symbol = chordSymbol(chord.chord!);
  if (bass.length === 0)
    return state.down && isNew ? { do: 'lift', because: `up: ${symbol} begins without a new bass` } : STAY;
  if (!state.down) return { do: 'press', because: `down: with the bass of ${symbol}` };
  if (isNew) return { do: 'press', because: `change: new chord ${symbol}` };
  if (beginsPhrase) return { do: 'press', because: 'change: a new phrase begins' };
  return STAY;
}

/** C4: below it neighbours blur. */
const LOW = 60;

/** The low note, already sounding, with which a new one would blur: a second away, both below middle C. */
export const lowNeighbour = (note: SoundingNote, under: readonly SoundingNote[]): SoundingNote | undefined =>
  note.midi >= LOW
    ? undefined
    : under.find((u) => u.midi < LOW && u.midi !== note.midi && Math.abs(u.midi - note.midi) <= 2);

/** As by harmony, and cleared wherever low neighbours or a bass that goes by step would sound into each other. */
function lifted(moment: Moment, state: PedalState): Wish {
  const wish = byHarmony(moment, state);
  if (wish.do !== 'stay' || !state.down) return wish;
  for (const note of moment.struck) {
    const other = lowNeighbour(note, state.under);
    if (other)
      return {
        do: 'press',
        because: `change: ${pitchName(other.pitch)} and ${pitchName(note.pitch)} would blur`,
      };
  }
  const [bass, before] = [lowest(moment.bass), lowest(state.under.filter((n) => n.staff > 1))];
  if (bass && before && bass.midi !== before.midi && Math.abs(bass.midi - before.midi) <= 2)
    return { do: 'press', because: 'change: the bass goes by step' };
  return wish;
}

const lowest = (notes: readonly SoundingNote[]): SoundingNote | undefined =>
  notes.length > 0 ? notes.reduce((a, b) => (b.midi < a.midi ? b : a)) : undefined;

/** An octave may be the low note too. */
const isLowNote = (bass: readonly SoundingNote[]): boolean =>
  bass.length === 1 || (bass.length === 2 && Math.abs(bass[0]!.midi - bass[1]!.midi) === 12);

/** Down with the low note, up as the chord above it is played. */
function lowToChord({ bass, chord }: Moment, state: PedalState): Wish {
  if (state.down && chord !== state.chord && bass.length === 0)
    return { do: 'lift', because: 'up: the chord changes' };
  if (bass.length === 0) return STAY;
  if (isLowNote(bass) && !(state.down && lowest(bass)!.midi > lowest(state.under)!.midi))
    return { do: 'press', because: `down: with the low ${pitchName(lowest(bass)!.pitch)}` };
  return { do: 'lift', because: 'up: with the chord' };
}

/** Share of a beat from which a note is long. */
const LONG = 1.5;

/** Down on notes of a beat and a half or more, up on moving ones. */
function onLongNotes({ struck, beat, chord }: Moment, state: PedalState): Wish {
  const isLong = struck.every((n) => n.duration >= LONG * beat);
  if (!isLong) return { do: 'lift', because: 'up: moving notes' };
  return {
    do: 'press',
    because: state.down && chord !== state.chord ? 'change: a new chord' : 'down: a long note',
  };
}
