/** Plain text: rows of chords over rows of words, slashes for beats, sections by name. */
import { parseKey } from '../../theory/key';
import type { Chart, ChartItem, ChartLine } from './chart';
import { isChordRow, sectionName, signOf, tempoFrom, timeFrom, tokensOf } from './words';

const FIELD =
  /^\s*(title|song|key|time|metre|meter|time signature|tempo|bpm|by|composer|artist|words and music|capo)\s*[:=]\s*(.+)$/i;

/** Reads the text; rows of words without chords belong to the chord before. */
export function readPlainChart(text: string, warnings: string[]): Chart {
  let [title, composer, tempo] = ['', '', 0];
  let key: Chart['key'];
  let time: Chart['time'];
  const sections: { name: string; lines: ChartLine[] }[] = [{ name: '', lines: [] }];
  const rows = text.split('\n').map((r) => r.replace(/\t/g, '    '));
  let begun = false;
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    if (row.trim() === '') continue;
    const field = FIELD.exec(row);
    if (field) {
      const value = field[2]!.trim();
      const name = field[1]!.toLowerCase();
      if (name === 'title' || name === 'song') title ||= value;
      else if (name === 'key') key ??= parseKey(value);
      else if (/time|met/.test(name)) time ??= timeFrom(value);
      else if (/tempo|bpm/.test(name)) tempo ||= tempoFrom(value);
      else if (name === 'capo') warnings.push(`Capo ${value}: the chords are taken as they are written.`);
      else composer ||= value;
      continue;
    }
    const inner = row.trim();
    const section = sectionName(inner);
    if (section) {
      begun = true;
      sections.push({ name: section.name, lines: [] });
      if (section.rest === '') continue;
    }
    // The name of a section may stand before its first row, on the same line.
    const chords = section ? ' '.repeat(row.length - section.rest.length) + section.rest : row;
    if (isChordRow(chords)) {
      begun = true;
      const below = rows[i + 1];
      const hasWords =
        below !== undefined &&
        below.trim() !== '' &&
        !isChordRow(below) &&
        !FIELD.test(below) &&
        !sectionName(below);
      sections.at(-1)!.lines.push({ items: rowItems(chords, hasWords ? below : ''), line: i + 1 });
      if (hasWords) i += 1;
    } else if (!begun && title === '' && !metaLine(inner)) title = inner;
    else if (!begun) {
      // "3/4, G major, 90" below the title
      time ??= timeFrom(/\d+\/\d+/.exec(inner)?.[0] ?? '');
      const by = /^by\s+(.+)$/i.exec(inner)?.[1];
      if (by) composer ||= by;
    } else
      sections.at(-1)!.lines.push({ items: [{ what: { kind: 'words only' }, words: inner }], line: i + 1 });
  }
  return {
    title,
    composer,
    ...(key ? { key } : {}),
    ...(time ? { time } : {}),
    tempo,
    sections: sections.filter((s) => s.lines.length > 0),
  };
}

const metaLine = (text: string): boolean => /^\d+\/\d+/.test(text);

/**
 * Signs of a row with the words below: each word belongs to the last sign that stands at or before its beginning. A chord
 * that stands inside a word parts it there; a slash does not.
 */
function rowItems(row: string, below: string): ChartItem[] {
  const tokens = tokensOf(row).map(({ token, column }) => ({ what: signOf(token)!, column }));
  const words = new Array<string>(tokens.length).fill('');
  const holder = (column: number): number =>
    Math.max(
      0,
      tokens.findLastIndex((t) => t.column <= column && t.what.kind !== 'bar'),
    );
  for (const match of below.matchAll(/\S+\s*/g)) {
    const word = match[0];
    const begin = match.index;
    const inside = tokens
      .filter(
        ({ what, column }) =>
          what.kind === 'chord' && column > begin && column < begin + word.trimEnd().length,
      )
      .map((t) => t.column);
    [begin, ...inside].forEach((from, i) => {
      const to = inside[i] ?? begin + word.length;
      words[holder(from)] += below.slice(from, to);
    });
  }
  return tokens.map(({ what }, i): ChartItem => ({ what, words: words[i]! }));
}
