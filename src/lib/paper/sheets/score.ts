/** The score: what the learner plays from. */
import { capital } from '$core/capital';
import { foldedPath, timesOf, type PathItem } from '$core/analysis/form';
import { tell } from '$core/pipeline/progress';
import { measuresText } from '$core/score/measureText';
import { endOf, beatLength } from '$core/score/metre';
import type { Note } from '$core/score/score';
import type { Version } from '$core/version/realise';
import { heading, NEVER, paragraph, SMALL, TEXT, type Block } from '../block';
import { mapBlock } from '../map';
import type { Choices } from '../choices';
import type { Frame, Source } from '../source';
import { SIZES, systemsOf, type Shown } from '../systems';
import { goalText, head, levelLine } from './head';
import { positionBlocks } from './positions';

/** What of the choices concerns the engraver. */
export function shownOf({ choices }: Source): Shown {
  return {
    fingers: choices.fingers === 'none' ? false : choices.fingers === 'all' ? true : choices.fingers,
    counts: choices.counts,
    chords: choices.chords,
    pedal: choices.pedal,
    words: choices.words,
    names: choices.names === 'none' ? false : choices.names === 'below' ? true : choices.names,
    alike: !choices.decided,
  };
}

/** The version with its repeats as chosen. */
const withRepeats = (source: Source): Source =>
  source.choices.repeats === 'written out' && source.version.hasRepeats
    ? {
        ...source,
        version: source.otherwise({}, [{ kind: 'repeats', at: { version: true }, value: 'written out' }]),
      }
    : source;

/** The pages of the score. */
export async function scoreSheet(given: Source, { width, enough = Infinity }: Frame): Promise<Block[]> {
  const source = withRepeats(given);
  const { version, choices } = source;
  const { sections } = version.form;
  const blocks: Block[] = [
    head(source, width, `${levelLine(source)}, goal ${goalText(source)}`),
    ...(choices.map && sections.length + version.form.phrases.length > 2 ? [mapBlock(version, width)] : []),
    ...(choices.fingers === 'positions' || choices.names === 'heads' ? positionBlocks(version, width) : []),
  ];
  let engraved = 0;
  // Measures that follow each other are engraved at once: ties and slurs go on over the end of a line.
  for (const part of partsToPrint(version, choices)) {
    if (part.kind === 'again') {
      blocks.push(...foldedBlocks(version, part, width));
      continue;
    }
    const stretches = stretchesOf(version, part);
    for (const [k, stretch] of stretches.entries()) {
      tell('engrave', k / stretches.length);
      blocks.push(...(await musicBlocks(source, stretch, width)));
      engraved += stretch.to - stretch.from + 1;
      if (engraved >= enough) return blocks;
    }
  }
  return blocks;
}

/** Measures that are engraved at once: its memory grows with them, and whoever wants to see how it begins waits for the first. */
const AT_ONCE = 16;

/** A stretch in parts that end with phrases over whose end nothing is tied. */
function stretchesOf(
  { form, score }: Version,
  { from, to }: { readonly from: number; readonly to: number },
): { from: number; to: number }[] {
  const parts: { from: number; to: number }[] = [];
  let begin = from;
  for (const phrase of form.phrases) {
    if (phrase.to < begin + AT_ONCE - 1 || phrase.to >= to) continue;
    const end = endOf(score.measures[phrase.to]!);
    const isTied = score.parts[0]!.notes.some(
      (n) =>
        n.onset === end && (n.tie === 'stop' || n.tie === 'both' || n.slurs?.some((l) => l.type === 'stop')),
    );
    if (isTied) continue;
    parts.push({ from: begin, to: phrase.to });
    begin = phrase.to + 1;
  }
  return [...parts, { from: begin, to }];
}

type Again = Extract<PathItem, { kind: 'again' }>;
type Printed = { readonly kind: 'music'; readonly from: number; readonly to: number };

/** Fewest measures that are worth a line of words in their place. */
const WORTH_FOLDING = 4;
/** Measures that fill a page of notes of a size, about: so many must go for a page to be saved. */
const MEASURES_A_PAGE = { normal: 20, large: 14, 'very large': 9 } as const satisfies Record<
  Choices['size'],
  number
>;

/** What is printed in order: music, and what says that music comes again. */
function partsToPrint(version: Version, choices: Choices): (Again | Printed)[] {
  const all: Printed = { kind: 'music', from: 0, to: version.score.measures.length - 1 };
  if (choices.repeats !== 'folded' && choices.repeats !== 'short') return [all];
  const path = foldedPath(version.form, alikeIn(version, choices.words !== 'none'), WORTH_FOLDING);
  const saved = path.reduce((sum, item) => sum + (item.kind === 'again' ? item.to - item.from + 1 : 0), 0);
  if (choices.repeats === 'short' && saved < MEASURES_A_PAGE[choices.size]) return [all];
  const parts: (Again | Printed)[] = [];
  for (const item of path) {
    const last = parts.at(-1);
    if (item.kind === 'again') parts.push(item);
    else if (last?.kind === 'music') parts[parts.length - 1] = { ...last, to: item.measure };
    else parts.push({ kind: 'music', from: item.measure, to: item.measure });
  }
  return parts;
}

/** For each measure the first that looks the same on paper, word for word where words are sung; what is at a repeat sign only like itself. */
function alikeIn(version: Version, withWords: boolean): number[] {
  const first = new Map<string, number>();
  return version.score.measures.map((_, i) => {
    const look = looksOf(version, i, withWords);
    if (!first.has(look)) first.set(look, i);
    return first.get(look)!;
  });
}

/** Everything of a measure that is seen: two that are alike in it need be printed only once. */
function looksOf({ score, fingers, chords }: Version, index: number, withWords: boolean): string {
  const measure = score.measures[index]!;
  const look = (n: Note): unknown => [
    n.onset - measure.start,
    n.duration,
    n.pitch,
    n.staff,
    n.tie,
    // What is suggested may differ at the edges of a block by what comes before and after: whoever plays it again takes the same fingers.
    fingers[n.id]?.decided ? fingers[n.id]!.finger : undefined,
    n.articulations,
    withWords ? n.lyrics?.filter((l) => l.line === 'words').map((l) => l.text) : [],
  ];
  const inside = ({ onset }: { onset: number }): boolean => onset >= measure.start && onset < endOf(measure);
  return JSON.stringify([
    measure.time,
    measure.key,
    measure.repeatStart,
    measure.repeatEnd,
    measure.ending,
    score.parts[0]!.notes.filter(inside).map(look),
    // Chords are printed where they change: what matters is which one holds.
    chords
      .filter((c) => c.onset < endOf(measure) && c.onset + c.duration > measure.start)
      .map((c) => [Math.max(0, c.onset - measure.start), c.chord]),
  ]);
}

/** What comes again, as a line that says which measures it is, and how often a block goes round. */
function foldedBlocks({ form, score }: Version, again: Again, width: number): Block[] {
  const numbers = score.measures.map((m) => m.number);
  const section = form.sections[again.section]!;
  const block = measuresText(numbers, again.as, again.as + again.length - 1);
  const times = timesOf(again);
  const goesRound = again.as + again.length === again.from;
  const says = goesRound
    ? `Play ${block} ${times + 1} times in all, to measure ${numbers[again.to]}.`
    : `${capital(measuresText(numbers, again.from, again.to))} ${again.from === again.to ? 'repeats' : 'repeat'} ${block}${times > 1 ? ` ${times} times` : ''}.`;
  return [
    ...(again.from === section.from ? [heading(section.label, width)] : []),
    paragraph(says, width, TEXT, { gap: 12 }),
  ];
}

/** What it costs to turn the page after a line: nothing where a hand is free, much where both play on; less at the end of a section. */
const BOTH_PLAY = 20;
const SECTION_END = -4;

/** Lines of music with the names of the sections that begin in them, and what is said to the learner. */
async function musicBlocks(
  source: Source,
  { from, to }: { readonly from: number; readonly to: number },
  width: number,
): Promise<Block[]> {
  const { version, choices } = source;
  const systems = await systemsOf(version, {
    from,
    to,
    show: shownOf(source),
    width,
    staff: SIZES[choices.size].staff,
  });
  const numbers = version.score.measures.map((m) => m.number);
  const { sections } = version.form;
  const isNamed = sections.length > 1 || (sections[0]?.label.length ?? 0) > 1;
  return systems.flatMap(({ line, block }): Block[] => {
    const begins = sections.filter((s) => s.from >= line.from && s.from <= line.to);
    const ends = sections.some((s) => s.to === line.to);
    const says = `Music, ${measuresText(numbers, line.from, line.to)}`;
    const advice = version.advice.filter((a) => a.from >= line.from && a.from <= line.to);
    return [
      ...(isNamed ? begins.slice(0, 1).map((s) => heading(s.label, width, { gap: 2 })) : []),
      ...advice.map(({ from: first, to: last, text }) =>
        paragraph(`${capital(measuresText(numbers, first, last))}: ${text}`, width, SMALL, {
          endsPage: NEVER,
        }),
      ),
      {
        ...block,
        says,
        endsPage: Math.max(0, (isHandFree(version, line.to) ? 0 : BOTH_PLAY) + (ends ? SECTION_END : 0)),
      },
    ];
  });
}

/** Whether a hand can turn the page between a measure and the next: it has a beat of rest at the end of the one or the beginning of the other. */
export function isHandFree({ score }: Version, measure: number): boolean {
  const own = score.measures[measure]!;
  const end = endOf(own);
  const beat = beatLength(own.time);
  const { notes } = score.parts[0]!;
  return [1, 2].some((staff) =>
    [end - beat, end].some(
      (from) => !notes.some((n) => n.staff === staff && n.onset < from + beat && n.onset + n.duration > from),
    ),
  );
}
