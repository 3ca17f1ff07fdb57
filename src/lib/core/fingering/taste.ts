/**
 * The house's hand: what a teacher's own fingers say about what she minds and what she does not, as factors over the costs of the
 * rules, and as a liking for a finger on black or on white keys. Facts about hands stay facts: what a hand cannot do is no matter of taste.
 */
import { z } from 'zod';
import { RULES, type Rule } from './cost';
import type { Finger } from './grips';

/** Rules that only get dearer with taste, never cheaper: what they keep from happening is out of the hand's reach, or harms it. */
export const HARD_RULES: ReadonlySet<Rule> = new Set([
  'stretch',
  'let-go',
  'cross',
  'same-finger',
  'convention',
  'chord-shape',
  'same-figure',
]);
/** Bounds of a factor, and of what a finger on a colour may cost or save. */
export const FACTOR = { least: 0.5, most: 2.2 } as const;
export const TOUCH = 1.2;

const factor = z.number().min(FACTOR.least).max(FACTOR.most);

export const tasteSchema = z.object({
  /** By rule; a rule that is not named has 1. */
  factors: z.partialRecord(z.enum(RULES), factor),
  /** What each finger, 1 to 5, costs more (or less) on white keys, then on black ones. */
  touch: z.array(z.number().min(-TOUCH).max(TOUCH)).length(10),
});

export type Taste = z.infer<typeof tasteSchema>;

/** Nothing learned. */
export const NO_TASTE: Taste = { factors: {}, touch: new Array<number>(10).fill(0) };

export const isPlain = ({ factors, touch }: Taste): boolean =>
  touch.every((t) => t === 0) && Object.values(factors).every((f) => f === 1);

/** What method books have holds against any taste: departing from it costs so much more where other costs have been turned. */
const BOOKS_HOLD = 2;
const HELD: ReadonlySet<Rule> = new Set(['convention', 'chord-shape', 'same-figure']);

/** Factors in the order of RULES. */
export function factorsOf(taste: Taste): Float64Array {
  const books = isPlain(taste) ? 1 : BOOKS_HOLD;
  return Float64Array.from(RULES, (rule) => {
    const factor = taste.factors[rule] ?? 1;
    return HELD.has(rule) ? Math.max(books, factor) : factor;
  });
}

const FINGERS = ['the thumb', '2', '3', '4', '5'] as const;

/** What a rule is about, as a teacher would say that it matters more or less to her than to others. */
const MATTERS: Readonly<Partial<Record<Rule, readonly [more: string, less: string]>>> = {
  stretch: ['you avoid stretches', 'you don’t mind a stretch'],
  cramped: ['you give fingers room', 'you don’t mind crowded fingers'],
  wide: ['you keep the hand relaxed', 'you don’t mind a wide hand'],
  move: ['you keep the hand where it is', 'you don’t mind moving the hand'],
  'far-move': ['you keep moves small', 'you don’t mind long moves'],
  weak: ['you avoid the fourth and fifth fingers', 'you use the fourth and fifth fingers'],
  'three-four': ['you avoid 3 and 4 in a row', 'you don’t mind 3 and 4 in a row'],
  'three-four-five': ['you avoid weak fingers in a row', 'you don’t mind weak fingers in a row'],
  'black-thumb': ['you keep the thumb off black keys', 'you use the thumb on black keys'],
  'black-fifth': ['you keep the little finger off black keys', 'you use the little finger on black keys'],
  'four-on-black': ['you avoid 4 on a black key after 3', 'you use 4 on black keys after 3'],
  pass: ['you avoid thumb under', 'you like thumb under'],
  'same-finger': ['you never let one finger jump', 'you don’t mind a finger jumping'],
  'change-on-repeat': ['you keep one finger on a repeated key', 'you change fingers on a repeated key'],
  'quick-repeat': ['you change fingers on fast repeated notes', 'you repeat fast notes with one finger'],
  'chord-shape': ['you keep to standard chord fingering', 'you vary chord fingering'],
  convention: ['you prefer standard fingering', 'you depart from standard fingering'],
  'same-figure': ['you finger similar figures alike', 'you finger each place individually'],
};

/** Of how much a rule must differ from what is usual for it to be said. */
const WORTH_A_WORD = 0.12;

export interface Habit {
  /** "you prefer 2 to 3 on black keys" */
  readonly text: string;
  /** How strongly, 0 to 1. */
  readonly strength: number;
  readonly about: { readonly rule: Rule } | { readonly finger: Finger; readonly isBlack: boolean };
}

/** What has been learned, in words, the strongest first. */
export function habitsOf({ factors, touch }: Taste): Habit[] {
  const rules = RULES.flatMap((rule): Habit[] => {
    const value = factors[rule] ?? 1;
    const says = MATTERS[rule];
    const much = Math.abs(Math.log(value)) / Math.log(FACTOR.most);
    if (!says || much < WORTH_A_WORD) return [];
    return [{ text: says[value > 1 ? 0 : 1], strength: Math.min(1, much), about: { rule } }];
  });
  const fingers = [false, true].flatMap((isBlack): Habit[] => {
    const own = touch.slice(isBlack ? 5 : 0, isBlack ? 10 : 5);
    const liked = own.indexOf(Math.min(...own));
    return own.flatMap((cost, i): Habit[] => {
      const by = (cost - own[liked]!) / (2 * TOUCH);
      if (i === liked || by < WORTH_A_WORD || cost <= 0) return [];
      return [
        {
          text: `you prefer ${FINGERS[liked]} to ${FINGERS[i]} on ${isBlack ? 'black' : 'white'} keys`,
          strength: Math.min(1, by),
          about: { finger: (i + 1) as Finger, isBlack },
        },
      ];
    });
  });
  return [...rules, ...fingers].sort((a, b) => b.strength - a.strength);
}
