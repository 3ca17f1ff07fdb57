/** The chord sheet: each section's chords in order on the keyboard, the shapes that one chord has, and what the key itself has. */
import { capital } from '$core/capital';
import { heldChords, movesText, namesOf, strokesText, type HeldChord } from '$core/chords/held';
import { chordsIn, scaleIn, type FingeredInversion } from '$core/chords/reference';
import { plural } from '$core/plural';
import { pitchClassName, toMidi } from '$core/theory/pitch';
import { measureText } from '$core/score/measureText';
import { chordSymbol, numberDegree } from '$core/theory/chord';
import { inMode, keyCode, keyName, parseKey, tonicName, type Key } from '$core/theory/key';
import { inAllKeys } from '$core/transpose/allKeys';
import type { Version } from '$core/version/realise';
import { QUIET } from '$lib/engrave/look';
import {
  block,
  columns,
  columnWidth,
  heading,
  moved,
  NEVER,
  paragraph,
  smallHeading,
  SMALL,
  TEXT,
  together,
  type Block,
} from '../block';
import { keyboardPicture, keyRange } from '../keyboard';
import type { Frame, Source } from '../source';
import { fitting, linesOf, textAt, textWidth, type TextStyle } from '../text';
import { chordHandOf } from './chordHand';
import { head, levelLine } from './head';

/** How many pictures stand beside each other, and how wide a white key is at most, by the size of the paper's letters. */
const BY_SIZE = {
  normal: { columns: 2, key: 13 },
  large: { columns: 2, key: 15 },
  'very large': { columns: 1, key: 20 },
} as const;
const GUTTER = 26;

const SYMBOL: TextStyle = { size: 16, isBold: true };
const DEGREE: TextStyle = { size: 10.5, fill: QUIET };
const NAMES: TextStyle = { size: 11 };

/** Chord sheets in the keys that are chosen, each from a page of its own, with contents where there are several. */
export function chordSheets(source: Source, frame: Frame): Block[] {
  const keys = keysOf(source);
  if (keys.length === 1) return sheetIn(source, keys[0]!, frame);
  return [
    ...contents(source, keys, frame.width),
    ...keys.flatMap((key) => sheetIn(source, key, frame, true)),
  ];
}

/** The keys that are asked for, in the version's mode. */
export function keysOf({ choices, version }: Source): readonly Key[] {
  if (choices.keys === 'all') return inAllKeys(version.score).map(({ key }) => key);
  const asked = choices.keys.flatMap((code) => {
    const key = parseKey(code);
    return key ? [inMode(key, version.key.mode)] : [];
  });
  return asked.length > 0 ? asked : [version.key];
}

function contents(source: Source, keys: readonly Key[], width: number): Block[] {
  return [
    head(source, width, `chords in ${plural(keys.length, 'key')}, one page for each`),
    ...keys.map((key) =>
      paragraph(`${keyName(key)}: ${chordNames(source, key).join('  ')}`, width, TEXT, { gap: 6 }),
    ),
  ];
}

/** The chords of the piece in a key, each once. */
const chordNames = (source: Source, key: Key): string[] => [
  ...new Set(inKey(source, key).chords.flatMap(({ chord }) => (chord ? [chordSymbol(chord)] : []))),
];

const inKey = (source: Source, key: Key): Version =>
  keyCode(key) === keyCode(source.version.key) ? source.version : source.otherwise({ key: keyCode(key) });

function sheetIn(source: Source, key: Key, { width }: Frame, isOneOfMany = false): Block[] {
  const version = inKey(source, key);
  const right = chordHandOf(source, version, key);
  const own = { ...source, version };
  const { columns: count, key: widest } = BY_SIZE[source.choices.size];
  const each = columnWidth(count, width, GUTTER);
  const bySection = version.form.sections.map((section) => ({
    section,
    chords: heldChords(version, section, right),
  }));
  const range = keyRange(bySection.flatMap(({ chords }) => chords.flatMap((c) => c.keys.map((k) => k.midi))));
  const isTune = right !== version;
  const picture = (chords: readonly HeldChord[]) =>
    chords.map((chord, i) => chordBlock(own, chord, chords[i - 1], { range, width: each, widest }));
  return [
    {
      ...head(own, width, `chords, ${levelLine(own)}`),
      beginsPage: isOneOfMany,
      ...(isOneOfMany ? { inOutline: `in ${keyName(key)}` } : {}),
    },
    paragraph(
      `Square: left hand. Round: right hand${isTune ? ', the chord to hold instead of the melody' : ''}. Filled: stays from the chord before.`,
      width,
      SMALL,
      { gap: 8, endsPage: NEVER },
    ),
    ...bySection.flatMap(({ section, chords }, i): Block[] => {
      if (chords.length === 0) return [];
      const name = heading(section.label, width);
      const pictures = picture(chords);
      for (const model of bySection.slice(0, i)) {
        const places = otherwiseIn(chords, model.chords);
        if (!places || places.length > FEW) continue;
        const says = `The same chords as ${model.section.label}${places.length > 0 ? ', but for this' : ''}.`;
        const others = places.map((place) => pictures[place]!);
        return [name, paragraph(says, width, TEXT, { gap: 10 }), ...columns(others, count, width, GUTTER)];
      }
      return [name, ...columns(pictures, count, width, GUTTER)];
    }),
    ...shapeBlocks(
      version,
      bySection.flatMap((s) => s.chords),
      range,
      width,
    ),
    ...referenceBlocks(key, width),
  ];
}

/** Of two rows of chords, the places at which they are held otherwise; undefined where they are not the same chords. */
function otherwiseIn(row: readonly HeldChord[], model: readonly HeldChord[]): number[] | undefined {
  if (row.length !== model.length || row.some((c, i) => c.symbol !== model[i]!.symbol)) return undefined;
  const look = ({ keys }: HeldChord): string => keys.map((k) => `${k.hand}${k.midi}${k.finger}`).join();
  return row.flatMap((chord, i) => (look(chord) === look(model[i]!) ? [] : [i]));
}

/** A section that has an earlier one's chords all but for so few shows only those. */
const FEW = 2;

interface PictureSize {
  readonly range: { readonly low: number; readonly high: number };
  readonly width: number;
  readonly widest: number;
}

/** One chord: its name and number, its notes, the keyboard, and how the hands get there. */
function chordBlock(
  { version }: Source,
  chord: HeldChord,
  before: HeldChord | undefined,
  { range, width, widest }: PictureSize,
): Block {
  const names = namesOf(chord);
  const keyboard = keyboardPicture(range, chord.keys, width, widest);
  const symbolWidth = textWidth(chord.symbol, SYMBOL);
  const number = numberDegree(chord.chord, version.key);
  const moves = (['left', 'right'] as const).flatMap((hand) => {
    const text = movesText(before, chord, hand);
    return text ? [`${hand === 'left' ? 'Left' : 'Right'}: ${text}.`] : [];
  });
  const says = `${[...moves, capital(strokesText(chord))].join(' ')}, ${measureText(version.score.measures[chord.measure]!.number)}.`;
  const lines = linesOf(says, width, SMALL);
  const top = 21;
  return block({
    height: top + keyboard.height + lines.length * 12.5 + 2,
    drawn: [
      textAt(0, 15, chord.symbol, SYMBOL),
      textAt(symbolWidth + 8, 15, number, DEGREE),
      textAt(width, 15, fitting(names, width - symbolWidth - 40, NAMES), NAMES, 'end'),
      moved(0, top, keyboard.drawn),
      ...lines.map((line, i) => textAt(0, top + keyboard.height + 10.5 + i * 12.5, line, SMALL)),
    ],
    says: `${chord.symbol}: ${chord.keys
      .map((k) => `${pitchClassName(k.pitch)} ${k.hand}${k.finger ? ` ${k.finger}` : ''}`)
      .join(', ')}. ${says}`,
    gap: 10,
    endsPage: 6,
  });
}

/** How often a chord stands in one shape, and how it does so first. */
interface Shape {
  readonly chord: HeldChord;
  readonly count: number;
}

/** Chord names that stand in more than one shape, with each of them, the commonest first. */
function shapesOf(chords: readonly HeldChord[]): (readonly [symbol: string, shapes: readonly Shape[]])[] {
  const found = new Map<string, Map<string, Shape>>();
  for (const chord of chords) {
    const shapes = found.get(chord.symbol) ?? new Map<string, Shape>();
    const look = chord.keys.map((k) => `${k.hand}${k.midi}`).join();
    const known = shapes.get(look);
    found.set(
      chord.symbol,
      shapes.set(look, { chord: known?.chord ?? chord, count: (known?.count ?? 0) + 1 }),
    );
  }
  return [...found]
    .map(([symbol, shapes]) => [symbol, [...shapes.values()].sort((a, b) => b.count - a.count)] as const)
    .filter(([, shapes]) => shapes.length > 1);
}

/** The shapes of one chord side by side. */
function shapeBlocks(
  version: Version,
  chords: readonly HeldChord[],
  range: PictureSize['range'],
  width: number,
): Block[] {
  const several = shapesOf(chords);
  if (several.length === 0) return [];
  const each = columnWidth(REFERENCE_COLUMNS, width, REFERENCE_GUTTER);
  return [
    heading('The same chord in several voicings', width),
    ...several.flatMap(([symbol, shapes]): Block[] => {
      const pictures = shapes.map(({ chord, count }) => {
        const keyboard = keyboardPicture(
          range,
          chord.keys.map(({ stays: _stays, ...k }) => k),
          each,
          11,
        );
        const says = `${plural(count, 'time')}, first in ${measureText(version.score.measures[chord.measure]!.number)}`;
        return block({
          height: keyboard.height + 13,
          drawn: [...keyboard.drawn, textAt(0, keyboard.height + 9, fitting(says, each, SMALL), SMALL)],
          says: `${symbol} as ${chord.keys.map((k) => pitchClassName(k.pitch)).join(' ')}, ${says}`,
          gap: 6,
          endsPage: 4,
        });
      });
      const [first, ...rest] = columns(pictures, REFERENCE_COLUMNS, width, REFERENCE_GUTTER);
      return [
        together([smallHeading(symbol, width), first!], {
          says: `${symbol} in ${shapes.length} shapes: ${first!.says}`,
          endsPage: 4,
          gap: 8,
        }),
        ...rest,
      ];
    }),
  ];
}

const INVERSION_NAMES = ['root position', 'first inversion', 'second inversion', 'third inversion'];
const REFERENCE_COLUMNS = 3;
const REFERENCE_GUTTER = 18;

/** The key by itself: its scale with fingers, and its chords in all inversions. */
function referenceBlocks(key: Key, width: number): Block[] {
  const scale = scaleIn(key);
  const signature = scale.signature.length === 0 ? 'no sharps or flats' : scale.signature.join(', ');
  const each = columnWidth(REFERENCE_COLUMNS, width, REFERENCE_GUTTER);
  const chords = chordsIn(key);
  const range = keyRange(chords.flatMap((c) => c.inversions.flatMap((v) => v.pitches.map(toMidi))));
  return [
    heading(`The key of ${tonicName(key)} ${key.mode}`, width),
    scaleBlock(scale, width),
    paragraph(`Signature: ${signature}.`, width, TEXT, { gap: 8 }),
    ...chords.flatMap(({ symbol, degree, names, inversions }): Block[] => {
      const row = columns(
        inversions.map((v) => inversionBlock(v, symbol, range, each)),
        REFERENCE_COLUMNS,
        width,
        REFERENCE_GUTTER,
      );
      return [
        together([smallHeading(`${symbol}   ${degree}   ${names}`, width), ...row.slice(0, 1)], {
          says: `${symbol}, ${names}, in ${inversions.length} inversions`,
          endsPage: 4,
          gap: 8,
        }),
        ...row.slice(1),
      ];
    }),
  ];
}

/** The scale as a small table: names, and below them the fingers of each hand. */
function scaleBlock({ names, right, left }: ReturnType<typeof scaleIn>, width: number): Block {
  const step = Math.min(40, (width - 90) / names.length);
  const row = (label: string, cells: readonly (string | number)[], y: number, isBold = false) => [
    textAt(0, y, label, SMALL),
    ...cells.map((cell, i) => textAt(90 + i * step, y, String(cell), { size: 11, isBold })),
  ];
  return block({
    height: 52,
    drawn: [...row('Scale', names, 12, true), ...row('Right hand', right, 28), ...row('Left hand', left, 44)],
    says: `Scale ${names.join(' ')}; right hand ${right.join(' ')}; left hand ${left.join(' ')}`,
    gap: 4,
    endsPage: 4,
  });
}

function inversionBlock(
  { inversion, pitches, right, left }: FingeredInversion,
  symbol: string,
  range: { readonly low: number; readonly high: number },
  width: number,
): Block {
  const marks = pitches.map((pitch, i) => ({
    midi: toMidi(pitch),
    hand: 'right' as const,
    finger: right[i]!,
  }));
  const keyboard = keyboardPicture(range, marks, width, 11);
  const says = `${INVERSION_NAMES[inversion]}; left ${left.join(' ')}`;
  return block({
    height: keyboard.height + 13,
    drawn: [...keyboard.drawn, textAt(0, keyboard.height + 9, fitting(says, width, SMALL), SMALL)],
    says: `${symbol} ${says}, right ${right.join(' ')}`,
    gap: 6,
    endsPage: 4,
  });
}
