/** What sheets are made from: a version, whose it is, and ways to have it otherwise. */
import type { LevelContract } from '$core/arrange/levels';
import { decide } from '$core/decisions/decide';
import type { Decision } from '$core/decisions/registry';
import type { VoiceRange } from '$core/keys/rank';
import { chunksIn, proposedPlan, type Chunk } from '$core/lessons/plan';
import type { Score } from '$core/score/score';
import type { Recipe } from '$core/version/recipe';
import { realise, type Version } from '$core/version/realise';
import type { Places } from '$core/score/places';
import { toLearn } from '$core/version/toLearn';
import type { Choices } from './choices';

/** One thing to practise in the week. */
export interface ToPractise {
  /** The piece, where it is another than the sheet's. */
  readonly piece: string | null;
  /** Where they are of this version. */
  readonly places: Places | undefined;
  readonly measures: string;
  readonly steps: readonly string[];
  /** "♩ = 60"; null where nothing is at a tempo. */
  readonly tempo: string | null;
  /** A day. */
  readonly minutes: number;
}

/** What is set for a week. */
export interface WeekSet {
  readonly minutesADay: number;
  readonly items: readonly ToPractise[];
  readonly note: string;
}

export interface Source {
  readonly title: string;
  readonly composer: string;
  readonly recipe: Recipe;
  readonly version: Version;
  /** Which state of the version it is, at the foot of its pages: "change 12"; empty where it has none. */
  readonly state: string;
  readonly learner: string | null;
  readonly voice: VoiceRange | null;
  readonly week: WeekSet | null;
  /** The link of the learner's practice room. */
  readonly room: string | null;
  readonly chunks: readonly Chunk[];
  /** The lowest level, not below the version's, at which the right hand holds whole chords. */
  readonly chordLevel: number;
  readonly choices: Choices;
  /** The same piece with other settings, or with more decided. Throws as realise does. */
  readonly otherwise: (change: Partial<Recipe>, decided?: readonly Decision[]) => Version;
}

/** How wide a sheet is, in points. */
export interface Frame {
  readonly width: number;
  readonly height: number;
  /** Measures of music that are enough: whoever wants to see how it begins waits for no more. */
  readonly enough?: number;
}

/** What a source is made of. What is left out is as the piece has it, and for nobody. */
interface Given
  extends
    Pick<Source, 'recipe' | 'choices'>,
    Partial<Pick<Source, 'title' | 'composer' | 'state' | 'learner' | 'voice' | 'week' | 'room'>> {
  /** The piece, its parts chosen. */
  readonly score: Score;
  readonly decisions: readonly Decision[];
  readonly levels: readonly LevelContract[];
  /** Its plan; the first that would be proposed where there is none. */
  readonly chunks?: readonly Chunk[];
}

/** Fewer keys in the right hand are no chord. */
const WHOLE_CHORD = 3;

const chordLevelFrom = (level: number, levels: readonly LevelContract[]): number =>
  levels.find((l) => l.level >= level && (l.rightNotes ?? Infinity) >= WHOLE_CHORD)?.level ?? level;

/** Makes the version, and keeps the way to make it otherwise. Throws as realise does. */
export function sourceOf({ score, decisions, levels, chunks, ...own }: Given): Source {
  const version = realise(score, own.recipe, decisions, levels);
  const music = toLearn(version);
  return {
    title: score.title,
    composer: score.composer,
    state: '',
    learner: null,
    voice: null,
    week: null,
    room: null,
    ...own,
    version,
    chordLevel: chordLevelFrom(own.recipe.level, levels),
    chunks: chunks ?? chunksIn(proposedPlan(music, 'front to back'), music, version.goalTempo),
    otherwise: (change, decided = []) =>
      realise(score, { ...own.recipe, ...change }, decide(decisions, ...decided), levels),
  };
}
