/**
 * How long sections are that a musician would name. What was found in the notes alone falls into blocks of four measures where music is made
 * of loops: a block that goes round is one section, and in a piece of many crumbs two neighbours are.
 */

interface Block {
  readonly letter: string;
  /** How many variants of the letter came before. */
  readonly prime: number;
  readonly from: number;
  readonly to: number;
}

/** Measures of a block that is no section of its own where it goes round. */
const LONGEST_BLOCK = 4;
/** So often in a row it goes round: note for note, or more often where it is varied. */
const GOES_ROUND = { same: 3, varied: 8 };
/** More sections than these are crumbs, where most of them are blocks. */
const MANY = 8;

const lengthOf = ({ from, to }: Block): number => to - from + 1;

/** Of found sections those, by place, with which a section begins that is worth a name. */
export function sectionsWorthNaming(blocks: readonly Block[]): number[] {
  const kept: number[] = [];
  /** Measures of each section that is kept so far. */
  const lengths: number[] = [];
  for (let i = 0; i < blocks.length;) {
    let to = i;
    while (
      to + 1 < blocks.length &&
      blocks[to + 1]!.letter === blocks[i]!.letter &&
      lengthOf(blocks[to + 1]!) <= LONGEST_BLOCK
    )
      to += 1;
    const run = blocks.slice(i, to + 1);
    const isSame = run.every((b) => b.prime === run[0]!.prime);
    const isRound =
      run.length >= (isSame ? GOES_ROUND.same : GOES_ROUND.varied) && lengthOf(run[0]!) <= LONGEST_BLOCK;
    const end = isRound ? to : i;
    kept.push(i);
    lengths.push(blocks[end]!.to - blocks[i]!.from + 1);
    i = end + 1;
  }
  const crumbs = lengths.filter((l) => l <= LONGEST_BLOCK).length;
  if (kept.length <= MANY || crumbs <= kept.length / 2) return kept;
  // Neighbours of four are a section of eight.
  const joined: number[] = [];
  for (let i = 0; i < kept.length; i++) {
    joined.push(kept[i]!);
    if (lengths[i]! <= LONGEST_BLOCK && (lengths[i + 1] ?? Infinity) <= LONGEST_BLOCK) i += 1;
  }
  return joined;
}
