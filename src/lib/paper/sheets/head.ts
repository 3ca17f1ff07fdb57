/** The head of a sheet: the piece, what is made of it, and for whom. */
import { levelText } from '$core/arrange/levels';
import { tempoText } from '$core/score/tempoText';
import { keyName } from '$core/theory/key';
import { INK, QUIET } from '$lib/engrave/look';
import type { SvgElement } from '$lib/engrave/svg';
import { create } from 'qrcode';
import { block, moved, NEVER, type Block } from '../block';
import type { Source } from '../source';
import { fitting, linesOf, round, textAt, textWidth, type TextStyle } from '../text';

const TITLE: TextStyle = { size: 22, isBold: true };
const SUB: TextStyle = { size: 11, fill: QUIET };
const NAME: TextStyle = { size: 12, isBold: true };

/** "level 3, in G major" */
export const levelLine = ({ version, recipe }: Pick<Source, 'version' | 'recipe'>): string =>
  `level ${levelText(recipe.level)}, in ${keyName(version.key)}`;

/** The goal tempo as the beat counts. */
export const goalText = ({ version }: Source): string =>
  tempoText(version.score.measures.at(-1)!.time, version.goalTempo);

/** Side of the code of a practice room, in points: two centimeters, with the white around it that phones need. */
const CODE = 58;
const UNDER_CODE: TextStyle = { size: 8, fill: QUIET };

/** The link of a practice room as a square code at the right of a sheet, with its name under it. */
function codeOf(link: string, width: number): SvgElement[] {
  const { modules } = create(link, { errorCorrectionLevel: 'M' });
  const dot = CODE / modules.size;
  const squares = Array.from({ length: modules.size }, (_, row) =>
    Array.from({ length: modules.size }, (_, column) =>
      modules.get(row, column)
        ? `M${round(column * dot)} ${round(row * dot)}h${round(dot)}v${round(dot)}h-${round(dot)}z`
        : '',
    ).join(''),
  ).join('');
  return [
    moved(width - CODE, 0, [{ name: 'path', attributes: { d: squares, fill: INK }, children: [] }]),
    textAt(width - CODE / 2, CODE + 9, 'Practice room', UNDER_CODE, 'middle'),
  ];
}

/** Title, the learner's name to the right of it, a line that says what this is, and the practice room's code where there is one. */
export function head(source: Source, whole: number, says: string): Block {
  const { title, learner, composer, room } = source;
  const width = room === null ? whole : whole - CODE - 16;
  const name = fitting(learner ?? '', width / 3, NAME);
  const lines = linesOf(title, width - (name ? textWidth(name, NAME) + 16 : 0), TITLE);
  const step = TITLE.size * 1.2;
  const below = lines.length * step;
  const by = fitting(composer, width / 3, SUB);
  const subs = linesOf(says, width - (by ? textWidth(by, SUB) + 16 : 0), SUB);
  return block({
    height: Math.max(below + subs.length * 14, room === null ? 0 : CODE + 12),
    drawn: [
      ...lines.map((line, i) => textAt(0, (i + 0.85) * step, line, TITLE)),
      ...(name ? [textAt(width, 0.85 * step, name, NAME, 'end')] : []),
      ...subs.map((line, i) => textAt(0, below + 11 + i * 14, line, SUB)),
      ...(by ? [textAt(width, below + 11, by, SUB, 'end')] : []),
      ...(room === null ? [] : codeOf(room, whole)),
    ],
    tag: 'H1',
    says: title,
    gap: 8,
    endsPage: NEVER,
    outline: 1,
  });
}
