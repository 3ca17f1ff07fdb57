/** A Score as a chart: its chords on their beats with the words that are sung there, in lines of four measures. */
import { chordsOf } from '../../analysis/harmony';
import { melodyPart } from '../../analysis/melody';
import { beatLength, endOf, measureLength } from '../../score/metre';
import type { Measure, Score } from '../../score/score';
import { TICKS_PER_QUARTER, type Ticks } from '../../score/ticks';
import type { Chart, ChartItem, ChartLine } from './chart';

const MEASURES_IN_LINE = 4;

/** Makes the chart. Beats are slashes; chords between beats stand on beats of their own. */
export function scoreToChart(score: Score): Chart {
  const first = score.measures[0]!;
  const words = wordsOf(score);
  const spans = chordsOf(score);
  const sections: { name: string; lines: ChartLine[] }[] = [];
  let line: ChartItem[] = [];
  let inLine = 0;
  const closeLine = (): void => {
    if (line.length > 0) sections.at(-1)!.lines.push({ items: line, line: 0 });
    line = [];
    inLine = 0;
  };
  score.measures.forEach((measure, i) => {
    // A pickup belongs to the section that it leads into.
    const named = measure.section ?? (i === 0 && isShort(measure) ? score.measures[1]?.section : undefined);
    const begun = i === 1 && sections[0]?.name === measure.section;
    if ((measure.section && !begun) || i === 0) {
      closeLine();
      sections.push({ name: named ?? '', lines: [] });
    }
    // Whole measures stand between barlines; a short one begins or ends its row without, and so is read as beats.
    if (line.length === 0 && !isShort(measure)) line.push(bar(measure));
    const beats = beatsOf(
      measure,
      spans.map((s) => s.onset),
    );
    beats.forEach((onset, b) => {
      const span = spans.find((s) => s.onset === onset);
      const until = beats[b + 1] ?? endOf(measure);
      const text = words
        .filter((w) => w.onset >= onset && w.onset < until)
        .map((w) => w.text)
        .join('');
      // A measure says its chord again, so that every row can be read by itself.
      const held = b === 0 ? spans.find((s) => s.onset <= onset && onset < s.onset + s.duration) : undefined;
      const chord = span ?? held;
      line.push({ what: chord ? { kind: 'chord', chord: chord.chord } : { kind: 'beat' }, words: text });
    });
    const next = score.measures[i + 1];
    const endsSection = !next || (next.section !== undefined && !(i === 0 && named === next.section));
    if (!(isShort(measure) && endsSection)) line.push(bar(next, measure));
    inLine += isShort(measure) && inLine === 0 ? 0 : 1;
    if (inLine === MEASURES_IN_LINE || endsSection) closeLine();
  });
  return {
    title: score.title,
    composer: score.composer,
    key: first.key,
    time: first.time,
    tempo: Math.round((score.tempo * TICKS_PER_QUARTER) / beatLength(first.time)),
    sections,
  };
}

const isShort = (measure: Measure): boolean => measure.length < measureLength(measure.time);

/** The barline between two measures. */
const bar = (next: Measure | undefined, before?: Measure): ChartItem => ({
  what: {
    kind: 'bar',
    ...(next?.repeatStart ? { repeatStart: true } : {}),
    ...(before?.repeatEnd ? { repeatEnd: true } : {}),
  },
  words: '',
});

/** The beats of a measure, and the chords that come between them. */
function beatsOf(measure: Measure, chordOnsets: readonly Ticks[]): Ticks[] {
  const beat = beatLength(measure.time);
  const beats: Ticks[] = [];
  for (let at = measure.start; at < endOf(measure); at += beat) beats.push(at);
  const between = chordOnsets.filter((o) => o > measure.start && o < endOf(measure) && !beats.includes(o));
  return between.length === 0 ? beats : [...beats, ...between].sort((a, b) => a - b);
}

/** Syllables of the first verse, or the words of a chart, with the spaces and dashes between them. */
function wordsOf(score: Score): { onset: Ticks; text: string }[] {
  const marks = score.parts.flatMap((p) => p.marks ?? []).filter((m) => m.kind === 'lyrics');
  if (marks.length > 0) return marks.map((m) => ({ onset: m.onset, text: `${m.text} ` }));
  if (score.parts.length === 0) return [];
  return melodyPart(score).notes.flatMap((note) => {
    const lyric = note.lyrics?.find((l) => l.line === 'words' && l.verse === 1);
    if (!lyric) return [];
    const goesOn = lyric.syllabic === 'begin' || lyric.syllabic === 'middle';
    return [{ onset: note.onset, text: lyric.text + (goesOn ? '' : ' ') }];
  });
}
