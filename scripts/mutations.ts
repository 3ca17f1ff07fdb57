/** Single changes to the rules, each of which a test must notice. A find text stands once in its file. */
export interface Mutation {
  readonly file: string;
  readonly find: string;
  readonly replace: string;
}

const inFile = (
  file: string,
  ...changes: readonly (readonly [find: string, replace: string])[]
): Mutation[] => changes.map(([find, replace]) => ({ file: `src/lib/core/${file}`, find, replace }));

export const MUTATIONS: readonly Mutation[] = [
  ...inFile(
    'fingering/cost.ts',
    ['finger === 4 ? 0.9 : 0.5', 'finger === 4 ? 0.1 : 0.5'],
    ['finger === 4 ? 0.9 : 0.5', 'finger === 4 ? 0.9 : 0'],
    ["'black-thumb', keys.length > 1 ? 0.4 : 1", "'black-thumb', keys.length > 1 ? 0.4 : 0"],
    ["'black-thumb', keys.length > 1 ? 0.4 : 1", "'black-thumb', keys.length > 1 ? 2 : 1"],
    ["'black-fifth', keys.length > 1 ? 0.3 : 0.8", "'black-fifth', keys.length > 1 ? 0.3 : 0"],
    ["'black-fifth', keys.length > 1 ? 0.3 : 0.8", "'black-fifth', keys.length > 1 ? 1.5 : 0.8"],
    [
      "if (b.isBlack && !a.isBlack && !isUsual(b, fb, model)) {\n    if (fb === 1) charge(bill, 'black-thumb', weight * 2)",
      "if (b.isBlack && !a.isBlack && !isUsual(b, fb, model)) {\n    if (fb === 1) charge(bill, 'black-thumb', weight * 0)",
    ],
    [
      "if (fa === 1) charge(bill, 'black-thumb', weight * 2)",
      "if (fa === 1) charge(bill, 'black-thumb', weight * 0)",
    ],
    [
      "if (fb === 5) charge(bill, 'black-fifth', weight * 1.5)",
      "if (fb === 5) charge(bill, 'black-fifth', weight * 0)",
    ],
    [
      "if (fa === 5) charge(bill, 'black-fifth', weight * 1.5)",
      "if (fa === 5) charge(bill, 'black-fifth', weight * 0)",
    ],
    ["'three-four', weight * 0.4", "'three-four', weight * 0"],
    ["'four-on-black', weight * 1", "'four-on-black', weight * 0"],
    ["'three-four-five', 0.5", "'three-four-five', 0"],
    ['high === 5 ? 10 :', 'high === 5 ? 3.5 :'],
    ['high === 2 ? 4.2 : 3.5', 'high === 2 ? 3.5 : 3.5'],
    ['high === 2 ? 4.2 : 3.5', 'high === 2 ? 4.2 : 1.5'],
    ['weight * (fingerKey.isBlack ? 2 : 4)', 'weight * (fingerKey.isBlack ? 2 : 0)'],
    ['-weight * 0.8', 'weight * 0'],
    ['weight * 2.5 * (model.steadiness - 1)', 'weight * 0 * (model.steadiness - 1)'],
    ['weight * (12 + 2 * (1 - distance))', 'weight * (1 + 2 * (1 - distance))'],
    ['weight * (11 + Math.min(11, distance))', 'weight * (2 + Math.min(11, distance))'],
    ['weight * (11 + Math.min(11, distance))', 'weight * (11 + Math.min(0, distance))'],
    ['fromGrip[i] !== toGrip[j]) cost += 3', 'fromGrip[i] !== toGrip[j]) cost += 0'],
    ["'cramped', weight * ((thumb ? 1 : 2)", "'cramped', weight * ((thumb ? 0 : 2)"],
    ["'cramped', weight * ((thumb ? 1 : 2)", "'cramped', weight * ((thumb ? 1 : 0)"],
    ['1.6 * model.steadiness * legato', '1.6 * legato'],
    ['0.35 * Math.min(beyond, 8) * model.steadiness', '0.35 * Math.min(beyond, 8)'],
    ['1.2 * model.steadiness * legato', '0 * model.steadiness * legato'],
    ['const OTHER_SHAPE = 1.6', 'const OTHER_SHAPE = 0.2'],
    ['const OTHER_THAN_FIGURE = 4', 'const OTHER_THAN_FIGURE = 0.1'],
    ["'chord-shape', 30", "'chord-shape', 1"],
    ["'let-go', 25", "'let-go', 0"],
  ),
  ...inFile(
    'analysis/hearChords.ts',
    ['const GOES_ON = 0.02', 'const GOES_ON = 0.5'],
    ['const FOREIGN_BASS = 0.7', 'const FOREIGN_BASS = 0'],
    ['const OUTSIDE_KEY = 0.32', 'const OUTSIDE_KEY = 0'],
    ['const SECONDARY_DOMINANT = 0.14', 'const SECONDARY_DOMINANT = 0.6'],
    ['const PASSING = 0.2', 'const PASSING = 1'],
    ['const SUSPENDED = 0.5', 'const SUSPENDED = 2'],
    ['const ANTICIPATED = 0.5', 'const ANTICIPATED = 2'],
    ['const INVERSION_COST = [0, 0.18, 0.3, 0.3, 0.4]', 'const INVERSION_COST = [0, 1.5, 1.5, 1.5, 1.5]'],
  ),
  ...inFile(
    'analysis/harmonise.ts',
    ['const PASSING = 0.2', 'const PASSING = 1.2'],
    ['const LEAPT = 1.4', 'const LEAPT = 0.2'],
    ['const SEVENTH = 0.35', 'const SEVENTH = 2'],
    ['const CHANGE_INSIDE = 0.75', 'const CHANGE_INSIDE = 0'],
    ['const CLOSES_ELSEWHERE = 0.9', 'const CLOSES_ELSEWHERE = 0'],
    ['const CLOSES_ON_DOMINANT = 0.15', 'const CLOSES_ON_DOMINANT = 2'],
    ['const ENDS_ELSEWHERE = 6', 'const ENDS_ELSEWHERE = 0'],
    ['const ENDS_WITHOUT_DOMINANT = 0.7', 'const ENDS_WITHOUT_DOMINANT = 0'],
    ['const BEGINS_ELSEWHERE = 0.7', 'const BEGINS_ELSEWHERE = 0'],
    ['const LEFT_OPEN = 0.55', 'const LEFT_OPEN = 0'],
    ['const AS_BEFORE = 1.2', 'const AS_BEFORE = 0'],
    ['const LEADS_NOWHERE = 1.5', 'const LEADS_NOWHERE = 0'],
  ),
  ...inFile(
    'analysis/degrees.ts',
    ["root: 2, kind: 'dominant', cost: 0.4, needs: 6", "root: 2, kind: 'dominant', cost: 0.4"],
    [
      "{ name: 'V', root: 1, kind: 'dominant', cost: 0.1, bars: 10 }",
      "{ name: 'V', root: 1, kind: 'dominant', cost: 0.1 }",
    ],
    [
      "{ name: 'VI', root: 3, kind: 'minor', cost: 0.5, bars: 8 }",
      "{ name: 'VI', root: 3, kind: 'minor', cost: -0.5 }",
    ],
    [
      "{ name: 'VII', root: -2, kind: 'major', cost: 0.1 },\n  { name: 'V', root: 1, kind: 'minor', cost: 0.3 }",
      "{ name: 'VII', root: -2, kind: 'major', cost: 2 },\n  { name: 'V', root: 1, kind: 'minor', cost: 0.3 }",
    ],
    ["'V IV': 0.6", "'V IV': -0.6"],
    ["'V I': -0.3", "'V I': 0.6"],
    ['const RESOLVES = -0.4', 'const RESOLVES = 1'],
  ),
  ...inFile(
    'pedal/pedal.ts',
    ['const LOW = 60', 'const LOW = 48'],
    ['const LONG = 1.5', 'const LONG = 1'],
    ['if (moment.isStaccato) return', 'if (false) return'],
    ['if (beginsPhrase) return', 'if (false) return'],
    [
      'bass.midi !== before.midi && Math.abs(bass.midi - before.midi) <= 2',
      'bass.midi !== before.midi && Math.abs(bass.midi - before.midi) <= 0',
    ],
  ),
  ...inFile(
    'transpose/transpose.ts',
    [
      'fifthsFor(keyAt(measureAt(score.measures, onset), onset), by.fifths)',
      'fifthsFor(measureAt(score.measures, onset).key, by.fifths)',
    ],
    ['changes: m.changes.map((c) => (c.key ? { ...c, key: moved(c.key) } : c))', 'changes: m.changes'],
    ['side * (b.fifths - a.fifths))[0]!', 'side * (a.fifths - b.fifths))[0]!'],
    ['const twin = Math.abs(alter) > 1 &&', 'const twin = Math.abs(alter) > 9 &&'],
    [
      'return Math.abs(alter) > 1 && Math.abs(fromFifths(place).alter) <= 1',
      'return Math.abs(alter) > 9 && Math.abs(fromFifths(place).alter) <= 1',
    ],
    ['fifths === 0 ? 0 : withinSix(moved) - key.fifths', 'withinSix(moved) - key.fifths'],
  ),
  ...inFile(
    'edits/history.ts',
    ['undone.length = 0', 'undone.length = undone.length'],
    ['undone.push(undoes)', 'undone.unshift(undoes)'],
    ['done.push(redoes)', 'done.unshift(redoes)'],
  ),
  ...inFile(
    'lessons/plan.ts',
    ["steps.has('right') || steps.has('right-counting')", "steps.has('right')"],
    ['export const SLOWEST = 30', 'export const SLOWEST = 40'],
    ['Math.min(goal, Math.max(SLOWEST', 'Math.min(999, Math.max(SLOWEST'],
    ["steps.has('both') || steps.has('faster') || steps.has('join')", "steps.has('both')"],
    ["steps.has('goal') || steps.has('memory')", "steps.has('goal')"],
    ['events.length <= chunk.to - chunk.from', 'events.length < 1'],
    ['(states[form.firstSeen[i]!] ?? state)', 'state'],
    [
      'elsewhere: [...elsewhere.values()].filter((event) => !event.undone)',
      'elsewhere: [...elsewhere.values()]',
    ],
  ),
  ...inFile(
    'decisions/holds.ts',
    ['shared * 2 > section.to', 'shared * 1 > section.to'],
    ['shared * 2 > section.to', 'shared * 9 > section.to'],
  ),
  ...inFile('performance/swing.ts', ['(inBeat * 4) / 3', 'inBeat'], ['inBeat % (beat / 4) !== 0', 'false']),
  ...inFile(
    'performance/dynamics.ts',
    ['export const STEP = 12', 'export const STEP = 24'],
    ['p: 56,', 'p: 66,'],
  ),
  ...inFile(
    'performance/articulation.ts',
    ['staccato: { length: 0.5 }', 'staccato: { length: 0.8 }'],
    ['accent: { louder: 16 }', 'accent: { louder: 0 }'],
  ),
  ...inFile(
    'performance/perform.ts',
    ['const HELD = 1.8', 'const HELD = 1'],
    ['goesOn ? ends[i + 1]! :', 'goesOn ? Infinity : Infinity;'],
  ),
  ...inFile(
    'fingering/cost.ts',
    ['const NEAREST_SHARE = 0.8', 'const NEAREST_SHARE = 0.1'],
    ['const NO_THUMB = 0.3', 'const NO_THUMB = 0'],
    ['if (to.lifts || isOutOfReach', 'if (isOutOfReach'],
  ),
  ...inFile(
    'fingering/figureShapes.ts',
    ['figure: 6', 'figure: 0'],
    ['bass: 2', 'bass: 0'],
    ['quickRepeat: 4', 'quickRepeat: 0'],
    ['!turnsBack(line, from, at)', 'false'],
  ),
  ...inFile('fingering/fiveFingers.ts', ['const WEIGHT = 3', 'const WEIGHT = 0']),
  ...inFile(
    'fingering/taste.ts',
    ['const BOOKS_HOLD = 2', 'const BOOKS_HOLD = 0.2'],
    ['const WORTH_A_WORD = 0.12', 'const WORTH_A_WORD = 5'],
  ),
  ...inFile('fingering/learnTaste.ts', ['factor: 0.06, touch: 0.12', 'factor: 0, touch: 0']),
  ...inFile('fingering/events.ts', ['!event.lifts &&\n', 'true &&\n']),
  ...inFile(
    'arrange/leftHand.ts',
    ['const APART = 1', 'const APART = 0'],
    ['|| isMuddy(strokes, stretch.chord)', '|| false'],
    ['const before = ends ? undefined : known.get(again)', 'const before = ends ? undefined : known.get("")'],
  ),
  ...inFile(
    'arrange/filling.ts',
    ['placeInMeasure(measure, note.onset) % beat !== 0', 'placeInMeasure(measure, note.onset) % beat === -1'],
    ['!justStruck.has(key.midi)', 'key.midi > 0'],
    ['held.every((c) =>', 'held.some(() => false) || held.every((c) => true ||'],
  ),
  ...inFile('arrange/patterns.ts', ['const SEVENTHS_FROM = 4', 'const SEVENTHS_FROM = 9']),
  ...inFile(
    'analysis/idiom.ts',
    ['const MOST_MEASURES = 0.5', 'const MOST_MEASURES = 2'],
    ['const SLOW = 84', 'const SLOW = 20'],
    ['[3, 0.7]', '[9, 0.7]'],
    ['const RAGGED = 0.75', 'const RAGGED = 99'],
  ),
  ...inFile(
    'performance/ornaments.ts',
    ['const STROKE = TICKS_PER_QUARTER / 8', 'const STROKE = TICKS_PER_QUARTER / 2'],
    ['[0, 1, 0, -1, 0], each', '[0, 1, 0, 1, 0], each'],
  ),
];
