/**
 * From a source in its key to the notes of both hands: the melody is found, reduced and folded; the left hand and the filling
 * are built under it, or taken over from the source and thinned; the hands are kept apart; every change says why.
 */
import type { Form } from '../analysis/form';
import type { ChordSpan } from '../analysis/harmony';
import {
  accompanimentOf,
  findMelody,
  MELODY_LINE_NAMES,
  type Melody,
  type MelodyLine,
} from '../analysis/melody';
import type { Hand } from '../fingering/events';
import { notate } from '../score/notate';
import { keyboardPart, measureAt, soundingNotes, type SoundingNote } from '../score/query';
import type { ChordSymbol, Mark, Note, Score } from '../score/score';
import type { Ticks } from '../score/ticks';
import { asWritten } from './asWritten';
import { fillUnder } from './filling';
import { foldMelody, MELODY_FLOOR, type Fold } from './foldMelody';
import { Ceilings, leftHand } from './leftHand';
import type { LevelContract } from './levels';
import { ownLeft } from './ownLeft';
import { ownInner, ownUpper } from './ownRight';
import type { ArrangeReason, Reason } from './reason';
import { reduceMelody, type MelodyChange } from './reduceMelody';
import { shareMelody } from './shareMelody';
import { singAlong, usualRhythm, wordsAbove, type ChordRhythm } from './singAlong';
import { NO_BUSIER, rightThickness, strokesPerBeat, THIN, usualThickness } from './sourceHands';
import { stretchesOf, type MeasureStretches } from './stretches';
import { onsetsPerBeat, usualTextures, type TextureId } from './textures';
import { withSlurs, wordsOf, writtenMelody } from './writtenMelody';

export interface ArrangeSettings {
  readonly contract: LevelContract;
  readonly style: 'solo' | 'sing-along';
  /** What is wished for in a measure; null leaves it to the level. */
  readonly textureIn: (measure: number) => TextureId | null;
  /** The line that has the melody, where the teacher says so. */
  readonly melodyLineIn: (measure: number) => MelodyLine | undefined;
  /** Rhythm of the chords of a sing-along in a measure; null leaves it to the level. */
  readonly rhythmIn: (measure: number) => ChordRhythm | null;
  /** Semitones per hand. */
  readonly reach: Readonly<Record<Hand, number>>;
  readonly keyboard: { readonly low: number; readonly high: number };
  readonly form: Form;
  readonly swings: boolean;
  /** 0 as the level has it; 1 without filling; more: with so many of the busiest textures passed over. */
  readonly reduction?: number;
}

/** Steps by which an arrangement can be reduced. */
export const MOST_REDUCED = 3;

export interface Arranged {
  /** Written notes of two staves. */
  readonly notes: readonly Note[];
  readonly marks: readonly Mark[];
  /** Chord names where the hands play them. */
  readonly chordSymbols: readonly ChordSymbol[];
  readonly reasons: readonly Reason[];
  readonly melody: Melody;
  readonly melodyChanges: readonly MelodyChange[];
  readonly folds: readonly Fold[];
  readonly stretches: readonly MeasureStretches[];
  /** Everything besides the melody that the source has for two hands. */
  readonly accompaniment: readonly SoundingNote[];
  /** No melody is played: the chords carry a singer. */
  readonly isSingAlong: boolean;
  /** Measures in which the left hand plays what the source has. */
  readonly ownMeasures: ReadonlySet<number>;
}

/** Arranges a score that is in its key already. `chords` are its chords, in order of time. */
export function arrange(score: Score, chords: readonly ChordSpan[], settings: ArrangeSettings): Arranged {
  const { contract, form } = settings;
  const measures = score.measures;
  const phraseMeasures = new Set(form.phrases.map((p) => p.from));
  const melody = findMelody(score, settings.melodyLineIn, phraseMeasures);
  const accompaniment = accompanimentOf(score, melody.notes);
  const stretches = stretchesOf(measures, chords, contract);
  const isSingAlong = settings.style === 'sing-along' || melody.notes.length === 0;
  const base = { melody, accompaniment, stretches, isSingAlong };
  if (isSingAlong) return { ...base, ...singAlongVersion(score, stretches, settings) };
  const wantsTexture = measures.some((m) => {
    const wanted = settings.textureIn(m.index);
    return wanted !== null && wanted !== 'own';
  });
  const isKeyboardMusic = hasLeftHand({ accompaniment, melody }) && !melody.lines.includes('voice');
  if (contract.accompaniment === 'kept' && isKeyboardMusic && !wantsTexture)
    return { ...base, ...writtenVersion(score, chords, settings) };
  return { ...base, ...soloVersion(score, chords, melody, accompaniment, stretches, settings) };
}

/** Double stops on one staff are not yet a piece for two hands. */
export const hasLeftHand = ({ accompaniment, melody }: Pick<Arranged, 'accompaniment' | 'melody'>): boolean =>
  accompaniment.some((n) => n.staff !== 1) || melody.lines.includes('lower');

type ArrangedHands = Omit<Arranged, 'melody' | 'accompaniment' | 'stretches' | 'isSingAlong'>;

const toReasons = (about: Reason['about'], reasons: readonly ArrangeReason[]): Reason[] =>
  reasons.map(({ reason, ...rest }) => ({ ...rest, about, text: reason }));

/** Chord names at the places where the hands have them. */
const symbolsOf = (stretches: readonly MeasureStretches[], chords: readonly ChordSpan[]): ChordSymbol[] => {
  const played = stretches.flatMap((m) => m.stretches.map(({ onset, chord }) => ({ onset, chord })));
  // A chord that goes on over a barline is named once.
  const starts = new Set(chords.map((c) => c.onset));
  return played.filter((s, i) => i === 0 || starts.has(s.onset) || played[i - 1]!.chord !== s.chord);
};

const sungMarks = (score: Score): Mark[] =>
  score.parts.flatMap((p) => p.marks ?? []).filter((m) => m.kind === 'lyrics');

function singAlongVersion(
  score: Score,
  stretches: readonly MeasureStretches[],
  settings: ArrangeSettings,
): ArrangedHands {
  const { contract, form } = settings;
  const freshStarts = new Set(form.sections.map((s) => s.from));
  const right = singAlong(score.measures, stretches, {
    contract,
    rhythmIn: (measure) => settings.rhythmIn(measure) ?? usualRhythm(contract.level),
    reach: settings.reach.right,
    keyboard: settings.keyboard,
    freshStarts,
  });
  const above = soundingNotes(right.notes);
  const bass: TextureId = contract.level < 3 ? 'held-root' : 'root-then-fifth';
  const left = leftHand(score.measures, stretches, above, {
    contract,
    texturesIn: (measure) => [settings.textureIn(measure.index) ?? bass, bass, 'held-root'],
    freshStarts,
    reach: settings.reach.left,
    keyboard: settings.keyboard,
  });
  const melody = score.parts.find((p) => p.role === 'melody') ?? score.parts[0];
  return {
    notes: notate(score.measures, [...right.notes, ...left.notes]),
    marks: [
      ...sungMarks(score),
      ...wordsAbove(
        melody?.notes ?? [],
        above.map((n) => n.onset),
        score.measures,
      ),
    ].sort((a, b) => a.onset - b.onset),
    chordSymbols: symbolsOf(stretches, []),
    reasons: [...toReasons('right hand', right.reasons), ...toReasons('left hand', left.reasons)],
    melodyChanges: [],
    folds: [],
    ownMeasures: new Set(),
  };
}

function writtenVersion(
  score: Score,
  chords: readonly ChordSpan[],
  settings: ArrangeSettings,
): ArrangedHands {
  const part = keyboardPart(score);
  const { notes, reasons } = asWritten(part, {
    measures: score.measures,
    reach: settings.reach,
    keyboard: settings.keyboard,
  });
  return {
    notes,
    marks: part.marks ?? [],
    chordSymbols: chords.filter((c) => c.chord).map(({ onset, chord }) => ({ onset, chord })),
    reasons: toReasons('register', reasons),
    melodyChanges: [],
    folds: [],
    ownMeasures: new Set(score.measures.map((m) => m.index)),
  };
}

/** The melody in the right hand, under it the source's accompaniment or a texture. */
function soloVersion(
  score: Score,
  chords: readonly ChordSpan[],
  melody: Melody,
  accompaniment: readonly SoundingNote[],
  stretches: readonly MeasureStretches[],
  settings: ArrangeSettings,
): ArrangedHands {
  const { contract, form, keyboard, reach } = settings;
  const { measures } = score;
  const reasons: Reason[] = [];

  const { notes: reduced, changes } = reduceMelody(melody.notes, measures, contract);
  for (const c of changes)
    reasons.push({ measure: c.measure, about: 'melody', notes: [c.note], text: c.reason });
  const { notes: folded, folds } = foldMelody(reduced, {
    keyboard,
    floor: MELODY_FLOOR,
    starts: [
      ...form.phrases.map((p) => measures[p.from]!.start - (p.pickup ?? 0)),
      ...measures.filter((m, i) => i > 0 && melody.lines[i] !== melody.lines[i - 1]).map((m) => m.start),
    ],
  });
  reasons.push(...foldReasons(folds, score), ...melodyReasons(melody));
  const ornaments = contract.tuplets === 'any';
  const lower = accompaniment.filter((n) => n.staff !== 1);
  const hasOwn = lower.length > 0;
  const ownWanted = (measure: number): boolean => {
    const wanted = settings.textureIn(measure);
    return contract.accompaniment !== 'replaced' && (wanted === null || wanted === 'own');
  };
  // Where the left hand has the melody and its own accompaniment is kept, the hands stay as the source has them.
  const below = (onset: Ticks): boolean => {
    const { index } = measureAt(measures, onset);
    return melody.lines[index] === 'lower' && ownWanted(index);
  };
  const lowMelody = reduced.filter((n) => below(n.onset));
  const highMelody = folded.filter((n) => !below(n.onset));
  const upper = ownUpper(
    accompaniment.filter((n) => n.staff === 1 && below(n.onset)),
    { contract, reach: reach.right, measures },
  );
  const melodyNotes = writtenMelody(
    highMelody,
    wordsOf(melody.notes, reduced, score),
    score,
    ornaments,
    reasons,
    contract,
  );

  const freshStarts = new Set(form.sections.map((s) => s.from));
  const rightHand = [...highMelody, ...upper];
  const ceilings = new Ceilings(rightHand);
  const own =
    contract.accompaniment !== 'replaced' && lower.length + lowMelody.length > 0
      ? ownLeft([...lower, ...lowMelody], stretches, {
          contract,
          reach: reach.left,
          keyboard,
          measures,
          ceilings,
          melody: new Set(lowMelody.map((n) => n.id)),
          hasSymbols: chords.some((c) => c.from === 'symbol'),
        })
      : { notes: [], measures: new Set<number>(), reasons: [] };
  const ownMeasures = new Set(
    measures
      .map((m) => m.index)
      .filter((i) => ownWanted(i) && (own.measures.has(i) || below(measures[i]!.start))),
  );
  const inOwn = (onset: Ticks): boolean => ownMeasures.has(measureAt(measures, onset).index);
  const thickness = usualThickness(lower);
  const density = hasOwn ? strokesPerBeat(lower, score) : undefined;
  const left = leftHand(measures, stretches, rightHand, {
    contract,
    texturesIn: (measure) => {
      const usual = usualTextures(contract.level, measure.time, settings.swings);
      const wanted = settings.textureIn(measure.index);
      // A simplified left hand is never busier than the one it stands for.
      const notBusier =
        density === undefined
          ? usual
          : usual.filter((t) => onsetsPerBeat(t, contract.level, measure.time) <= density * NO_BUSIER);
      const left = notBusier.slice(Math.max(0, (settings.reduction ?? 0) - 1));
      const rest = left.length > 0 ? left : usual.slice(-1);
      return wanted === null || wanted === 'own' ? rest : [wanted, ...rest];
    },
    freshStarts,
    reach: reach.left,
    // A texture that was asked for is as full as the level has it.
    mostIn: (measure) => (hasOwn && (settings.textureIn(measure.index) ?? 'own') === 'own' ? thickness : 5),
    keyboard,
    except: ownMeasures,
  });
  const ownNotes = own.notes.filter((n) => inOwn(n.onset)).map((n): Note => ownNote(n, 2));
  reasons.push(
    ...toReasons('left hand', left.reasons),
    ...toReasons(
      'left hand',
      own.reasons.filter((r) => ownMeasures.has(r.measure)),
    ),
  );

  const shared = shareMelody(melodyNotes, [...left.notes, ...ownNotes], measures, contract);
  reasons.push(...toReasons('melody', shared.reasons));

  const lowerSounding = soundingNotes(shared.left);
  const under = new Floors(lowerSounding);
  const right = soundingNotes(shared.melody);
  const inner =
    contract.accompaniment === 'replaced'
      ? { notes: [], reasons: [] }
      : ownInner(
          accompaniment.filter((n) => n.staff === 1 && inOwn(n.onset) && !below(n.onset)),
          right,
          { contract, reach: reach.right, measures, floor: (from, to) => under.over(from, to) },
        );
  const isPlain = (settings.reduction ?? 0) > 0;
  const filled = fillUnder(isPlain ? [] : right, lowerSounding, stretches, measures, {
    contract,
    reach: reach.right,
    sparing: hasOwn && rightThickness(score) < THIN,
    except: ownMeasures,
  });
  reasons.push(...toReasons('right hand', inner.reasons), ...toReasons('right hand', filled.reasons));

  const innerIds = new Set(filled.notes.map((n) => n.id));
  const notes = [
    ...shared.melody,
    ...upper.map((n) => ownNote(n, 1)),
    ...inner.notes.filter((n) => !innerIds.has(n.id)),
    ...filled.notes,
    ...shared.left,
  ];
  return {
    notes: notate(measures, contract.level >= 3 ? withSlurs(notes, score) : notes),
    marks: [...sungMarks(score), ...(contract.level >= 3 ? dynamicsOf(score) : [])].sort(
      (a, b) => a.onset - b.onset,
    ),
    chordSymbols: symbolsOf(stretches, chords),
    reasons,
    melodyChanges: changes,
    folds,
    ownMeasures,
  };
}

const ownNote = (n: SoundingNote, staff: 1 | 2): Note => ({
  id: n.id,
  onset: n.onset,
  duration: n.duration,
  pitch: n.pitch,
  staff,
  voice: staff === 1 ? 1 : 5,
  ...(n.articulations.length ? { articulations: n.articulations } : {}),
});

/** Keys that the left hand leaves free: above its highest one. */
class Floors {
  private readonly ceilings: Ceilings;
  constructor(left: readonly SoundingNote[]) {
    // The same search, upside down.
    this.ceilings = new Ceilings(left.map((n) => ({ ...n, midi: -n.midi })));
  }
  over(from: Ticks, to: Ticks): number {
    const mirrored = this.ceilings.over(from, to);
    return mirrored === 127 ? 0 : -mirrored;
  }
}

const dynamicsOf = (score: Score): Mark[] =>
  score.parts.length === 0
    ? []
    : (keyboardPart(score).marks ?? []).filter((m) => m.kind === 'dynamic' || m.kind === 'hairpin');

function foldReasons(folds: readonly Fold[], score: Score): Reason[] {
  return folds.map(({ onset, octaves }, i): Reason => {
    const before = i === 0 ? 0 : folds[i - 1]!.octaves;
    const text =
      octaves === 0
        ? 'from here the melody is in its own octave again'
        : `from here the melody is ${Math.abs(octaves) === 1 ? 'an octave' : `${Math.abs(octaves)} octaves`} ${octaves > 0 ? 'higher' : 'lower'} than in the source, ${octaves > before ? 'to leave room for the left hand' : 'to lie on the keyboard and on the staff'}`;
    return { measure: measureAt(score.measures, onset).index, about: 'register', notes: [], text };
  });
}

function melodyReasons({ lines, has }: Melody): Reason[] {
  if (has.length < 2) return [];
  return lines.flatMap((line, i): Reason[] =>
    i > 0 && line === lines[i - 1]
      ? []
      : i === 0 && (line === 'voice' || line === 'upper')
        ? []
        : [
            {
              measure: i,
              about: 'melody',
              notes: [],
              text: `from here ${MELODY_LINE_NAMES[line]} has the melody`,
            },
          ],
  );
}
