/** What a chart says of itself: title, key, metre, tempo; in lines such as "Key: C   Tempo: 92   4/4" or in directives. */
import { keyName, parseKey } from '../../../theory/key';
import type { Chart } from '../../chart/chart';
import { tempoFrom, timeFrom } from './words';

const NAMES =
  'title|song|key|time signature|time|metre|meter|tempo|bpm|by|composer|artist|words and music|capo';
const FIELD = new RegExp(`^\\s*(${NAMES})\\s*[:=]\\s*(.+)$`, 'i');
/** Between two fields of one line: room, a stroke, or the name of the next. */
const NEXT_FIELD = new RegExp(`\\s{2,}|\\s*[|;,]\\s*|\\s+(?=(?:${NAMES})\\s*[:=])`, 'i');

type Field = readonly [name: string, value: string];

/** The fields of a line that begins with one: "Key: C   Tempo: 92   4/4" has three. */
export function fieldsOf(row: string): Field[] {
  const [, name, value] = FIELD.exec(row) ?? [];
  if (!name) return [];
  // A title and a name may hold commas and strokes.
  if (!/key|time|met|tempo|bpm|capo/i.test(name)) return [[name.toLowerCase(), value!.trim()]];
  return row
    .trim()
    .split(NEXT_FIELD)
    .flatMap((part): Field[] => {
      const field = FIELD.exec(part);
      if (field) return [[field[1]!.toLowerCase(), field[2]!.trim()]];
      if (timeFrom(part)) return [['time', part.trim()]];
      return tempoFrom(part) ? [['tempo', part.trim()]] : [];
    });
}

/** Gathers what is said; the first word counts, and what cannot be taken is said with its line. */
export class ChartHead {
  title = '';
  composer = '';
  rights = '';
  tempo = 0;
  key: Chart['key'];
  time: Chart['time'];

  constructor(private readonly warnings: string[]) {}

  /** Takes a field, from a line that is counted from 1. */
  take([name, value]: Field, line: number): void {
    if (name === 'title' || name === 'song') this.title ||= value;
    else if (name === 'key') this.takeKey(value, line);
    else if (/time|met/.test(name)) this.takeTime(value, line);
    else if (/tempo|bpm/.test(name)) this.takeTempo(value, line);
    else if (name === 'capo') this.warnings.push(`Capo ${value}: the chords are taken as they are written.`);
    else if (name === 'rights') this.rights ||= value;
    else this.composer ||= value;
  }

  private takeKey(value: string, line: number): void {
    const named = parseKey(value);
    if (!named) this.warnings.push(`Line ${line}: “${value}” isn’t a key.`);
    else if (this.key && keyName(named) !== keyName(this.key))
      this.warnings.push(`Line ${line}: the change to ${keyName(named)} inside the chart was left out.`);
    this.key ??= named;
  }

  private takeTime(value: string, line: number): void {
    const named = timeFrom(value);
    if (!named) this.warnings.push(`Line ${line}: “${value}” isn’t a time signature.`);
    else if (this.time && (named.beats !== this.time.beats || named.beatType !== this.time.beatType))
      this.warnings.push(`Line ${line}: the change to ${value} inside the chart was left out.`);
    this.time ??= named;
  }

  private takeTempo(value: string, line: number): void {
    const named = tempoFrom(value);
    if (!named) this.warnings.push(`Line ${line}: “${value}” isn’t a tempo from 10 to 400.`);
    else if (this.tempo > 0 && named !== this.tempo)
      this.warnings.push(`Line ${line}: the change to a tempo of ${named} inside the chart was left out.`);
    this.tempo ||= named;
  }

  /** What was gathered, as fields of a chart. */
  get fields(): Pick<Chart, 'title' | 'composer' | 'rights' | 'tempo' | 'key' | 'time'> {
    const { title, composer, rights, tempo, key, time } = this;
    return {
      title,
      composer,
      tempo,
      ...(rights ? { rights } : {}),
      ...(key ? { key } : {}),
      ...(time ? { time } : {}),
    };
  }
}
