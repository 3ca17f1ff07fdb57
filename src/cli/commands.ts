/** What each command makes of a score. Nothing here reads or writes files: main.ts does. */
import { lineText } from '../lib/core/analysis/byHand';
import { keyOf } from '../lib/core/analysis/home';
import { muddyChords } from '../lib/core/hands/muddy';
import { signedText, withHeardMode } from '../lib/core/analysis/key';
import { reportOf } from '../lib/core/report/report';
import { shareOf } from '../lib/core/arrange/account';
import { levelNumbered } from '../lib/core/arrange/levels';
import { scoreOfWhole } from '../lib/core/difficulty/level';
import { KEYBOARDS } from '../lib/core/hands/register';
import { countMeasures } from '../lib/core/counting/count';
import { feelOf } from '../lib/core/counting/feel';
import { playedBy } from '../lib/core/fingering/fingerHand';
import { DEFAULT_WEIGHTS, rankKeys } from '../lib/core/keys/rank';
import { keyboardPart, measureAt, soundingNotes } from '../lib/core/score/query';
import type { Score } from '../lib/core/score/score';
import { quarters, TICKS_PER_QUARTER } from '../lib/core/score/ticks';
import { bassOf, chordToneNames, inversion } from '../lib/core/theory/chord';
import { fromFifths } from '../lib/core/theory/fifths';
import { inMode, keyCode, parseKey, tonicName, type Key } from '../lib/core/theory/key';
import { pitchClassName } from '../lib/core/theory/pitch';
import { inAllKeys } from '../lib/core/transpose/allKeys';
import {
  keyAbove,
  transposeScore,
  transpositionTo,
  type Transposition,
} from '../lib/core/transpose/transpose';
import { checkVersion, type Violation } from '../lib/core/version/check';
import { violationText } from '../lib/core/version/limits';
import { withPedal } from '../lib/core/version/markSource';
import { realise } from '../lib/core/version/realise';
import { finger } from './finger';
import {
  integerFrom,
  optionValue,
  recipeFrom,
  UsageError,
  voiceFrom,
  wantedFrom,
  weightsFrom,
  type Values,
} from './options';
import { numberOf, reachOf, type Input, type Outcome } from './outcome';

const keyJson = (key: Key) => ({ tonic: tonicName(key), mode: key.mode, fifths: key.fifths });

function analyse({ score, warnings, tune }: Input): Outcome {
  const report = reportOf(score);
  const { form, keys } = report;
  const number = (index: number): number | string => numberOf(score, index);
  const part = keyboardPart(score);
  return {
    json: {
      title: score.title,
      key: keyJson(report.key),
      otherHome: keys.other ? keyJson(keys.other) : null,
      ...(keys.signed ? { signedKey: keyJson(keys.signed) } : {}),
      scale: report.scale,
      passages: keys.passages.map((p) => ({ from: number(p.from), to: number(p.to), ...keyJson(p.key) })),
      keyChanges: score.measures
        .filter((m, i) => i > 0 && m.key.fifths !== score.measures[i - 1]!.key.fifths)
        .map((m) => ({ measure: number(m.index), ...keyJson(m.key) })),
      time: `${report.time.beats}/${report.time.beatType}`,
      tempo: report.tempo || null,
      idiom: report.idiom.idiom,
      idiomBecause: report.idiom.because || null,
      measures: form.measureCount,
      newMeasures: form.newMeasures,
      pickup: report.hasPickup ? score.measures[0]!.length / TICKS_PER_QUARTER : 0,
      sections: form.sections.map((s) => ({
        label: s.letter + '′'.repeat(s.prime),
        name: s.label,
        role: s.role?.role ?? null,
        roleFrom: s.role?.from ?? null,
        from: number(s.from),
        to: number(s.to),
        pickup: (s.pickup ?? 0) / TICKS_PER_QUARTER,
        variantOf: s.repeats ?? (s.variant ? form.sections[s.variant.of]!.label : null),
        transposed: s.variant?.transposed ?? 0,
        /** Hand by hand, to the half measure. */
        byHand: (s.variant?.hands ?? []).map((line) =>
          lineText(
            line,
            score.measures.map((m) => m.number),
          ),
        ),
        differsIn: (s.variant?.differences ?? []).map((d) => ({
          measure: number(d.measure),
          notes: d.now,
          before: d.before,
        })),
      })),
      phrases: form.phrases.map((p) => ({ from: number(p.from), to: number(p.to) })),
      startsOn: report.startsOn,
      /** symbol, notes, or harmonised: proposed for a bare tune, with alternatives. */
      chordsFrom: report.chordsFrom,
      chords: report.progression.map(({ measure, beat, chord, isBorrowed, stay, move, ...names }) => ({
        measure: number(measure),
        beat,
        ...names,
        inversion: inversion(chord),
        bass: pitchClassName(fromFifths(bassOf(chord))),
        diatonic: !isBorrowed,
        notes: chordToneNames(chord).split(' '),
        stay,
        move,
      })),
      voicings: report.shapes.map(({ symbol, shapes }) => ({
        symbol,
        shapes: shapes.map(({ notes, measures }) => ({ notes, measures: measures.map(number) })),
      })),
      difficulty: {
        level: report.level,
        score: report.difficultyScore,
        byMeasure: report.difficulty.map(({ measure, ...d }) => ({ measure: number(measure), ...d })),
      },
      hands: {
        noteCount: { right: playedBy(part, 'right').length, left: playedBy(part, 'left').length },
      },
      tune: tune.map(({ from, to, player }) => ({ from: number(from), to: number(to), player })),
      warnings: [
        ...warnings,
        ...(keys.signed ? [signedText(keys.signed, report.keyName)] : []),
        ...report.muddy.map(
          ({ measure, hand, text }) => `Measure ${number(measure)}, ${hand} hand: ${text}.`,
        ),
        ...report.disagreements.map(
          ({ measure, symbol, sounds, heard }) =>
            `Measure ${number(measure)}: the symbol says ${symbol}, but ${sounds.join(' ')} sound${heard ? `, which is ${heard}` : ''}.`,
        ),
      ],
    },
  };
}

function arrange({ score, values, recipeFile, levels }: Input): Outcome {
  if (values.level === undefined && recipeFile === undefined)
    throw new UsageError('arrange needs --level 1 to 6.');
  const { recipe, decisions } = wantedFrom(values, recipeFile, levels, score);
  const version = realise(score, recipe, decisions, levels);
  const number = (index: number): number | string => numberOf(version.score, index);
  const { fidelity, ...account } = version.account;
  return {
    music: version.score,
    report: {
      recipe,
      decisions,
      parked: version.parked,
      key: keyJson(version.key),
      summary: version.accountText,
      account,
      fidelity: Object.fromEntries(
        Object.entries(fidelity).map(([name, share]) => [name, { ...share, share: shareOf(share) }]),
      ),
      difficulty: scoreOfWhole(version.difficulty),
      reasons: version.reasons.map((r) => ({ ...r, measure: number(r.measure) })),
      violations: violationsJson(version.score, version.violations, recipe.level),
      goalTempo: version.goalTempo,
    },
  };
}

const violationsJson = (score: Score, violations: readonly Violation[], level: number) =>
  violations.map((v) => ({ ...v, measure: numberOf(score, v.measure), says: violationText(v, level) }));

function count({ score, values }: Input): Outcome {
  const { cutTime } = recipeFrom(values);
  const school = optionValue(values, 'counting') ?? 'numbers';
  const hand = values.hand ?? 'right';
  if (hand !== 'right' && hand !== 'left' && hand !== 'both')
    throw new UsageError(`--hand takes right, left or both, not “${hand}”.`);
  const part = keyboardPart(score);
  const notes = hand === 'both' ? soundingNotes(part.notes) : playedBy(part, hand);
  const counted = countMeasures(score.measures, notes, () =>
    school === 'none' ? null : { school, cutTime },
  );
  return {
    json: {
      feel: feelOf(score),
      measures: counted.map(({ measure, counts }) => ({
        number: numberOf(score, measure),
        counts: counts.map(({ at, say, kind }) => ({ at: quarters(at), say, kind })),
      })),
    },
  };
}

function pedal({ score, values }: Input): Outcome {
  const {
    score: music,
    marks,
    blurs,
  } = withPedal(score, keyboardPart(score), optionValue(values, 'pedal') ?? 'harmony');
  const place = (onset: number) => {
    const measure = measureAt(score.measures, onset);
    return { measure: numberOf(score, measure.index), at: quarters(onset - measure.start) };
  };
  return {
    music,
    report: {
      marks: marks.map(({ onset, type, because }) => ({ ...place(onset), type, because })),
      blurs: blurs.map(({ onset, kind, text }) => ({ ...place(onset), kind, text })),
    },
  };
}

const RANGE_UNKNOWN =
  'There is no melody, so the voice doesn’t count. Say how low and high the song goes: --song-range A3-C5';

function keys({ score, values, recipeFile, levels }: Input): Outcome {
  const { recipe, decisions } = wantedFrom(values, recipeFile, levels, score);
  const songRange = values['song-range'];
  const ranked = rankKeys(score, recipe, {
    decisions,
    voice: values.voice ? voiceFrom(values.voice) : undefined,
    songRange: songRange ? voiceFrom(songRange, 'song-range') : undefined,
    weights: values.weights ? weightsFrom(values.weights) : DEFAULT_WEIGHTS,
    levels,
  });
  const isUnknown = values.voice !== undefined && ranked[0]?.voiceFrom === null;
  return { json: ranked, says: isUnknown ? [RANGE_UNKNOWN] : [] };
}

function transpose({ score: source, values }: Input): Outcome {
  const score = withHeardMode(source);
  if (values.to !== undefined && values.by !== undefined)
    throw new UsageError('transpose takes --to KEY or --by SEMITONES, not both.');
  if (values.to === 'all')
    return { set: inAllKeys(score).map(({ key, score: moved }) => ({ name: keyCode(key), music: moved })) };
  return { music: transposeScore(score, withDirection(transposition(keyOf(score), values), values)) };
}

function transposition(from: Key, values: Values): Transposition {
  if (values.to !== undefined) {
    const to = parseKey(values.to);
    if (!to) throw new UsageError(`--to ${values.to} isn’t a key. Write it like C, F#m or Bb.`);
    return transpositionTo(from, inMode(to, from.mode));
  }
  if (values.by === undefined) throw new UsageError('transpose needs --to KEY or --by SEMITONES.');
  const by = integerFrom('by', values.by, -36, 36);
  return { semitones: by, fifths: keyAbove(from, by).fifths - from.fifths };
}

/** --up and --down choose the octave where --to leaves it open. */
function withDirection(by: Transposition, values: Values): Transposition {
  if (values.up && values.down) throw new UsageError('Use --up or --down, not both.');
  if (values.up && by.semitones < 0) return { ...by, semitones: by.semitones + 12 };
  if (values.down && by.semitones > 0) return { ...by, semitones: by.semitones - 12 };
  return by;
}

/** Chords that blur, as warnings. */
const blurred = (score: Score) =>
  muddyChords(keyboardPart(score), score.measures).map(({ measure, hand, text }) => ({
    measure: numberOf(score, measure),
    hand,
    text,
  }));

function check({ score, values, levels }: Input): Outcome {
  if (values.level === undefined) throw new UsageError('check needs --level 1 to 6.');
  const recipe = recipeFrom(values, undefined, levels);
  const violations = checkVersion(score, {
    contract: levelNumbered(recipe.level, levels),
    reach: reachOf(recipe),
    keyboard: KEYBOARDS[recipe.keyboard],
  });
  const warnings = blurred(score);
  return {
    json: { violations: violationsJson(score, violations, recipe.level), warnings },
    found: violations.length > 0 || (values.strict === true && warnings.length > 0),
  };
}

interface Command {
  readonly says: string;
  readonly run: (input: Input) => Outcome;
  /** The music comes out as it went in: parts are not looked at. */
  readonly asWritten?: boolean;
}

export const COMMANDS: Readonly<Record<string, Command>> = {
  analyze: { says: 'key, form, chords, difficulty, as JSON', run: analyse },
  arrange: { says: 'a version at --level 1 to 6, as music', run: arrange },
  finger: { says: 'the same music with a finger on every note', run: finger },
  count: { says: 'what is counted in each measure, as JSON', run: count },
  pedal: { says: 'the same music with pedal marks', run: pedal },
  keys: { says: 'every key ranked for a student, as JSON', run: keys },
  transpose: {
    says: 'the same music --to KEY, --to all twelve, or --by SEMITONES',
    run: transpose,
    asWritten: true,
  },
  check: {
    says: 'what exceeds the limits of --level, as JSON; status 1 if anything does, with --strict also where a chord blurs',
    run: check,
  },
  convert: {
    says: 'from one format to another, by the ending after -o',
    run: ({ score }) => ({ music: score }),
    asWritten: true,
  },
};
