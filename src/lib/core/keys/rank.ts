/**
 * Which key suits a learner best: the piece arranged in every key at the level, and judged by what the eyes, the hands (by the
 * fingering solver itself), the voice and the keyboard have to do in it. Smaller is better in every column; what a column
 * counts for is a weight that the teacher can change.
 */
import { z } from 'zod';
import { LEVELS, type LevelContract } from '../arrange/levels';
import { KEYBOARDS } from '../hands/register';
import { shownAccidentals } from '../score/accidentals';
import { toMidi, type Pitch } from '../theory/pitch';
import { byMeasure, soundingNotes } from '../score/query';
import type { Score } from '../score/score';
import { keyOptions, signatureText } from '../theory/easyKeys';
import { distanceText } from '../theory/intervalWord';
import { keyCode, keyName, type Key } from '../theory/key';
import { transpositionTo } from '../transpose/transpose';
import { analysed } from '../version/analysed';
import { arrangement } from '../version/arrangement';
import { fingered } from '../version/realise';
import type { Decision } from '../decisions/registry';
import type { Recipe } from '../version/recipe';

export const CRITERIA = ['reading', 'hands', 'voice', 'keyboard', 'distance'] as const;
export type Criterion = (typeof CRITERIA)[number];

export const CRITERION_NAMES: Readonly<Record<Criterion, { name: string; says: string }>> = {
  reading: { name: 'Reading', says: 'sharps or flats in the key signature, then in the notes' },
  hands: { name: 'Hands', says: 'effort of the best fingering, per note' },
  voice: { name: 'Voice', says: 'share of the melody outside the comfortable range' },
  keyboard: {
    name: 'Keyboard',
    says: 'notes and chords that don’t fit the keyboard',
  },
  distance: { name: 'Distance', says: 'half steps from the original' },
};

export interface RankedKey {
  readonly key: string;
  readonly fifths: number;
  /** Signed semitones from the source's key. */
  readonly by: number;
  /** The sum of what each criterion comes to with its weight. */
  readonly total: number;
  readonly reading: number;
  readonly hands: number;
  readonly voice: number;
  /** By what the voice is judged; null where nothing says how low and high the song goes, or where nobody sings. */
  readonly voiceFrom: 'melody' | 'range' | null;
  readonly keyboard: number;
  readonly distance: number;
  /** Accidentals of the signature that the level does not read; they put a key behind whatever the weights. */
  readonly beyondLevel: number;
}

export interface VoiceRange {
  readonly low: Pitch;
  readonly high: Pitch;
}

/** What each criterion counts for. */
export const weightsSchema = z.object({
  reading: z.number().min(0).max(100),
  hands: z.number().min(0).max(100),
  voice: z.number().min(0).max(100),
  keyboard: z.number().min(0).max(100),
  distance: z.number().min(0).max(100),
});
export type Weights = Readonly<z.infer<typeof weightsSchema>>;

export const DEFAULT_WEIGHTS: Weights = { reading: 1, hands: 2, voice: 20, keyboard: 5, distance: 0.1 };

interface RankSettings {
  readonly voice?: VoiceRange | undefined;
  /** The song's lowest and highest note in the source's key, for music without a melody. */
  readonly songRange?: VoiceRange | undefined;
  readonly weights?: Weights;
  readonly levels?: readonly LevelContract[];
  /** What is decided in the version whose keys are compared. */
  readonly decisions?: readonly Decision[];
}

/** What each accidental beyond the level adds to the sum. */
export const BEYOND_LEVEL = 3;
/** Accidentals before a tenth of the notes read like one more in the signature. */
const IN_THE_NOTES = 10;

const rounded = (n: number): number => Math.round(n * 1000) / 1000;

/** All keys of the source's mode, the source's own among them, the best first. */
export function rankKeys(source: Score, recipe: Recipe, settings: RankSettings = {}): RankedKey[] {
  const { key: sourceKey } = analysed(source);
  const codes = new Set([...keyOptions(sourceKey.mode).map((k) => k.code), keyCode(sourceKey)]);
  const raw = [...codes].map((code) => judge(source, recipe, code, settings));
  return weighed(raw, settings.weights ?? DEFAULT_WEIGHTS);
}

/** The same keys in the order that other weights give; nothing is worked out again. */
export const weighed = (keys: readonly RankedKey[], weights: Weights): RankedKey[] =>
  keys
    .map((k) => ({
      ...k,
      total: rounded(CRITERIA.reduce((sum, c) => sum + weights[c] * k[c], BEYOND_LEVEL * k.beyondLevel)),
    }))
    .sort((a, b) => a.total - b.total || a.distance - b.distance || a.fifths - b.fifths);

function judge(
  source: Score,
  recipe: Recipe,
  code: string,
  { voice, songRange, levels = LEVELS, decisions = [] }: RankSettings,
): RankedKey {
  const made = arrangement(source, { ...recipe, key: code }, decisions, levels);
  const { score, sourceKey, key, contract, arranged } = made;
  const part = score.parts[0]!;
  const sounding = soundingNotes(part.notes);
  const signature = Math.max(...score.measures.map((m) => Math.abs(m.key.fifths)));
  const over = Math.max(0, signature - (contract.accidentals ?? 7));
  const inMeasures = byMeasure(score.measures, part.notes);
  const accidentals = score.measures.reduce((sum, m, i) => sum + shownAccidentals(m, inMeasures[i]!).size, 0);
  const cost = (['right', 'left'] as const).reduce(
    (sum, hand) => sum + fingered(made, decisions, hand).fingering.cost,
    0,
  );
  const { low, high } = KEYBOARDS[recipe.keyboard];
  const perNote = Math.max(1, sounding.length);
  const by = transpositionTo(sourceKey, key).semitones;
  const tune = arranged.melody.notes;
  // Of a chart only how low and high the song goes is known, where somebody says so.
  const ends = songRange ? [songRange.low, songRange.high] : [];
  const sung = tune.length > 0 ? tune : ends.map((pitch) => ({ midi: toMidi(pitch) + by, duration: 1 }));
  // What lies off the keyboard is folded or rests: both are told by the arranger.
  const lost = arranged.reasons.filter((r) => r.loss === 'no room' || r.loss === 'off the keyboard').length;
  const columns = {
    reading: signature + (accidentals * IN_THE_NOTES) / perNote,
    hands: cost / perNote,
    voice: voice && sung.length > 0 ? outsideVoice(sung, voice) : 0,
    keyboard: lost + sounding.filter((n) => n.midi < low || n.midi > high).length,
    distance: Math.abs(by),
  };
  const voiceFrom = !voice || sung.length === 0 ? null : tune.length > 0 ? 'melody' : 'range';
  return {
    key: keyCode(key),
    fifths: key.fifths,
    by,
    voiceFrom,
    total: 0,
    reading: rounded(columns.reading),
    hands: rounded(columns.hands),
    voice: rounded(columns.voice),
    keyboard: columns.keyboard,
    distance: columns.distance,
    beyondLevel: over,
  };
}

/** Octaves at which a tune may be sung: a man sings what is written for everybody an octave lower as it stands. */
const SUNG_OCTAVES = [0, -1, 1, -2, 2];

/**
 * Share of the melody's duration outside the comfortable range, at the octave that lies best; beyond a whole tone outside it
 * counts double.
 */
function outsideVoice(melody: readonly { midi: number; duration: number }[], voice: VoiceRange): number {
  const [low, high] = [toMidi(voice.low), toMidi(voice.high)];
  const total = melody.reduce((sum, n) => sum + n.duration, 0) || 1;
  const outside = SUNG_OCTAVES.map((octave) =>
    melody.reduce((sum, n) => {
      const midi = n.midi + 12 * octave;
      const beyond = Math.max(0, low - midi, midi - high);
      return sum + n.duration * (beyond === 0 ? 0 : beyond > 2 ? 2 : 1);
    }, 0),
  );
  return Math.min(...outside) / total;
}

const moveText = (by: number): string =>
  by === 0 ? 'original key' : `${distanceText(by)} ${by > 0 ? 'up' : 'down'}`;

/** How the voice fares in a key. Of two notes alone no share can be told. */
function voiceText({ voice, voiceFrom }: RankedKey): string {
  const isRange = voiceFrom === 'range';
  if (voice === 0) return `the whole ${isRange ? 'song' : 'melody'} fits the voice`;
  if (isRange) return `the song goes ${voice <= 0.5 ? 'a little' : 'well'} beyond the voice`;
  return `${Math.max(1, Math.round(Math.min(1, voice) * 100))}% of the melody is out of range`;
}

/** Why a key stands where it does, in one plain sentence. `all` are the keys it is compared with. */
export function keySentence(ranked: RankedKey, mode: Key['mode'], all: readonly RankedKey[]): string {
  const name = keyName({ fifths: ranked.fifths, mode });
  const easiest = Math.min(...all.map((k) => k.hands));
  const hardest = Math.max(...all.map((k) => k.hands));
  const ease = hardest === easiest ? 0 : (ranked.hands - easiest) / (hardest - easiest);
  const hands =
    ease < 0.25
      ? 'among the easiest for the hands'
      : ease < 0.6
        ? 'fairly comfortable'
        : 'awkward for the hands';
  const isJudged = all.some((k) => k.voice > 0);
  const voice = isJudged ? `; ${voiceText(ranked)}` : '';
  const keyboard = ranked.keyboard > 0 ? `; ${ranked.keyboard} places do not fit the keyboard` : '';
  return `${name}, ${moveText(ranked.by)}: ${signatureText(ranked.fifths)}, ${hands}${voice}${keyboard}.`;
}
