/** The head of a sheet: the piece, what is made of it, and for whom. */
import { levelText } from '$core/arrange/levels';
import { tempoText } from '$core/score/tempoText';
import { keyName } from '$core/theory/key';
import { QUIET } from '$lib/engrave/look';
import { block, NEVER, type Block } from '../block';
import type { Source } from '../source';
import { fitting, linesOf, textAt, textWidth, type TextStyle } from '../text';

const TITLE: TextStyle = { size: 22, isBold: true };
const SUB: TextStyle = { size: 11, fill: QUIET };
const NAME: TextStyle = { size: 12, isBold: true };

/** "level 3, in G major" */
export const levelLine = ({ version, recipe }: Pick<Source, 'version' | 'recipe'>): string =>
  `level ${levelText(recipe.level)}, in ${keyName(version.key)}`;

/** The goal tempo as the beat counts. */
export const goalText = ({ version }: Source): string =>
  tempoText(version.score.measures.at(-1)!.time, version.goalTempo);

/** Title, the learner's name to the right of it, and a line that says what this is. */
export function head(source: Source, width: number, says: string): Block {
  const { title, learner, composer } = source;
  const name = fitting(learner ?? '', width / 3, NAME);
  const lines = linesOf(title, width - (name ? textWidth(name, NAME) + 16 : 0), TITLE);
  const step = TITLE.size * 1.2;
  const below = lines.length * step;
  const by = fitting(composer, width / 3, SUB);
  const subs = linesOf(says, width - (by ? textWidth(by, SUB) + 16 : 0), SUB);
  return block({
    height: below + subs.length * 14,
    drawn: [
      ...lines.map((line, i) => textAt(0, (i + 0.85) * step, line, TITLE)),
      ...(name ? [textAt(width, 0.85 * step, name, NAME, 'end')] : []),
      ...subs.map((line, i) => textAt(0, below + 11 + i * 14, line, SUB)),
      ...(by ? [textAt(width, below + 11, by, SUB, 'end')] : []),
    ],
    tag: 'H1',
    says: title,
    gap: 8,
    endsPage: NEVER,
    outline: 1,
  });
}
