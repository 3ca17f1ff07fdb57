/**
 * A version with its melody: the melody is reduced and folded, the source's own left hand is kept where it can be, a texture is laid
 * under the rest, notes that a hand cannot reach change hands, and what is free is filled. Each step has its reasons.
 */
import type { ChordSpan } from '../../analysis/harmony';
import { MELODY_LINE_NAMES, type Melody } from '../../analysis/melody';
import { notate } from '../../score/notate';
import { keyboardPart, measureAt, soundingNotes, type SoundingNote } from '../../score/query';
import type { Mark, Note, Score } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import {
  AS_SOURCE,
  freshStartsOf,
  wordsAboveAll,
  symbolsOf,
  toReasons,
  type ArrangedHands,
  type ArrangeSettings,
} from '../arranged';
import { concertVersion } from './concert';
import { fillUnder } from './filling';
import { ceilingAt, foldMelody, MELODY_FLOOR, type Fold } from './foldMelody';
import { Ceilings, leftHand, type LeftHand } from './leftHand';
import { ownLeft } from './ownLeft';
import { ownInner, ownUpper } from './ownRight';
import type { Reason } from '../reason';
import { reduceMelody } from './reduceMelody';
import { shareMelody } from './shareMelody';
import { NO_BUSIER, rightThickness, strokesPerBeat, THIN, usualThickness } from './sourceHands';
import type { MeasureStretches } from './stretches';
import { isStyleOwn, keepsOwn, strokesLeft, usualTextures } from '../styles';
import { onsetsPerBeat } from '../textures';
import { sungIn, withSlurs, wordsOf, writtenMelody } from './writtenMelody';

/** What a version with its melody is made of. */
export interface SoloSource {
  readonly score: Score;
  readonly chords: readonly ChordSpan[];
  readonly melody: Melody;
  /** What else the source has for two hands. */
  readonly accompaniment: readonly SoundingNote[];
  readonly stretches: readonly MeasureStretches[];
}

/** The melody in the right hand, under it the source's accompaniment or a texture. */
export function soloVersion(source: SoloSource, settings: ArrangeSettings): ArrangedHands {
  const { score, chords, stretches } = source;
  const { contract } = settings;
  const line = melodyLine(source, settings);
  const sides = melodySides(source, line, settings);
  const own = sourceLeft(source, sides, settings);
  const left = leftUnder(source, sides, own, settings);
  const shared = shareMelody(sides.written, [...left.notes, ...own.notes], score.measures, contract);
  const filling = rightFilling(source, sides, own, shared, settings);
  const notes = [
    ...shared.melody,
    ...sides.upper.map((n) => ownNote(n, 1)),
    ...filling.notes,
    ...shared.left,
  ];
  return {
    notes: notate(score.measures, contract.level >= 3 ? withSlurs(notes, score) : notes),
    marks: [...wordsAboveAll(score), ...(contract.level >= 3 ? dynamicsOf(score) : [])].sort(
      (a, b) => a.onset - b.onset,
    ),
    chordSymbols: symbolsOf(stretches, chords),
    reasons: [
      ...line.reasons,
      ...sides.reasons,
      ...toReasons('left hand', left.reasons),
      ...own.reasons,
      ...toReasons('melody', shared.reasons),
      ...filling.reasons,
    ],
    melodyChanges: line.changes,
    folds: line.folds,
    ownMeasures: own.measures,
  };
}

/** The melody as its level allows it, and as it lies on the keyboard. */
function melodyLine(source: SoloSource, settings: ArrangeSettings) {
  const { score, melody } = source;
  const { contract, form, keyboard } = settings;
  const { measures } = score;
  const { notes: reduced, changes } = reduceMelody(melody.notes, measures, contract, sungIn(score));
  const isBelow = staysBelow(source, settings);
  // What stays in the left hand has the octave of its source.
  const { notes: folded, folds } = foldMelody(
    reduced.filter((n) => !isBelow(n.onset)),
    {
      keyboard,
      floor: MELODY_FLOOR,
      ceiling: ceilingAt(contract.level),
      starts: [
        ...form.phrases.map((p) => measures[p.from]!.start - (p.pickup ?? 0)),
        ...measures.filter((m, i) => i > 0 && melody.lines[i] !== melody.lines[i - 1]).map((m) => m.start),
      ],
    },
  );
  const changed = changes.map((c): Reason => ({
    measure: c.measure,
    about: 'melody',
    notes: [c.note],
    text: c.reason,
  }));
  return {
    reduced,
    folded,
    isBelow,
    changes,
    folds,
    reasons: [...changed, ...foldReasons(folds, score), ...melodyReasons(melody)],
  };
}

/** Whether a level keeps the hands of the source: by its contract, for the style, because they are within it, or as the last way to be no harder. */
const keepsHands = ({ contract, idiom, isWithin = false, reduction }: ArrangeSettings): boolean =>
  keepsOwn(contract, idiom) || isWithin || reduction === AS_SOURCE;

/** Whether a measure may have what the source's left hand plays. */
const ownIsWanted =
  (settings: ArrangeSettings) =>
  (measure: number): boolean => {
    const wanted = settings.textureIn(measure);
    const keeps = keepsHands(settings) || settings.isInstrumental(measure);
    return keeps && (wanted === null || wanted === 'own');
  };

/** Where the melody stays in the left hand: where the source has it there and its own accompaniment is kept. */
function staysBelow({ score, melody }: SoloSource, settings: ArrangeSettings): (onset: Ticks) => boolean {
  const wanted = ownIsWanted(settings);
  return (onset) => {
    const { index } = measureAt(score.measures, onset);
    return melody.lines[index] === 'lower' && wanted(index);
  };
}

/**
 * Which hand has the melody: the right one, but where the source has it in the left hand and its own accompaniment is kept, the hands
 * stay as the source has them.
 */
function melodySides(
  { score, melody, accompaniment }: SoloSource,
  { reduced, folded: high, isBelow }: ReturnType<typeof melodyLine>,
  settings: ArrangeSettings,
) {
  const { contract, reach } = settings;
  const { measures } = score;
  const reasons: Reason[] = [];
  const written = writtenMelody(
    high,
    wordsOf(melody.notes, reduced, score),
    score,
    contract.tuplets === 'any',
    reasons,
    contract,
  );
  /** What the source has above a melody in the left hand. */
  const upper = ownUpper(
    accompaniment.filter((n) => n.staff === 1 && isBelow(n.onset)),
    { contract, reach: reach.right, measures },
  );
  return {
    isBelow,
    low: reduced.filter((n) => isBelow(n.onset)),
    written,
    upper,
    right: [...high, ...upper],
    reasons,
  };
}

type Sides = ReturnType<typeof melodySides>;

/** Of the source's own left hand, what this level and these hands can keep. */
function sourceLeft(
  { score, chords, accompaniment, stretches }: SoloSource,
  { low, right, isBelow }: Sides,
  settings: ArrangeSettings,
) {
  const { contract, idiom, reach, keyboard } = settings;
  const { measures } = score;
  const lower = accompaniment.filter((n) => n.staff !== 1);
  const wanted = ownIsWanted(settings);
  const own =
    measures.some((m) => wanted(m.index)) && lower.length + low.length > 0
      ? ownLeft([...lower, ...low], stretches, {
          contract,
          reach: reach.left,
          keyboard,
          measures,
          ceilings: new Ceilings(right),
          melody: new Set(low.map((n) => n.id)),
          isNamed: ({ start, length }) =>
            chords.some(
              (c) => c.from === 'symbol' && c.onset < start + length && c.onset + c.duration > start,
            ),
          // Between verses the players have what they play as it is written, within the level.
          strokesPerBeat: (measure) =>
            settings.isInstrumental(measure.index) ? Infinity : strokesLeft(contract, idiom),
          isOfStyle: (measure) => isStyleOwn(idiom) || settings.isInstrumental(measure.index),
        })
      : { notes: [], measures: new Set<number>(), reasons: [] };
  const kept = new Set(
    measures
      .map((m) => m.index)
      .filter((i) => wanted(i) && (own.measures.has(i) || isBelow(measures[i]!.start))),
  );
  const isKept = (onset: Ticks): boolean => kept.has(measureAt(measures, onset).index);
  return {
    /** Everything that the source has there. */
    lower,
    measures: kept,
    isKept,
    notes: own.notes.filter((n) => isKept(n.onset)).map((n): Note => ownNote(n, 2)),
    reasons: toReasons(
      'left hand',
      own.reasons.filter((r) => kept.has(r.measure)),
    ),
  };
}

type OwnLeft = ReturnType<typeof sourceLeft>;

/** A left hand where the source's own is not kept; never busier nor thicker than the one it stands for. */
function leftUnder(
  { score, stretches }: SoloSource,
  { right }: Sides,
  { lower, measures: kept }: OwnLeft,
  { contract, textureIn, idiom, reduction = 0, form, reach, keyboard }: ArrangeSettings,
): LeftHand {
  const hasOwn = lower.length > 0;
  const thickness = usualThickness(lower);
  const density = hasOwn ? strokesPerBeat(lower, score) : undefined;
  return leftHand(score.measures, stretches, right, {
    contract,
    texturesIn: (measure) => {
      const usual = usualTextures(contract.level, measure.time, idiom);
      const wanted = textureIn(measure.index);
      const notBusier =
        density === undefined
          ? usual
          : usual.filter((t) => onsetsPerBeat(t, contract.level, measure.time) <= density * NO_BUSIER);
      const left = notBusier.slice(Math.max(0, reduction - 1));
      const rest = left.length > 0 ? left : usual.slice(-1);
      return wanted === null || wanted === 'own' ? rest : [wanted, ...rest];
    },
    freshStarts: freshStartsOf(form),
    reach: reach.left,
    // A texture that was asked for is as full as the level has it.
    mostIn: (measure) => (hasOwn && (textureIn(measure.index) ?? 'own') === 'own' ? thickness : 5),
    keyboard,
    except: kept,
  });
}

/** Under the melody: the source's inner notes, and chord tones where the hand is free. */
function rightFilling(
  { score, accompaniment, stretches }: SoloSource,
  { isBelow }: Sides,
  own: OwnLeft,
  shared: ReturnType<typeof shareMelody>,
  settings: ArrangeSettings,
): { readonly notes: readonly Note[]; readonly reasons: readonly Reason[] } {
  const { contract, reach, keyboard, form, isWithin = false, reduction = 0 } = settings;
  const { measures } = score;
  const left = soundingNotes(shared.left);
  const under = new Floors(left);
  const right = soundingNotes(shared.melody);
  const inner =
    contract.accompaniment === 'replaced' && !isWithin
      ? { notes: [], reasons: [] }
      : ownInner(
          accompaniment.filter((n) => n.staff === 1 && own.isKept(n.onset) && !isBelow(n.onset)),
          right,
          { contract, reach: reach.right, measures, floor: (from, to) => under.over(from, to) },
        );
  const filled = fillUnder(reduction > 0 ? [] : right, left, stretches, measures, {
    contract,
    reach: reach.right,
    sparing: own.lower.length > 0 && rightThickness(score) < THIN,
    except: own.measures,
  });
  // A melody with chords alone is plainer than the highest level: there it is set for a concert.
  if (contract.accompaniment === 'kept' && own.lower.length === 0 && inner.notes.length === 0) {
    const concert = concertVersion(right, filled.notes, {
      measures,
      phrases: form.phrases,
      reach: reach.right,
      highest: keyboard.high,
      floor: (from, to) => under.over(from, to),
    });
    return {
      notes: concert.notes,
      reasons: toReasons('right hand', [...filled.reasons, ...concert.reasons]),
    };
  }
  const filledIds = new Set(filled.notes.map((n) => n.id));
  return {
    notes: [...inner.notes.filter((n) => !filledIds.has(n.id)), ...filled.notes],
    reasons: [...toReasons('right hand', inner.reasons), ...toReasons('right hand', filled.reasons)],
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
