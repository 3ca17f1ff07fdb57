/** Plain text: rows of chords over rows of words, slashes for beats, sections by name. */
import { parseKey } from '../../theory/key';
import type { Chart, ChartLine } from './chart';
import { ChartHead, fieldsOf } from './head';
import { rowItems } from './rows';
import { isChordRow, sectionName, tempoFrom, timeFrom } from './words';

/** Reads the text; rows of words without chords belong to the chord before. */
export function readPlainChart(text: string, warnings: string[]): Chart {
  const head = new ChartHead(warnings);
  const sections: { name: string; lines: ChartLine[] }[] = [{ name: '', lines: [] }];
  const rows = text.split('\n').map((r) => r.replace(/\t/g, '    '));
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
        fieldsOf(below).length === 0 &&
        !sectionName(below);
      sections.at(-1)!.lines.push({ items: rowItems(chords, hasWords ? below : ''), line: i + 1 });
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

const metaLine = (text: string): boolean => /^\d+\/\d+/.test(text);
