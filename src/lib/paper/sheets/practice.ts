/** The practice sheet: what is set for the week, how each piece of it begins, a box for every day, and a line for whoever is at home. */
import { capital } from '$core/capital';
import { CAUTION } from '$core/lessons/caution';
import { placesText } from '$core/score/places';
import { tempoText } from '$core/score/tempoText';
import { HAIRLINE, INK, QUIET } from '$lib/engrave/look';
import { element, type SvgElement } from '$lib/engrave/svg';
import { block, heading, moved, paragraph, rule, SMALL, TEXT, type Block } from '../block';
import type { Frame, Source, ToPractise, WeekSet } from '../source';
import { systemsOf } from '../systems';
import { linesOf, round, textAt, textWidth, type TextStyle } from '../text';
import { head, levelLine } from './head';
import { shownOf } from './score';

const DAYS = ['M', 'T', 'W', 'T', 'F', 'S', 'S'] as const;
const BOX = { side: 17, gap: 6 } as const;
const BOXES = DAYS.length * (BOX.side + BOX.gap) - BOX.gap;
const INCIPIT = { width: 178, staff: 13, measures: 2 } as const;
const GUTTER = 16;
const NAME: TextStyle = { size: 12, isBold: true };

/** Without a week that is set: the first chunks of the plan, each with its first steps. */
const FIRST_CHUNKS = 3;
const FIRST_STEPS = 3;
const USUAL_MINUTES = 15;

/** The week that is set, or how the plan begins. */
function weekOf({ week, chunks, version }: Source): WeekSet {
  if (week) return week;
  const { measures } = version.score;
  const numbers = measures.map((m) => m.number);
  const taken = chunks.slice(0, FIRST_CHUNKS);
  return {
    minutesADay: USUAL_MINUTES,
    note: '',
    items: taken.map(({ steps, ...places }): ToPractise => {
      const own = steps.slice(0, FIRST_STEPS);
      const tempo = own.flatMap((s) => s.ladder.slice(0, 1))[0];
      return {
        piece: null,
        places,
        measures: placesText(numbers, places),
        steps: own.map((s) => s.says),
        tempo: tempo === undefined ? null : tempoText(measures[places.from]!.time, tempo),
        minutes: Math.max(1, Math.round(USUAL_MINUTES / taken.length)),
      };
    }),
  };
}

/** The page of the practice sheet. */
export async function practiceSheet(source: Source, { width }: Frame): Promise<Block[]> {
  const week = weekOf(source);
  const items: Block[] = [];
  for (const item of week.items) items.push(await itemBlock(source, item, width));
  return [
    head(source, width, `practice, ${levelLine(source)}`),
    heading('This week', width, { gap: 2 }),
    paragraph(
      `${week.minutesADay} minutes a day. Rest your hands after ten. Check a box each day you practice.`,
      width,
      TEXT,
      { gap: 8 },
    ),
    ...(items.length > 0 ? items : [paragraph('No practice yet.', width, TEXT)]),
    ...(week.note ? [paragraph(week.note, width, TEXT, { gap: 10 })] : []),
    lineToWrite('What went well? What needs more work? (for you)', width),
    lineToWrite('How it went at home (for a parent)', width),
    paragraph(CAUTION, width, SMALL),
  ];
}

/** Day by day: squares with round corners, each with its letter. */
const boxes = (x: number): SvgElement[] =>
  DAYS.flatMap((day, i) => {
    const left = x + i * (BOX.side + BOX.gap);
    return [
      element('rect', {
        x: round(left),
        y: 0,
        width: BOX.side,
        height: BOX.side,
        rx: 3,
        fill: 'none',
        stroke: INK,
        'stroke-width': 0.9,
      }),
      textAt(left + BOX.side / 2, 12, day, { size: 8, fill: QUIET }, 'middle'),
    ];
  });

async function itemBlock(source: Source, item: ToPractise, width: number): Promise<Block> {
  const incipit = await incipitOf(source, item);
  const left = incipit ? INCIPIT.width + GUTTER : 0;
  const room = width - left;
  const title = capital(item.piece ? `${item.piece}, ${item.measures}` : item.measures);
  const facts = [item.tempo ?? '', `${item.minutes} minutes a day`].filter(Boolean).join(', ');
  const titleLines = linesOf(title, room - textWidth(facts, SMALL) - 12, NAME);
  let y = 0;
  const drawn: SvgElement[] = [];
  titleLines.forEach((line) => {
    drawn.push(textAt(left, y + 11, line, NAME));
    y += 15;
  });
  drawn.push(textAt(width, 11, facts, SMALL, 'end'));
  for (const step of item.steps)
    for (const line of linesOf(step, room, TEXT)) {
      drawn.push(textAt(left, y + 11, line, TEXT));
      y += 14.5;
    }
  y += 5;
  drawn.push(moved(0, y, boxes(width - BOXES)));
  y += BOX.side;
  if (incipit) drawn.push(...incipit.drawn);
  const height = Math.max(y, incipit?.height ?? 0) + 10;
  return block({
    height,
    drawn: [...drawn, moved(0, height - 2, [rule(width, HAIRLINE)])],
    says: `${title}: ${item.steps.join('; then ')}; ${facts}. A box for each day from Monday to Sunday.`,
    gap: 10,
    endsPage: 2,
  });
}

/** How a chunk begins, engraved. */
async function incipitOf(source: Source, { places }: ToPractise): Promise<Block | undefined> {
  if (!places) return undefined;
  const { from, to } = places;
  const { version } = source;
  // A pickup comes on top of the first measures.
  const more = version.score.measures[from]?.number === '0' ? 1 : 0;
  for (let count = INCIPIT.measures + more; count > more; count--) {
    const systems = await systemsOf(version, {
      ...places,
      ...(from + count - 1 < to ? { to: from + count - 1, toBeat: undefined } : {}),
      show: { ...shownOf(source), counts: false, words: 'none', names: false, pedal: false },
      width: INCIPIT.width,
      staff: INCIPIT.staff,
      metre: true,
    });
    if (systems.length === 1 || count === more + 1) return systems[0]?.block;
  }
  return undefined;
}

const lineToWrite = (label: string, width: number): Block =>
  block({
    height: 44,
    drawn: [textAt(0, 10, label, SMALL), moved(0, 40, [rule(width, QUIET)])],
    says: `${label}: a line to write on`,
    tag: 'P',
    gap: 8,
  });
