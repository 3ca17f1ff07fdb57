/** Where the hands lie, drawn for first readers: each position once, with the fingers on its five keys. */
import { positionText, type HandPosition } from '$core/fingering/positions';
import { measureAt } from '$core/score/query';
import { measureText } from '$core/score/measureText';
import { toMidi } from '$core/theory/pitch';
import type { Version } from '$core/version/realise';
import { block, columns, columnWidth, moved, type Block } from '../block';
import { keyboardPicture, keyRange, type KeyMark } from '../keyboard';
import { fitting, textAt } from '../text';
import { QUIET } from '$lib/engrave/look';

interface DrawnPosition {
  readonly hand: HandPosition['hand'];
  readonly name: string;
  /** Measure, by index, in which the hand first lies so. */
  readonly measure: number;
  readonly marks: readonly KeyMark[];
}

/** Passages under and over the thumb lead from one position to another and are none themselves. */
const isPosition = ({ by }: HandPosition): boolean => by === 'start' || by === 'shift';

/** Every way in which a hand lies, once, in order of time. */
export function drawnPositions({ positions, score, fingers }: Version): DrawnPosition[] {
  const notes = new Map(score.parts[0]!.notes.map((n) => [n.id, n]));
  const seen = new Set<string>();
  return positions.filter(isPosition).flatMap((position): DrawnPosition[] => {
    const marks = new Map<number, KeyMark>();
    for (const id of position.notes) {
      const note = notes.get(id);
      const finger = fingers[id]?.finger;
      if (note && finger)
        marks.set(toMidi(note.pitch), { midi: toMidi(note.pitch), hand: position.hand, finger });
    }
    const list = [...marks.values()].sort((a, b) => a.midi - b.midi);
    const look = `${position.hand} ${list.map((m) => `${m.midi}:${m.finger}`).join(' ')}`;
    if (list.length === 0 || seen.has(look)) return [];
    seen.add(look);
    return [
      {
        hand: position.hand,
        // The picture shows which keys are black.
        name: positionText({ ...position, onBlack: [] }),
        measure: measureAt(score.measures, position.onset).index,
        marks: list,
      },
    ];
  });
}

/** Positions that are drawn at the head of a score; more would be a book of their own. */
const MOST = 4;
const COLUMNS = 2;
const GUTTER = 24;
const NAME = { size: 10.5, isBold: true } as const;
const WHERE = { size: 10, fill: QUIET } as const;

/** The first positions of both hands, beside each other. */
export function positionBlocks(version: Version, width: number): Block[] {
  const all = drawnPositions(version);
  const chosen = (['left', 'right'] as const)
    .flatMap((hand) => all.filter((p) => p.hand === hand).slice(0, MOST / 2))
    .sort((a, b) => a.measure - b.measure);
  const range = keyRange(chosen.flatMap((p) => p.marks.map((m) => m.midi)));
  const each = columnWidth(COLUMNS, width, GUTTER);
  const blocks = chosen.map(({ hand, name, measure, marks }) => {
    const says = `${hand === 'right' ? 'Right' : 'Left'} hand: ${name}`;
    const from = `from ${measureText(version.score.measures[measure]!.number)}`;
    const keyboard = keyboardPicture(range, marks, each);
    return block({
      height: 16 + keyboard.height,
      drawn: [
        textAt(0, 10, fitting(says, each - 80, NAME), NAME),
        textAt(each, 10, from, WHERE, 'end'),
        moved(0, 16, keyboard.drawn),
      ],
      says: `${says}, ${from}`,
      gap: 8,
      endsPage: 10,
    });
  });
  return columns(blocks, COLUMNS, width, GUTTER);
}
