/** A duet: each hand as the part of one player, large, with the other's notes small above or below it as cues. */
import type { Version } from '$core/version/realise';
import { measuresText } from '$core/score/measureText';
import { block, heading, NEVER, paragraph, SMALL, type Block } from '../block';
import type { Frame, Source } from '../source';
import { SIZES, systemsOf } from '../systems';
import { goalText, head, levelLine } from './head';
import { shownOf } from './score';

type DuetHand = 'right' | 'left';
const STAVES: Readonly<Record<DuetHand, number>> = { right: 1, left: 2 };

/** A version in which one hand is played and the other's notes are cues. */
export function partOf(version: Version, hand: DuetHand): Version {
  const [part, ...others] = version.score.parts as [Version['score']['parts'][number]];
  return {
    ...version,
    score: {
      ...version.score,
      pedals: [],
      parts: [
        {
          ...part,
          notes: part.notes.map((note) => {
            if (note.staff === STAVES[hand]) return note;
            const { finger: _finger, ...rest } = note;
            return { ...rest, cue: true };
          }),
        },
        ...others,
      ],
    },
    positions: version.positions.filter((p) => p.hand === hand),
  };
}

/** Both parts, each from a page of its own; `only` one of them for one player of a class, with whom they play. */
export async function duetSheet(
  source: Source,
  { width }: Frame,
  only?: { readonly hand: DuetHand; readonly partner: string | null },
): Promise<Block[]> {
  const hands: readonly DuetHand[] = only ? [only.hand] : ['right', 'left'];
  const blocks: Block[] = [];
  for (const [i, hand] of hands.entries())
    blocks.push(
      ...(i > 0 ? [block({ height: 0, drawn: [], beginsPage: true, endsPage: NEVER })] : []),
      ...(await partBlocks(source, hand, width, only?.partner ?? null)),
    );
  return blocks;
}

async function partBlocks(
  source: Source,
  hand: DuetHand,
  width: number,
  partner: string | null,
): Promise<Block[]> {
  // The part is counted by its own notes.
  const counted = source.otherwise({ countFor: hand });
  const version = partOf(counted, hand);
  const own = { ...source, version };
  const systems = await systemsOf(version, {
    from: 0,
    to: version.score.measures.length - 1,
    show: shownOf(own),
    width,
    staff: SIZES[source.choices.size].staff,
  });
  const numbers = version.score.measures.map((m) => m.number);
  const { sections } = version.form;
  return [
    head(
      own,
      width,
      `${hand === 'right' ? 'upper' : 'lower'} part of two, ${levelLine(own)}, goal ${goalText(own)}`,
    ),
    paragraph(
      `The small notes belong to ${partner ?? 'the other player'}: listen, don’t play them. Sit so you both have room for your elbows.`,
      width,
      SMALL,
      { gap: 8, endsPage: NEVER },
    ),
    ...systems.flatMap(({ line, block: music }): Block[] => [
      ...sections
        .filter((s) => sections.length > 1 && s.from >= line.from && s.from <= line.to)
        .slice(0, 1)
        .map((s) => heading(s.label, width, { gap: 2 })),
      { ...music, says: `Music, ${measuresText(numbers, line.from, line.to)}`, endsPage: 4 },
    ]),
  ];
}
