/** A slash chart: in each measure its beats, which chord stands at which, and what is sung on them. */
import { sourceStart } from '../score/measureId';
import { measureAt } from '../score/query';
import { beatLength, endOf } from '../score/metre';
import type { Lyric } from '../score/score';
import { spreadWords } from '../score/spreadWords';
import type { Ticks } from '../score/ticks';
import { chordSymbol } from '../theory/chord';
import type { Version } from '../version/realise';

export interface SlashBeat {
  /** Chords that begin on it or before the next one. */
  readonly symbols: readonly string[];
  /** What is sung on it, by verse; empty texts where nothing is. */
  readonly words: readonly string[];
  /** It leads into the next section, whose pickup borrows it. */
  readonly isBorrowed: boolean;
}

export interface SlashMeasure {
  /** By index. */
  readonly measure: number;
  readonly beats: readonly SlashBeat[];
}

/** A syllable or a stretch of words at its place. */
interface Sung {
  readonly onset: Ticks;
  readonly verse: number;
  readonly text: string;
  readonly syllabic: Lyric['syllabic'];
}

type Worded = Pick<Version, 'score' | 'chords' | 'form'>;

/** What is sung, from the words under the notes; where there are none, from what stands over a chart. */
function sungIn({ score }: Worded): Sung[] {
  const { notes, marks = [] } = score.parts[0]!;
  const under = notes.flatMap((note) =>
    (note.lyrics ?? [])
      .filter((l) => l.line === 'words')
      .map(({ verse, text, syllabic }) => ({ onset: note.onset, verse, text, syllabic })),
  );
  if (under.length > 0) return under.sort((a, b) => a.onset - b.onset);
  return marks
    .filter((m) => m.kind === 'lyrics')
    .flatMap((mark, i, all) => {
      const measure = measureAt(score.measures, mark.onset);
      const end = Math.min(all[i + 1]?.onset ?? Infinity, endOf(measure));
      return spreadWords(mark.text, mark.onset, end, beatLength(measure.time)).map(
        ({ tick, text }): Sung => ({ onset: tick, verse: 1, text, syllabic: 'single' }),
      );
    });
}

/** Syllables of one beat as they are read: a word that goes on after it has a hyphen. */
function joined(syllables: readonly Sung[]): string {
  let text = '';
  syllables.forEach(({ text: own, syllabic }, i) => {
    const goesOn = i > 0 && ['begin', 'middle'].includes(syllables[i - 1]!.syllabic);
    text += text && !goesOn ? ` ${own}` : own;
    if (i === syllables.length - 1 && (syllabic === 'begin' || syllabic === 'middle')) text += '-';
  });
  return text;
}

/** The beats of every measure. `words` is a version that has the words at their notes, where this one plays no tune. */
export function slashChart(version: Worded, words: Worded = version): SlashMeasure[] {
  const { score, chords, form } = version;
  const shift = sourceStart(score.measures) - sourceStart(words.score.measures);
  const sung = sungIn(words).map((s) => ({ ...s, onset: s.onset + shift }));
  const verses = Math.max(0, ...sung.map((s) => s.verse));
  const borrowed = form.sections.flatMap(({ from, pickup }) =>
    pickup && from > 0
      ? [{ from: score.measures[from]!.start - pickup, to: score.measures[from]!.start }]
      : [],
  );
  return score.measures.map((measure) => {
    const beat = beatLength(measure.time);
    const end = endOf(measure);
    const first = Math.ceil(measure.beginsAt / beat) * beat - measure.beginsAt;
    const places: Ticks[] = [];
    for (let at = measure.start + first; at < end; at += beat) places.push(at);
    if (places.length === 0) places.push(measure.start);
    return {
      measure: measure.index,
      beats: places.map((at, i): SlashBeat => {
        const from = i === 0 ? measure.start : at;
        const to = places[i + 1] ?? end;
        const inside = ({ onset }: { readonly onset: Ticks }): boolean => onset >= from && onset < to;
        return {
          symbols: chords.filter(inside).flatMap(({ chord }) => (chord ? [chordSymbol(chord)] : [])),
          words: Array.from({ length: verses }, (_, v) =>
            joined(sung.filter((s) => s.verse === v + 1 && inside(s))),
          ),
          isBorrowed: borrowed.some((b) => at >= b.from && at < b.to),
        };
      }),
    };
  });
}
