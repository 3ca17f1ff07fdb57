/** Lyric chart: what a singer at the keyboard reads. Chords and strokes above the words, line by line. */
import { distanceText } from '$core/theory/intervalWord';
import { slashChart, type SlashMeasure } from '$core/chords/slash';
import { playedBy } from '$core/fingering/fingerHand';
import { measuresText } from '$core/score/measureText';
import { pitchName, toMidi, type Pitch } from '$core/theory/pitch';
import type { LevelContract } from '$core/arrange/levels';
import type { Version } from '$core/version/realise';
import { keyName } from '$core/theory/key';
import { HAND_COLOURS, INK, QUIET } from '$lib/engrave/look';
import { element, type SvgElement } from '$lib/engrave/svg';
import { block, heading, NEVER, paragraph, SMALL, TEXT, type Block } from '../block';
import { linesOn } from '../lines';
import type { Frame, Source } from '../source';
import { round, textAt, textWidth, type TextStyle } from '../text';
import { goalText, head } from './head';

/** Sizes of chords and words, by the size of the notes. */
const SIZE = { normal: 12, large: 14.5, 'very large': 18 } as const;
/** Of the size of the words: narrowest beat, and rows above each other. */
const BEAT = 2.6;
const ROW = { chord: 1.1, slash: 1.05, words: 1.25 } as const;
const MEASURE_GAP = 1;
/** A line is stretched so far. */
const MOST_STRETCH = 1.5;

/** The pages of the slash chart. */
export function slashSheet(source: Source, { width }: Frame): Block[] {
  const { version, choices } = source;
  const words = wordsFrom(source);
  const chart = slashChart(version, words).map((m) => withVerses(m, choices.words));
  const size = SIZE[choices.size];
  const style: TextStyle = { size, family: 'sans' };
  const beatWidths = chart.map((m) => m.beats.map((b) => beatWidth(b, style)));
  const natural = {
    clefs: 0,
    measures: beatWidths.map((beats) => beats.reduce((a, b) => a + b, 0) + MEASURE_GAP * size),
  };
  const { measures } = version.score;
  const lines = linesOn(
    { form: version.form, measures },
    { from: 0, to: measures.length - 1 },
    natural,
    width,
  );
  const numbers = measures.map((m) => m.number);
  const verses = Math.max(0, ...chart.flatMap((m) => m.beats.map((b) => b.words.length)));
  const stretch = Math.max(1, Math.min(MOST_STRETCH, ...lines.map((l) => l.ratio)));
  const { beats, beatType } = measures.at(-1)!.time;
  return [
    head(
      source,
      width,
      `lyric chart, in ${keyName(version.key)}, ${beats}/${beatType}, goal ${goalText(source)}`,
    ),
    paragraph(adviceFor(version.contract), width, TEXT, { gap: 8 }),
    ...rangeBlocks(source, words, width),
    ...lines.flatMap(({ from, to }): Block[] => {
      const begins = version.form.sections.filter((s) => s.from >= from && s.from <= to);
      return [
        ...begins.slice(0, 1).flatMap((s) => sectionHead(version, chart, s.from, width)),
        lineBlock(chart.slice(from, to + 1), beatWidths.slice(from, to + 1), {
          stretch,
          style,
          verses,
          says: measuresText(numbers, from, to),
        }),
      ];
    }),
  ];
}

/** A version that has the words under its tune: of a sing-along the same piece with its melody. */
function wordsFrom({ version, otherwise }: Source): Version {
  return version.isSingAlong ? otherwise({ style: 'solo' }) : version;
}

function withVerses(measure: SlashMeasure, wanted: 'all' | 'none' | number): SlashMeasure {
  if (wanted === 'all') return measure;
  return {
    ...measure,
    beats: measure.beats.map((b) => ({
      ...b,
      words: wanted === 'none' ? [] : b.words.slice(wanted - 1, wanted),
    })),
  };
}

const chordStyle = ({ size }: TextStyle): TextStyle => ({ size: size * 1.05, isBold: true });

const beatWidth = ({ symbols, words }: SlashMeasure['beats'][number], style: TextStyle): number =>
  Math.max(
    BEAT * style.size * 0.75,
    textWidth(symbols.join(' '), chordStyle(style)) + style.size * 0.5,
    ...words.map((w) => textWidth(w, style) + style.size * 0.4),
  );

/** A section's name, and which of its words are sung before it begins. */
function sectionHead(version: Version, chart: readonly SlashMeasure[], from: number, width: number): Block[] {
  const section = version.form.sections.find((s) => s.from === from)!;
  const before = version.form.sections.find((s) => s.to === from - 1);
  const borrowed = chart[from - 1]?.beats.filter((b) => b.isBorrowed) ?? [];
  const first = borrowed
    .map((b) => b.words[0] ?? '')
    .join(' ')
    .replace(/- /g, '')
    .replace(/[\s,;:.!?]+$/, '')
    .trim();
  const where = borrowed.length === 1 ? 'is the last beat' : `are the last ${borrowed.length} beats`;
  const says =
    borrowed.length > 0 && before
      ? first
        ? `Start singing “${first}” on the underlined beats at the end of ${before.label}.`
        : `Its pickup: the underlined beats ${where} of ${before.label}.`
      : '';
  return [
    heading(section.label, width, { gap: says ? 0 : 4 }),
    ...(says ? [paragraph(says, width, SMALL, { endsPage: NEVER })] : []),
  ];
}

interface LineLook {
  readonly stretch: number;
  readonly style: TextStyle;
  readonly verses: number;
  readonly says: string;
}

/** One line: chords, strokes, words, each beat under its chord. */
function lineBlock(
  measures: readonly SlashMeasure[],
  widths: readonly (readonly number[])[],
  { stretch, style, verses, says }: LineLook,
): Block {
  const { size } = style;
  const chordY = ROW.chord * size;
  const slashY = chordY + ROW.slash * size;
  const wordY = (verse: number): number => slashY + ROW.words * size * (verse + 1);
  const drawn: SvgElement[] = [];
  let x = 0;
  measures.forEach(({ beats }, m) => {
    if (m > 0)
      drawn.push(
        element('line', {
          x1: round(x - size * 0.45),
          x2: round(x - size * 0.45),
          y1: round(slashY - size * 0.75),
          y2: round(slashY + size * 0.1),
          stroke: QUIET,
          'stroke-width': 0.8,
        }),
      );
    beats.forEach(({ symbols, words, isBorrowed }, b) => {
      const width = widths[m]![b]! * stretch;
      if (symbols.length > 0) drawn.push(textAt(x, chordY, symbols.join(' '), chordStyle(style)));
      drawn.push(
        element('line', {
          x1: round(x + size * 0.02),
          y1: round(slashY),
          x2: round(x + size * 0.36),
          y2: round(slashY - size * 0.62),
          stroke: INK,
          'stroke-width': 1,
        }),
      );
      if (isBorrowed)
        drawn.push(
          element('line', {
            x1: round(x),
            x2: round(x + width - size * 0.4),
            y1: round(slashY + size * 0.22),
            y2: round(slashY + size * 0.22),
            stroke: HAND_COLOURS.right,
            'stroke-width': 1.4,
          }),
        );
      words.forEach((word, v) => {
        if (word) drawn.push(textAt(x, wordY(v), word, style));
      });
      x += width;
    });
    x += MEASURE_GAP * size * stretch;
  });
  const text = measures.flatMap((m) =>
    m.beats.flatMap((b) => [...b.symbols.map((s) => `[${s}]`), b.words[0] ?? '']),
  );
  return block({
    height: wordY(Math.max(0, verses - 1)) + size * 0.35,
    drawn,
    tag: 'P',
    says: `${says}: ${text.filter(Boolean).join(' ')}`,
    gap: size * 0.7,
    endsPage: 2,
  });
}

/** What the left hand does at a level, in a sentence a learner understands. */
function adviceFor({ leftOnsets, leftNotes }: LevelContract): string {
  const what =
    leftNotes === 1
      ? 'one key, the letter of the chord'
      : leftNotes === 2
        ? 'two keys, the letter and its fifth'
        : 'the whole chord';
  const when =
    leftOnsets === null || (leftOnsets.per === 'beat' && leftOnsets.most > 1)
      ? 'in any figure that keeps the beat'
      : leftOnsets.per === 'measure' && leftOnsets.most === 1
        ? 'only where a letter stands, and held'
        : leftOnsets.per === 'measure'
          ? `where a letter stands, and at most ${leftOnsets.most} times in a measure`
          : 'on the strokes, one by one';
  return `Left hand: ${what}, ${when}. Right hand: one chord per slash; hold it where the words are fast.`;
}

/** The tune's range beside the singer's: two bars over one line of pitches. */
function rangeBlocks({ voice, learner }: Source, tune: Version, width: number): Block[] {
  const sung = tune.isSingAlong ? [] : playedBy(tune.score.parts[0]!, 'right');
  if (sung.length === 0) return [];
  const tops = [...sung].sort((a, b) => a.midi - b.midi);
  const [lowest, highest] = [tops[0]!, tops.at(-1)!];
  const own = voice && [toMidi(voice.low), toMidi(voice.high)];
  // A voice sings where it lies: the octave of the tune is the singer's own.
  const octaves = own ? Math.round((own[0]! + own[1]! - lowest.midi - highest.midi) / 24) : 0;
  const at = (p: Pitch): Pitch => ({ ...p, octave: p.octave + octaves });
  const range = { low: at(lowest.pitch), high: at(highest.pitch) };
  const rows = [
    { says: 'The melody', ...range },
    ...(voice ? [{ says: learner ?? 'The voice', low: voice.low, high: voice.high }] : []),
  ];
  const [from, to] = [
    Math.min(...rows.map((r) => toMidi(r.low))) - 2,
    Math.max(...rows.map((r) => toMidi(r.high))) + 2,
  ];
  const left = 90;
  const unit = (Math.min(width, 380) - left) / (to - from);
  const x = (p: Pitch): number => left + (toMidi(p) - from) * unit;
  const over = own
    ? [Math.max(0, own[0]! - toMidi(range.low)), Math.max(0, toMidi(range.high) - own[1]!)]
    : [0, 0];
  const verdict = !own
    ? ''
    : over[0] === 0 && over[1] === 0
      ? 'It fits the voice.'
      : `It goes ${[...(over[1] ? [`${distanceText(over[1])} above`] : []), ...(over[0] ? [`${distanceText(over[0])} below`] : [])].join(' and ')} the voice.`;
  return [
    block({
      height: rows.length * 15 + (verdict ? 14 : 0),
      drawn: [
        ...rows.flatMap(({ says, low, high }, i) => [
          textAt(0, 10 + i * 15, says, SMALL),
          element('line', {
            x1: round(x(low)),
            x2: round(x(high)),
            y1: 7 + i * 15,
            y2: 7 + i * 15,
            stroke: i === 0 ? INK : HAND_COLOURS.right,
            'stroke-width': 4,
            'stroke-linecap': 'round',
          }),
          textAt(x(low) - 6, 10 + i * 15, pitchName(low), SMALL, 'end'),
          textAt(x(high) + 6, 10 + i * 15, pitchName(high), SMALL),
        ]),
        ...(verdict ? [textAt(0, rows.length * 15 + 10, verdict, SMALL)] : []),
      ],
      says: `${rows.map((r) => `${r.says} from ${pitchName(r.low)} to ${pitchName(r.high)}`).join('; ')}. ${verdict}`,
      gap: 10,
      endsPage: 20,
    }),
  ];
}
