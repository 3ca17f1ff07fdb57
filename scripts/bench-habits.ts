/**
 * `npm run bench:habits`: three simulated teachers with preferences that the program does not know finger phrases, correcting its
 * proposals note by note. Printed is how many corrections unseen phrases need before and after a hundred and fifty decisions, and
 * whether standard fingerings are still standard.
 */
import { RULES } from '../src/lib/core/fingering/cost';
import type { Hand } from '../src/lib/core/fingering/events';
import type { Finger } from '../src/lib/core/fingering/grips';
import { learnTaste, type FingerExample } from '../src/lib/core/fingering/learnTaste';
import { fingerLine, type FingeringSettings } from '../src/lib/core/fingering/solve';
import { habitsOf, NO_TASTE, type Taste } from '../src/lib/core/fingering/taste';
import { keysLine } from '../src/lib/core/test/keysLine';
import { STANDARD_FINGERINGS, standardFound } from '../src/lib/core/test/standardFingerings';

const DECISIONS = 150;
const UNSEEN = 120;
/** Share of corrections that are to be spared. */
const GOAL = 0.4;
/** A teacher is not quite consistent: one finger in so many is another good one. */
const WHIM = 30;

/** Numbers from 0 to 1, the same in every run. */
function randomFrom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

interface Phrase {
  readonly hand: Hand;
  readonly keys: readonly (number | readonly number[])[];
}

const MAJOR = [0, 2, 4, 5, 7, 9, 11];
const TONICS = [0, 7, 2, 9, 4, 5, 10, 3, 8];

/** A phrase as tunes and accompaniments have them: mostly steps, some skips and leaps, now and then a third or a triad. */
function phrase(random: () => number): Phrase {
  const hand: Hand = random() < 0.7 ? 'right' : 'left';
  const tonic = TONICS[Math.floor(random() * TONICS.length)]!;
  const keyOf = (degree: number): number =>
    (hand === 'right' ? 60 : 43) + tonic + MAJOR[((degree % 7) + 7) % 7]! + 12 * Math.floor(degree / 7);
  let degree = Math.floor(random() * 6);
  const keys: (number | number[])[] = [];
  const length = 8 + Math.floor(random() * 9);
  for (let i = 0; i < length; i++) {
    const dice = random();
    const step = dice < 0.6 ? 1 : dice < 0.82 ? 2 : dice < 0.94 ? 3 : 4;
    degree += random() < 0.5 ? step : -step;
    degree = Math.max(-3, Math.min(9, degree));
    if (random() < 0.06) keys.push([keyOf(degree), keyOf(degree + 2)]);
    else keys.push(keyOf(degree));
  }
  return { hand, keys };
}

interface Teacher {
  readonly name: string;
  readonly taste: Taste;
}

const touch = (own: Readonly<Record<string, number>>): number[] => {
  const list = new Array<number>(10).fill(0);
  for (const [place, cost] of Object.entries(own))
    list[Number(place.slice(1)) - 1 + (place[0] === 'b' ? 5 : 0)] = cost;
  return list;
};

const TEACHERS: readonly Teacher[] = [
  {
    name: 'the strong fingers',
    taste: {
      factors: { weak: 2.4, 'three-four': 2.2, pass: 0.5 },
      touch: touch({ b2: -0.8, b3: 0.6, w4: 0.5, b4: 0.7 }),
    },
  },
  {
    name: 'the still hand',
    taste: {
      factors: { move: 2.2, 'far-move': 2, pass: 2.2, weak: 0.4, cramped: 0.5 },
      touch: touch({ w5: -0.6, w4: -0.4 }),
    },
  },
  {
    name: 'the thumb anywhere',
    taste: {
      factors: { 'black-thumb': 0.4, wide: 2.3, stretch: 2, move: 0.5 },
      touch: touch({ b1: -0.9, w1: -0.5, w2: 0.5 }),
    },
  },
];

interface Fingered {
  readonly corrections: number;
  readonly examples: readonly FingerExample[];
}

/** A teacher goes along a phrase and corrects what she would not write, until it is hers. */
function correct({ hand, keys }: Phrase, teacher: Teacher, taste: Taste, random: () => number): Fingered {
  const { notes, settings } = keysLine(keys, hand);
  const hers = fingerLine(notes, { ...settings, taste: teacher.taste }).fingers;
  const locks = new Map<string, Finger>();
  const examples: FingerExample[] = [];
  for (;;) {
    const now: FingeringSettings = {
      ...settings,
      locks: new Map(locks),
      ...(taste === NO_TASTE ? {} : { taste }),
    };
    const proposed = fingerLine(notes, now).fingers;
    const wrong = notes.find((n) => !locks.has(n.id) && proposed.get(n.id) !== hers.get(n.id));
    if (!wrong) return { corrections: examples.length, examples };
    const whim = random() < 1 / WHIM;
    const finger = whim ? proposed.get(wrong.id)! : hers.get(wrong.id)!;
    examples.push({ notes, settings: { ...settings, locks: new Map(locks) }, note: wrong.id, finger });
    locks.set(wrong.id, finger);
  }
}

const sum = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);

/** Standard fingerings that come out as books have them. */
const standard = (taste: Taste): number =>
  STANDARD_FINGERINGS.filter((one) =>
    one.fingers.includes(standardFound(one, taste === NO_TASTE ? {} : { taste })),
  ).length;

let met = true;
const usual = standard(NO_TASTE);
for (const [t, teacher] of TEACHERS.entries()) {
  const random = randomFrom(1000 + t);
  const examples: FingerExample[] = [];
  while (examples.length < DECISIONS)
    examples.push(...correct(phrase(random), teacher, NO_TASTE, random).examples);
  const start = performance.now();
  const taste = learnTaste(examples.slice(0, DECISIONS));
  const learning = performance.now() - start;
  const unseen = Array.from({ length: UNSEEN }, () => phrase(random));
  const corrections = (own: Taste): number =>
    sum(unseen.map((p) => correct(p, teacher, own, () => 1).corrections));
  const [before, after, kept] = [corrections(NO_TASTE), corrections(taste), standard(taste)];
  if (process.env.WHICH)
    console.log(
      STANDARD_FINGERINGS.filter((one) => !one.fingers.includes(standardFound(one, { taste })))
        .map((o) => `${o.name} ${o.hand} ${standardFound(o, { taste })} ${o.fingers}`)
        .join('\n'),
    );
  const spared = 1 - after / before;
  if (spared < GOAL || kept < usual) met = false;
  console.log(
    `${teacher.name.padEnd(20)} ${before} corrections before, ${after} after ${DECISIONS} decisions: ${Math.round(100 * spared)} % fewer (goal ${100 * GOAL}); standard fingerings ${kept} of ${STANDARD_FINGERINGS.length} (${usual} before); learned in ${Math.round(learning)} ms`,
  );
  for (const habit of habitsOf(taste).slice(0, 6))
    console.log(`    ${habit.text} (${habit.strength.toFixed(2)})`);
  console.log(
    `    factors ${RULES.filter((r) => taste.factors[r])
      .map((r) => `${r} ${taste.factors[r]!.toFixed(2)}`)
      .join(', ')}`,
  );
}
console.log(met ? '\nAll within their goals.' : '\nNot within the goals.');
if (!met) process.exitCode = 1;
