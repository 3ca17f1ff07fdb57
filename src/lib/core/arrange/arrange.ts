/**
 * From a source in its key to the notes of both hands: the melody is found, reduced and folded; the left hand and the filling
 * are built under it, or taken over from the source and thinned; the hands are kept apart; every change says why.
 */
import type { ChordSpan } from '../analysis/harmony';
import { accompanimentOf, findMelody, voicePart } from '../analysis/melody';
import { notate } from '../score/notate';
import { keyboardPart, measureAt, soundingNotes } from '../score/query';
import type { Score } from '../score/score';
import {
  freshStartsOf,
  wordsAboveAll,
  symbolsOf,
  toReasons,
  type Arranged,
  type ArrangedHands,
  type ArrangeSettings,
} from './arranged';
import { asWritten } from './asWritten';
import { joinedHands } from './joined';
import { leftHand } from './private/leftHand';
import { singAlong, usualRhythm, wordsAbove } from './singAlong';
import { soloVersion, type SoloSource } from './private/solo';
import { stretchesOf, type MeasureStretches } from './private/stretches';
import type { TextureId } from './textures';

/** Arranges a score that is in its key already. `chords` are its chords, in order of time. */
export function arrange(score: Score, chords: readonly ChordSpan[], settings: ArrangeSettings): Arranged {
  const { contract, form } = settings;
  const measures = score.measures;
  const phraseMeasures = new Set(form.phrases.map((p) => p.from));
  const melody = findMelody(score, settings.melodyLineIn, phraseMeasures);
  const accompaniment = accompanimentOf(score, melody.notes);
  const stretches = stretchesOf(
    measures,
    chords,
    contract,
    score.parts.every((p) => p.notes.length === 0),
  );
  const isSung = (measure: number): boolean =>
    melody.notes.length === 0 || settings.styleIn(measure) === 'sing-along';
  const sungMeasures = new Set(measures.map((m) => m.index).filter(isSung));
  const isSingAlong = measures.every((m) => sungMeasures.has(m.index) || settings.isInstrumental(m.index));
  const base = { melody, accompaniment, stretches, isSingAlong, sungMeasures };
  if (sungMeasures.size === 0)
    return { ...base, ...playedVersion({ score, chords, melody, accompaniment, stretches }, settings) };
  const sung = singAlongVersion(score, stretches, settings);
  if (sungMeasures.size === measures.length) return { ...base, ...sung };
  const players = withoutSinger(score, (m) => settings.isInstrumental(m) && (isSung(m) || isSung(m + 1)));
  const line = findMelody(players, settings.melodyLineIn, phraseMeasures);
  const played = soloVersion(
    {
      score: players,
      chords,
      melody: line,
      accompaniment: accompanimentOf(players, line.notes),
      stretches,
    },
    settings,
  );
  return { ...base, ...joinedHands(measures, isSung, sung, played) };
}

/** The melody played, or the source as it is written where the level has it so. */
function playedVersion(source: SoloSource, settings: ArrangeSettings): ArrangedHands {
  const { score, chords, melody, accompaniment } = source;
  const { contract } = settings;
  const wantsTexture = score.measures.some((m) => {
    const wanted = settings.textureIn(m.index);
    return wanted !== null && wanted !== 'own';
  });
  const isKeyboardMusic = hasLeftHand({ accompaniment, melody }) && !melody.lines.includes('voice');
  if ((contract.accompaniment === 'kept' || settings.isWithin) && isKeyboardMusic && !wantsTexture)
    return writtenVersion(score, chords, settings);
  return soloVersion(source, settings);
}

/** A score without what is sung in some measures: a pickup into a verse that is sung is not played. */
function withoutSinger(score: Score, isSung: (measure: number) => boolean): Score {
  const voice = voicePart(score);
  if (!voice) return score;
  const notes = voice.notes.filter((n) => !isSung(measureAt(score.measures, n.onset).index));
  return { ...score, parts: score.parts.map((p) => (p === voice ? { ...p, notes } : p)) };
}

/** Double stops on one staff are not yet a piece for two hands. */
export const hasLeftHand = ({ accompaniment, melody }: Pick<Arranged, 'accompaniment' | 'melody'>): boolean =>
  accompaniment.some((n) => n.staff !== 1) || melody.lines.includes('lower');

function singAlongVersion(
  score: Score,
  stretches: readonly MeasureStretches[],
  settings: ArrangeSettings,
): ArrangedHands {
  const { contract, form } = settings;
  const freshStarts = freshStartsOf(form);
  const right = singAlong(score.measures, stretches, {
    contract,
    rhythmIn: (measure) => settings.rhythmIn(measure) ?? usualRhythm(contract.level),
    reach: settings.reach.right,
    keyboard: settings.keyboard,
    freshStarts,
  });
  const above = soundingNotes(right.notes);
  const usual: TextureId =
    contract.level < 3 ? 'held-root' : contract.level < 6 ? 'root-then-fifth' : 'octaves-in-turn';
  const left = leftHand(score.measures, stretches, above, {
    contract,
    texturesIn: (measure) => [
      settings.textureIn(measure.index) ?? usual,
      usual,
      'root-then-fifth',
      'held-root',
    ],
    freshStarts,
    reach: settings.reach.left,
    keyboard: settings.keyboard,
  });
  const melody = score.parts.find((p) => p.role === 'melody') ?? score.parts[0];
  return {
    notes: notate(score.measures, [...right.notes, ...left.notes]),
    marks: [
      ...wordsAboveAll(score),
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
    ...(part.staves >= 2 && part.clefs && part.clefs.length > 0 ? { clefs: part.clefs } : {}),
    chordSymbols: chords.filter((c) => c.chord).map(({ onset, chord }) => ({ onset, chord })),
    reasons: toReasons('register', reasons),
    melodyChanges: [],
    folds: [],
    ownMeasures: new Set(score.measures.map((m) => m.index)),
  };
}
