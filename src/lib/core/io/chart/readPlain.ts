/** Plain text: rows of chords over rows of words, slashes for beats, sections by name. */
import { keyName, parseKey } from '../../theory/key';
import type { Chart, ChartLine } from './chart';
import { rowItems } from './rows';
import { isChordRow, sectionName, tempoFrom, timeFrom } from './words';

const NAMES =
  'title|song|key|time signature|time|metre|meter|tempo|bpm|by|composer|artist|words and music|capo';
const FIELD = new RegExp(`^\\s*(${NAMES})\\s*[:=]\\s*(.+)$`, 'i');
/** Between two fields of one line: room, a stroke, or the name of the next. */
const NEXT_FIELD = new RegExp(`\\s{2,}|\\s*[|;,]\\s*|\\s+(?=(?:${NAMES})\\s*[:=])`, 'i');

/** The fields of a line that begins with one: "Key: C   Tempo: 92   4/4" has three. */
function fieldsOf(row: string): (readonly [name: string, value: string])[] {
  const [, name, value] = FIELD.exec(row) ?? [];
  if (!name) return [];
  // A title and a name may hold commas and strokes.
  if (!/key|time|met|tempo|bpm|capo/i.test(name)) return [[name.toLowerCase(), value!.trim()]];
  return row
    .trim()
    .split(NEXT_FIELD)
    .flatMap((part): (readonly [string, string])[] => {
      const field = FIELD.exec(part);
      if (field) return [[field[1]!.toLowerCase(), field[2]!.trim()]];
      if (timeFrom(part)) return [['time', part.trim()]];
      return tempoFrom(part) ? [['tempo', part.trim()]] : [];
    });
}

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
    const fields = fieldsOf(row);
    if (fields.length > 0) {
      for (const [name, value] of fields) {
        if (name === 'title' || name === 'song') title ||= value;
        else if (name === 'key') {
          const named = parseKey(value);
          if (!named) warnings.push(`Line ${i + 1}: “${value}” names no key.`);
          else if (begun && key && keyName(named) !== keyName(key))
            warnings.push(`Line ${i + 1}: the change to ${keyName(named)} inside the chart was left out.`);
          key ??= named;
        } else if (/time|met/.test(name)) {
          const named = timeFrom(value);
          if (!named) warnings.push(`Line ${i + 1}: “${value}” names no metre.`);
          else if (begun && time && (named.beats !== time.beats || named.beatType !== time.beatType))
            warnings.push(`Line ${i + 1}: the change to ${value} inside the chart was left out.`);
          time ??= named;
        } else if (/tempo|bpm/.test(name)) tempo ||= tempoFrom(value);
        else if (name === 'capo') warnings.push(`Capo ${value}: the chords are taken as they are written.`);
        else composer ||= value;
      }
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
      // "3/4, G major, ♩ = 90" below the title
      time ??= timeFrom(/\d+\/\d+/.exec(inner)?.[0] ?? '');
      for (const part of inner.split(/[,;|]|\s{2,}/)) {
        key ??= /^[A-G]\S* ?(major|minor|maj|min|m)?$/i.test(part.trim()) ? parseKey(part) : undefined;
        if (/bpm|=|♩/i.test(part)) tempo ||= tempoFrom(part.replace(/^.*=/, ''));
      }
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
