/** Plain text: rows of chords over rows of words, slashes for beats, sections by name. */
import { routeInWords } from '../../../score/routeWords';
import { parseKey } from '../../../theory/key';
import type { Chart, ChartLine } from '../../chart/chart';
import { ChartHead, fieldsOf } from './head';
import { rowItems } from './rows';
import { isChordRow, sectionName, tempoFrom, timeFrom } from './words';

/** Reads the text; rows of words without chords belong to the chord before. */
export function readPlainChart(text: string, warnings: string[]): Chart {
  const head = new ChartHead(warnings);
  const sections: { name: string; lines: ChartLine[] }[] = [{ name: '', lines: [] }];
  const rows = text.split('\n').map((r) => r.replace(/\t/g, '    '));
  const letters = letterRows(rows);
  let begun = false;
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    if (row.trim() === '') continue;
    const fields = fieldsOf(row);
    if (fields.length > 0) {
      for (const field of fields) head.take(field, i + 1);
      continue;
    }
    const inner = row.trim();
    const section = sectionName(inner) ?? (letters.has(i) ? { name: inner, rest: '' } : undefined);
    if (section) {
      begun = true;
      sections.push({ name: section.name, lines: [] });
      if (section.rest === '') continue;
    }
    // The name of a section may stand before its first row, on the same line.
    const [music, way] = withoutWay(
      section ? ' '.repeat(row.length - section.rest.length) + section.rest : row,
    );
    const chords = music;
    if (isChordRow(chords)) {
      begun = true;
      const below = rows[i + 1];
      const hasWords =
        below !== undefined &&
        below.trim() !== '' &&
        !isChordRow(below) &&
        fieldsOf(below).length === 0 &&
        !sectionName(below) &&
        Object.keys(routeInWords(below)).length === 0;
      const items = rowItems(chords, hasWords ? below : '');
      sections.at(-1)!.lines.push({
        items: way === '' ? items : [...items, { what: { kind: 'words only' }, words: way }],
        line: i + 1,
      });
      if (hasWords) i += 1;
    } else if (!begun && head.title === '' && !metaLine(inner)) head.title = inner;
    else if (!begun) {
      // "3/4, G major, ♩ = 90" below the title
      head.time ??= timeFrom(/\d+\/\d+/.exec(inner)?.[0] ?? '');
      for (const part of inner.split(/[,;|]|\s{2,}/)) {
        head.key ??= /^[A-G]\S* ?(major|minor|maj|min|m)?$/i.test(part.trim()) ? parseKey(part) : undefined;
        if (/bpm|=|♩/i.test(part)) head.tempo ||= tempoFrom(part.replace(/^.*=/, ''));
      }
      const by = /^by\s+(.+)$/i.exec(inner)?.[1];
      if (by) head.composer ||= by;
    } else
      sections.at(-1)!.lines.push({ items: [{ what: { kind: 'words only' }, words: inner }], line: i + 1 });
  }
  return {
    ...head.fields,
    sections: sections.filter((s) => s.lines.length > 0),
  };
}

/** Where a row sends the player, at its end: "| G | C | D.C. al Fine". */
const WAY = /\s+\(?((?:D\.? ?[CS]\.?|da capo|dal segno)(?: al (?:fine|coda))?|to coda|fine)\)?\.?\s*$/i;

/** A row of chords and what it says of the way through the piece. */
function withoutWay(row: string): readonly [music: string, way: string] {
  const way = WAY.exec(row);
  const music = way ? row.slice(0, way.index) : '';
  return way && isChordRow(music) ? [music, way[1]!] : [row, ''];
}

/**
 * Rows that are a single letter and name a section: they go through the alphabet from A, each stands over a row of chords, and those have more
 * than one sign or barlines, so that the letter is no chord.
 */
function letterRows(rows: readonly string[]): ReadonlySet<number> {
  const isLetter = (row: string): boolean => /^\s*[A-H][′'’]?\d?\s*$/.test(row);
  const found = rows.flatMap((row, i) => (isLetter(row) ? [i] : []));
  const others = rows.filter((row) => !isLetter(row) && isChordRow(row));
  if (found.length === 0 || others.length === 0) return new Set();
  const areLong = others.filter((row) => row.includes('|') || row.trim().split(/\s+/).length > 1).length;
  let latest = 'A'.charCodeAt(0) - 1;
  const inOrder = found.every((i) => {
    const letter = rows[i]!.trim().charCodeAt(0);
    const follows = letter <= latest + 1;
    latest = Math.max(latest, letter);
    return follows;
  });
  const below = (i: number): string => rows.slice(i + 1).find((row) => row.trim() !== '') ?? '';
  const leadOn = found.every((i) => isChordRow(below(i)) && !isLetter(below(i)));
  return inOrder && leadOn && areLong === others.length ? new Set(found) : new Set();
}

const metaLine = (text: string): boolean => /^\d+\/\d+/.test(text);
