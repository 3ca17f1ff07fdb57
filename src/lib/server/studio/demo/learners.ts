/** The learners of the demo studio, all invented: their hands, their pace, their pieces and how long they have come. */
import type { Strand } from '$core/difficulty/strands';
import type { MethodId } from '$core/lessons/plan';
import type { Recipe } from '$core/version/recipe';
import type { LearnerInput } from '../learners';

export type DemoPiece =
  'kite-weather' | 'mill-pond-waltz' | 'slow-ferry' | 'fox-at-the-gate' | 'teakettle-stroll' | 'long-shadows';

export interface DemoLearner {
  readonly learner: Omit<LearnerInput, 'weekday'>;
  /** Days from today to their next usual lesson: 0 is today. */
  readonly comesIn: number;
  /** Weeks of lessons that are filled in, and for how long they have come. */
  readonly lessons: number;
  readonly sinceWeeks: number;
  /** Steps that a week brings, and how well they go (1 to 4, as grades). */
  readonly steps: number;
  readonly skill: number;
  /** What is hard for them. */
  readonly weak: Strand;
  /** Weeks since the last lesson in which anything was gained; 0 where it goes on. */
  readonly stuckFor?: number;
  readonly given: readonly {
    readonly piece: DemoPiece;
    /** Weeks ago. */
    readonly since: number;
    readonly change?: Partial<Recipe>;
    readonly method?: MethodId;
    /** Days from today, where it is promised. */
    readonly promised?: number;
  }[];
}

const hands = (reachRight: number, reachLeft = reachRight) => ({ reachRight, reachLeft });
const NO_VOICE = { voiceLow: null, voiceHigh: null, school: null } as const;

export const DEMO_LEARNERS: readonly DemoLearner[] = [
  {
    learner: {
      name: 'Runa',
      time: '16:30',
      level: 2,
      ...hands(7),
      keyboard: 61,
      hasPedal: false,
      school: null,
      voiceLow: 'B3',
      voiceHigh: 'C5',
      minutesADay: 15,
      about: 'Eight. Sings everything she plays.',
    },
    comesIn: 0,
    lessons: 11,
    sinceWeeks: 36,
    steps: 3,
    skill: 2.9,
    weak: 'independence',
    given: [
      { piece: 'mill-pond-waltz', since: 11, change: { level: 1 } },
      { piece: 'kite-weather', since: 6, change: { key: 'C' }, promised: 66 },
    ],
  },
  {
    learner: {
      name: 'Teo',
      time: '17:15',
      level: 1,
      ...hands(8),
      keyboard: 49,
      hasPedal: false,
      ...NO_VOICE,
      minutesADay: 10,
      about: 'Nine. Hurries when it goes well.',
    },
    comesIn: 0,
    lessons: 12,
    sinceWeeks: 17,
    steps: 2,
    skill: 2.6,
    weak: 'rhythm',
    given: [{ piece: 'mill-pond-waltz', since: 12 }],
  },
  {
    learner: {
      name: 'Berit',
      time: '09:00',
      level: 3,
      ...hands(9),
      keyboard: 88,
      hasPedal: true,
      school: null,
      voiceLow: 'G3',
      voiceHigh: 'D5',
      minutesADay: 30,
      about: 'Practices before work. Wants to play for her choir.',
    },
    comesIn: 1,
    lessons: 24,
    sinceWeeks: 86,
    steps: 5,
    skill: 3.2,
    weak: 'leaps',
    given: [
      { piece: 'mill-pond-waltz', since: 24, change: { key: 'C' } },
      { piece: 'kite-weather', since: 15 },
      { piece: 'slow-ferry', since: 6, promised: 44 },
    ],
  },
  {
    learner: {
      name: 'Ottilie',
      time: '18:00',
      level: 4,
      ...hands(9, 8),
      keyboard: 88,
      hasPedal: true,
      ...NO_VOICE,
      minutesADay: 40,
      about: 'Sixteen. Reads fast, pedals too much.',
    },
    comesIn: 0,
    lessons: 20,
    sinceWeeks: 160,
    steps: 6,
    skill: 3.4,
    weak: 'chords',
    given: [
      { piece: 'long-shadows', since: 20, change: { level: 4 } },
      { piece: 'fox-at-the-gate', since: 8, change: { level: 4 }, method: 'hardest first', promised: 16 },
    ],
  },
  {
    learner: {
      name: 'Kasimir',
      time: '15:45',
      level: 2,
      ...hands(8),
      keyboard: 76,
      hasPedal: true,
      ...NO_VOICE,
      minutesADay: 20,
      about: 'Seventy-one, began last winter. Left hand tires: short turns.',
    },
    comesIn: 0,
    lessons: 18,
    sinceWeeks: 48,
    steps: 2,
    skill: 2.4,
    weak: 'speed',
    stuckFor: 2,
    given: [
      { piece: 'slow-ferry', since: 18, change: { level: 2 } },
      { piece: 'teakettle-stroll', since: 5, change: { level: 2 } },
    ],
  },
  {
    learner: {
      name: 'Sunniva',
      time: '14:30',
      level: 1,
      ...hands(7),
      keyboard: 61,
      hasPedal: false,
      school: 'ta-titi',
      ...{ voiceLow: null, voiceHigh: null },
      minutesADay: 10,
      about: 'Seven. Two stickers for a left hand alone.',
    },
    comesIn: 2,
    lessons: 9,
    sinceWeeks: 10,
    steps: 2,
    skill: 2.7,
    weak: 'reading',
    given: [
      {
        piece: 'kite-weather',
        since: 9,
        change: { level: 1, key: 'C' },
        method: 'both hands from the start',
      },
    ],
  },
  {
    learner: {
      name: 'Jory',
      time: '16:00',
      level: 3,
      ...hands(10, 9),
      keyboard: 88,
      hasPedal: true,
      school: null,
      voiceLow: 'A2',
      voiceHigh: 'E4',
      minutesADay: 25,
      about: 'Thirteen. Brings his own songs.',
    },
    comesIn: 3,
    lessons: 16,
    sinceWeeks: 60,
    steps: 4,
    skill: 2.9,
    weak: 'rhythm',
    given: [
      { piece: 'teakettle-stroll', since: 16, change: { level: 3 } },
      { piece: 'fox-at-the-gate', since: 4, change: { level: 3 } },
    ],
  },
  {
    learner: {
      name: 'Maelle',
      time: '17:30',
      level: 2,
      ...hands(7, 8),
      keyboard: 61,
      hasPedal: false,
      ...NO_VOICE,
      minutesADay: 15,
      about: 'Ten. Plays for her brother every Sunday.',
    },
    comesIn: 4,
    lessons: 14,
    sinceWeeks: 30,
    steps: 3,
    skill: 3,
    weak: 'chords',
    given: [
      { piece: 'fox-at-the-gate', since: 14, change: { level: 2 } },
      { piece: 'kite-weather', since: 3, change: { level: 2 } },
    ],
  },
  {
    learner: {
      name: 'Halvard',
      time: '11:00',
      level: 5,
      ...hands(10),
      keyboard: 88,
      hasPedal: true,
      ...NO_VOICE,
      minutesADay: 45,
      about: 'Forty-four. Played as a child; wants to understand harmony.',
    },
    comesIn: 5,
    lessons: 22,
    sinceWeeks: 52,
    steps: 6,
    skill: 3.3,
    weak: 'speed',
    given: [
      { piece: 'slow-ferry', since: 22, change: { level: 5 } },
      { piece: 'long-shadows', since: 9, change: { level: 5 }, promised: 60 },
    ],
  },
  {
    learner: {
      name: 'Wren',
      time: '15:00',
      level: 2,
      ...hands(8),
      keyboard: 61,
      hasPedal: true,
      ...NO_VOICE,
      minutesADay: 15,
      about: 'Eleven. Learns by ear first.',
    },
    comesIn: 6,
    lessons: 13,
    sinceWeeks: 40,
    steps: 3,
    skill: 2.5,
    weak: 'reading',
    stuckFor: 2,
    given: [
      { piece: 'teakettle-stroll', since: 13, change: { level: 2, key: 'C' } },
      { piece: 'mill-pond-waltz', since: 4, change: { level: 2 }, promised: 50 },
    ],
  },
  {
    learner: {
      name: 'Pell',
      time: '18:45',
      level: 1,
      ...hands(8),
      keyboard: 61,
      hasPedal: false,
      ...NO_VOICE,
      minutesADay: 12,
      about: 'Nine. New since last month.',
    },
    comesIn: 1,
    lessons: 3,
    sinceWeeks: 3,
    steps: 2,
    skill: 2.8,
    weak: 'independence',
    given: [{ piece: 'slow-ferry', since: 3, change: { level: 1 } }],
  },
  {
    learner: {
      name: 'Ilka',
      time: '13:30',
      level: 3,
      ...hands(8),
      keyboard: 88,
      hasPedal: true,
      ...NO_VOICE,
      minutesADay: 20,
      about: 'Needs a new piece soon.',
    },
    comesIn: 3,
    lessons: 17,
    sinceWeeks: 70,
    steps: 7,
    skill: 3.5,
    weak: 'leaps',
    given: [{ piece: 'mill-pond-waltz', since: 17, change: { level: 3 } }],
  },
];
