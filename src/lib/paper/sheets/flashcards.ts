/** Cards to cut out and fold: on one half the name, on the other the keys with their fingers. */
import { capital } from '$core/capital';
import { heldChords, namesOf, type HeldChord } from '$core/chords/held';
import { measureText } from '$core/score/measureText';
import { numberDegree } from '$core/theory/chord';
import { QUIET } from '$lib/engrave/look';
import { element } from '$lib/engrave/svg';
import { block, columns, columnWidth, moved, NEVER, paragraph, SMALL, type Block } from '../block';
import { keyboardPicture, keyRange, type KeyMark } from '../keyboard';
import type { Frame, Source } from '../source';
import { linesOf, textAt, type TextStyle } from '../text';
import { chordHandOf } from './chordHand';
import { head, levelLine } from './head';
import { drawnPositions } from './positions';

interface Card {
  readonly question: string;
  readonly below: string;
  readonly answer: string;
  readonly marks: readonly KeyMark[];
}

const BY_SIZE = {
  normal: { columns: 2, height: 136 },
  large: { columns: 2, height: 160 },
  'very large': { columns: 1, height: 230 },
} as const;
const GUTTER = 12;
const SMALL_TEXT: TextStyle = { size: 9.5, fill: QUIET };

/** The pages of the cards. */
export function flashcardSheet(source: Source, { width }: Frame): Block[] {
  const { columns: count, height } = BY_SIZE[source.choices.size];
  const each = columnWidth(count, width, GUTTER);
  const cards = [...chordCards(source), ...positionCards(source)];
  return [
    head(source, width, `cards, ${levelLine(source)}`),
    paragraph(
      'Cut along the dashed lines and fold along the dotted line. Read the name, find the keys, then turn the card over.',
      width,
      SMALL,
      { gap: 8, endsPage: NEVER },
    ),
    ...columns(
      cards.map((card) => cardBlock(card, each, height)),
      count,
      width,
      GUTTER,
    ),
  ];
}

/** Every chord of the piece in every shape, once. */
function chordCards(source: Source): Card[] {
  const { version } = source;
  const all = heldChords(
    version,
    { from: 0, to: version.score.measures.length - 1 },
    chordHandOf(source, version),
  );
  const seen = new Map<string, HeldChord>();
  for (const chord of all) {
    const look = `${chord.symbol} ${chord.keys.map((k) => `${k.hand}${k.midi}`).join(' ')}`;
    if (!seen.has(look)) seen.set(look, chord);
  }
  return [...seen.values()].map((chord) => ({
    question: chord.symbol,
    below: `${numberDegree(chord.chord, version.key)}, ${measureText(version.score.measures[chord.measure]!.number)}`,
    answer: namesOf(chord),
    marks: chord.keys.map(({ midi, hand, finger }) => ({ midi, hand, ...(finger ? { finger } : {}) })),
  }));
}

/** A position is worth a card where most of the hand lies in it. */
const FEWEST_FINGERS = 3;

const positionCards = ({ version }: Source): Card[] =>
  drawnPositions(version)
    .filter(({ marks }) => marks.length >= FEWEST_FINGERS)
    .map(({ hand, name, measure, marks }) => ({
      question: capital(name),
      below: `${hand} hand, ${measureText(version.score.measures[measure]!.number)}`,
      answer: `fingers ${marks.map((m) => m.finger).join(' ')}`,
      marks,
    }));

/** A card: its edge to cut along, its fold across, the question above and the answer below, upside down for nobody: it is folded back. */
function cardBlock({ question, below, answer, marks }: Card, width: number, height: number): Block {
  const half = height / 2;
  const inner = width - 24;
  const style: TextStyle = { size: question.length > 10 ? 15 : half * 0.46, isBold: true };
  const lines = linesOf(question, inner, style).slice(0, 2);
  const keyboard = keyboardPicture(keyRange(marks.map((m) => m.midi)), marks, inner, (half - 24) / 5.6);
  const first = half / 2 - ((lines.length - 1) * style.size * 1.15) / 2 + style.size * 0.2;
  return block({
    height,
    drawn: [
      element('rect', {
        x: 0,
        y: 0,
        width,
        height,
        fill: 'none',
        stroke: QUIET,
        'stroke-width': 0.7,
        'stroke-dasharray': '5 3',
      }),
      element('line', {
        x1: 0,
        x2: width,
        y1: half,
        y2: half,
        stroke: QUIET,
        'stroke-width': 0.7,
        'stroke-dasharray': '1 3',
      }),
      ...lines.map((line, i) => textAt(width / 2, first + i * style.size * 1.15, line, style, 'middle')),
      textAt(width / 2, half - 7, below, SMALL_TEXT, 'middle'),
      moved((width - keyboard.width) / 2, half + 7, keyboard.drawn),
      textAt(width / 2, height - 6, answer, SMALL_TEXT, 'middle'),
    ],
    says: `Card: ${question}, ${below}. ${answer}`,
    gap: GUTTER,
    endsPage: 0,
  });
}
