/**
 * Which key suits a learner best: every key realised at the level and judged by what the eyes, the hands, the voice and
 * the keyboard have to do in it. Smaller is better in every column. A first ranking; issue 6 deepens it.
 */
import type { Score } from '../score/score';
import { shownAccidentals } from '../score/accidentals';
import { endOf } from '../score/metre';
import { toMidi, type Pitch } from '../score/pitch';
import { soundingNotes } from '../score/query';
import { fingerHand } from '../fingering/fingerHand';
import { KEYBOARDS, REACH_SEMITONES } from '../arrange/register';
import { realise } from '../version/realise';
import type { Recipe } from '../version/recipe';
import { keyCode, type Key } from '../theory/key';
import { keyOptions } from '../theory/easyKeys';
import { transpositionTo } from '../transpose/transpose';
import { keyOf } from '../analysis/key';

export interface RankedKey {
  readonly key: string;
  readonly fifths: number;
  /** Signed semitones from the source's key. */
  readonly by: number;
  readonly total: number;
  readonly reading: number;
  readonly hands: number;
  readonly voice: number;
  readonly keyboard: number;
  readonly distance: number;
}

export interface VoiceRange {
  readonly low: Pitch;
  readonly high: Pitch;
}

/** Weights of the criteria in the sum. */
const WEIGHTS = { reading: 1, hands: 2, voice: 20, keyboard: 5, distance: 0.1 } as const;

/** All keys of the source's mode, the best first. */
export function rankKeys(source: Score, recipe: Recipe, voice?: VoiceRange): RankedKey[] {
  const sourceKey = keyOf(source);
  return keyOptions(sourceKey.mode)
    .map(({ code, fifths }): RankedKey => {
      const key: Key = { fifths, mode: sourceKey.mode };
      const version = realise(source, { ...recipe, key: code }, []);
      const part = version.score.parts[0]!;
      const notes = soundingNotes(part.notes);
      const signature = Math.abs(fifths);
      const accidentals = version.score.measures.reduce(
        (sum, m) =>
          sum +
          shownAccidentals(
            m,
            part.notes.filter((n) => n.onset >= m.start && n.onset < endOf(m)),
          ).size,
        0,
      );
      const hands = (['right', 'left'] as const).reduce((sum, hand) => {
        const { fingering } = fingerHand(version.score, part, hand, version.form, {
          reach: REACH_SEMITONES[recipe.reach[hand]],
          locks: new Map(),
          steadiness: 1,
        });
        return sum + fingering.cost;
      }, 0);
      const { low, high } = KEYBOARDS[recipe.keyboard];
      const melody = notes.filter((n) => n.staff === 1);
      const by = transpositionTo(sourceKey, key).semitones;
      const columns = {
        reading: signature + (accidentals * 10) / Math.max(1, notes.length),
        hands: hands / Math.max(1, notes.length),
        voice: voice ? outsideVoice(melody, voice) : 0,
        keyboard: notes.filter((n) => n.midi < low || n.midi > high).length,
        distance: Math.abs(by),
      };
      const total = (Object.keys(WEIGHTS) as (keyof typeof WEIGHTS)[]).reduce(
        (sum, name) => sum + WEIGHTS[name] * columns[name],
        0,
      );
      const round = (n: number): number => Math.round(n * 1000) / 1000;
      return {
        key: keyCode(key),
        fifths,
        by,
        total: round(total),
        reading: round(columns.reading),
        hands: round(columns.hands),
        voice: round(columns.voice),
        keyboard: columns.keyboard,
        distance: columns.distance,
      };
    })
    .sort((a, b) => a.total - b.total || a.distance - b.distance);
}

/** Share of the melody's duration outside the comfortable range; beyond a whole tone outside it counts double. */
function outsideVoice(melody: readonly { midi: number; duration: number }[], voice: VoiceRange): number {
  const [low, high] = [toMidi(voice.low), toMidi(voice.high)];
  const total = melody.reduce((sum, n) => sum + n.duration, 0) || 1;
  const outside = melody.reduce((sum, n) => {
    const beyond = Math.max(0, low - n.midi, n.midi - high);
    return sum + n.duration * (beyond === 0 ? 0 : beyond > 2 ? 2 : 1);
  }, 0);
  return outside / total;
}
