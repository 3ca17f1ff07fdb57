/** The score: what the learner plays from. */
import { capital } from '$core/capital';
import type { Section } from '$core/analysis/form';
import { tell } from '$core/pipeline/progress';
import { measuresText } from '$core/score/measureText';
import { endOf, beatLength } from '$core/score/metre';
import type { Note } from '$core/score/score';
import type { Version } from '$core/version/realise';
import { heading, NEVER, paragraph, SMALL, TEXT, type Block } from '../block';
import { mapBlock } from '../map';
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
    names: choices.names === 'none' ? false : choices.names === 'below' ? true : 'heads',
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
  const isFolded = (section: Section): boolean =>
    choices.repeats === 'folded' && earlier(version, section, choices.words !== 'none') !== undefined;
  const blocks: Block[] = [
    head(source, width, `${levelLine(source)}, goal ${goalText(source)}`),
    ...(choices.map && sections.length + version.form.phrases.length > 2 ? [mapBlock(version, width)] : []),
    ...(choices.fingers === 'positions' || choices.names === 'heads' ? positionBlocks(version, width) : []),
  ];
  let engraved = 0;
  // Sections that follow each other are engraved at once: ties and slurs go on over the end of a line.
  for (let i = 0; i < sections.length; i++) {
    const first = sections[i]!;
    if (isFolded(first)) {
      blocks.push(...foldedBlocks(version, first, width));
      continue;
    }
    let last = i;
    while (last + 1 < sections.length && !isFolded(sections[last + 1]!)) last += 1;
    const stretches = stretchesOf(version, { from: first.from, to: sections[last]!.to });
    for (const [k, stretch] of stretches.entries()) {
      tell('engrave', k / stretches.length);
      blocks.push(...(await musicBlocks(source, stretch, width)));
      engraved += stretch.to - stretch.from + 1;
      if (engraved >= enough) return blocks;
    }
    i = last;
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

/** The earlier section that this one is note for note and word for word, if any. */
function earlier(version: Version, { from, to, repeats }: Section, withWords: boolean): Section | undefined {
  if (repeats === undefined) return undefined;
  const model = version.form.sections.find((s) => s.label === repeats && s.to - s.from === to - from);
  if (!model) return undefined;
  const isSame = Array.from({ length: to - from + 1 }, (_, i) => i).every(
    (i) => looksOf(version, from + i, withWords) === looksOf(version, model.from + i, withWords),
  );
  return isSame ? model : undefined;
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
    fingers[n.id]?.finger,
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

/** A section that stands already, as a line that says where. */
function foldedBlocks(version: Version, section: Section, width: number): Block[] {
  const model = earlier(version, section, false)!;
  const numbers = version.score.measures.map((m) => m.number);
  return [
    heading(section.label, width),
    paragraph(
      `${capital(measuresText(numbers, section.from, section.to))} are ${measuresText(numbers, model.from, model.to)} again.`,
      width,
      TEXT,
      { gap: 12 },
    ),
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
