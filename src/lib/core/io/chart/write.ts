/** Charts as text: ChordPro with chords inside the words, or plain text with chords over them. */
import type { Score } from '../../score/score';
import { chordSymbol } from '../../theory/chord';
import { keyCode } from '../../theory/key';
import type { Chart, ChartItem } from './chart';
import { scoreToChart } from './fromScore';

const oneLine = (text: string): string => text.replace(/[\r\n{}]+/g, ' ').trim();

/** A sign as it is typed. */
function signText({ what }: ChartItem): string {
  switch (what.kind) {
    case 'unknown':
      return what.name;
    case 'chord':
      return what.chord
        ? chordSymbol(what.chord)
            .replace(/♯/g, '#')
            .replace(/♭/g, 'b')
            .replace(/𝄪/g, '##')
            .replace(/𝄫/g, 'bb')
        : 'N.C.';
    case 'beat':
      return '/';
    case 'bar':
      return `${what.repeatEnd ? ':' : ''}|${what.repeatStart ? ':' : ''}`;
    case 'same measure':
      return '%';
    case 'words only':
      return '';
  }
}

const bracketed = (words: string): string => words.replace(/[[\]{}]/g, '');

/** ChordPro. Beats and barlines stand in brackets as chords do, so that nothing of the rhythm is lost. */
export function writeChordPro(score: Score): string {
  const chart = scoreToChart(score);
  const out = [
    `{title: ${oneLine(chart.title)}}`,
    ...(chart.composer ? [`{composer: ${oneLine(chart.composer)}}`] : []),
    ...(chart.key ? [`{key: ${keyCode(chart.key)}}`] : []),
    ...(chart.time ? [`{time: ${chart.time.beats}/${chart.time.beatType}}`] : []),
    ...(chart.tempo > 0 ? [`{tempo: ${chart.tempo}}`] : []),
  ];
  const hasWords = chart.sections.some((s) => s.lines.some((l) => l.items.some((i) => i.words.trim())));
  for (const { name, lines } of chart.sections) {
    out.push('');
    const environment = hasWords ? environmentOf(name) : 'grid';
    if (environment) out.push(`{start_of_${environment}${name ? `: ${oneLine(name)}` : ''}}`);
    else if (name) out.push(`{comment: ${oneLine(name)}}`);
    for (const { items } of lines)
      out.push(
        hasWords
          ? items
              .map((i) => `[${signText(i)}]${bracketed(i.words)}`)
              .join('')
              .trim()
          : items.map((i) => (i.what.kind === 'beat' ? '.' : signText(i))).join(' '),
      );
    if (environment) out.push(`{end_of_${environment}}`);
  }
  return `${out.join('\n')}\n`;
}

function environmentOf(name: string): string | undefined {
  if (/^chorus|^refrain/i.test(name)) return 'chorus';
  if (/^bridge/i.test(name)) return 'bridge';
  return /^verse/i.test(name) ? 'verse' : undefined;
}

/** Plain text: a row of chords, slashes and barlines, the words below it. */
export function writePlainChart(score: Score): string {
  const chart: Chart = scoreToChart(score);
  const out = [
    `Title: ${oneLine(chart.title)}`,
    ...(chart.composer ? [`By: ${oneLine(chart.composer)}`] : []),
    ...(chart.key ? [`Key: ${keyCode(chart.key)}`] : []),
    ...(chart.time ? [`Time: ${chart.time.beats}/${chart.time.beatType}`] : []),
    ...(chart.tempo > 0 ? [`Tempo: ${chart.tempo}`] : []),
  ];
  for (const { name, lines } of chart.sections) {
    out.push('');
    if (name) out.push(`${oneLine(name)}:`);
    for (const { items } of lines) {
      let [chords, words] = ['', ''];
      for (const item of items) {
        const width = Math.max(chords.length, words.length);
        chords = chords.padEnd(width) + signText(item) + ' ';
        // A word that a chord parts is held together by a dash.
        const parted =
          item.words.trim() && words.length < width && /\S$/.test(words) && !/^\s/.test(item.words);
        words = item.words.trim() ? (parted ? `${words}-` : words).padEnd(width) + item.words : words;
      }
      out.push(chords.trimEnd());
      if (words.trim()) out.push(words.trimEnd());
    }
  }
  return `${out.join('\n')}\n`;
}
