/** What articulations do to a note, as pianists are taught: facts only. */
import type { Articulation } from '../../score/score';

interface Effect {
  /** Share of the written length that sounds. */
  readonly length?: number;
  /** Added to the velocity. */
  readonly louder?: number;
}

/** A dynamic step is twelve (dynamics.ts): an accent is a little more than one. */
const EFFECTS: Readonly<Partial<Record<Articulation, Effect>>> = {
  accent: { louder: 16 },
  'strong-accent': { louder: 24, length: 0.85 },
  'soft-accent': { louder: 8 },
  stress: { louder: 8 },
  unstress: { louder: -8 },
  staccato: { length: 0.5 },
  staccatissimo: { length: 0.3 },
  spiccato: { length: 0.4 },
  'detached-legato': { length: 0.75 },
  'breath-mark': { length: 0.85 },
  caesura: { length: 0.75 },
};

/** Length and loudness of all articulations of a note together: the shortest length, the sum of what they add. */
export function articulated(articulations: readonly Articulation[]): { length: number; louder: number } {
  const effects = articulations.flatMap((name) => EFFECTS[name] ?? []);
  return {
    length: Math.min(1, ...effects.map((e) => e.length ?? 1)),
    louder: effects.reduce((sum, e) => sum + (e.louder ?? 0), 0),
  };
}
