/** Small pieces of MusicXML text that several writers share. */
import { writtenValue } from '../../../score/notate';
import { TICKS_PER_QUARTER, type Ticks } from '../../../score/ticks';

/** Whether XML 1.0 text may hold a character: no controls but tab and line ends, no halves of surrogate pairs. */
function isAllowed(character: string): boolean {
  const code = character.codePointAt(0)!;
  const isControl = code < 0x20 && code !== 0x09 && code !== 0x0a && code !== 0x0d;
  return !isControl && !(code >= 0xd800 && code <= 0xdfff) && code !== 0xfffe && code !== 0xffff;
}

/** Text as it may stand in an element or a quoted attribute. */
export const escape = (text: string): string =>
  [...text]
    .filter(isAllowed)
    .join('')
    .replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

/** Anything as an XML name: ids begin with a letter and hold letters, digits, points, dashes and underscores. */
export function xmlId(text: string): string {
  const safe = text.replace(/[^A-Za-z0-9._-]/g, '_');
  return /^[A-Za-z_]/.test(safe) ? safe : `_${safe}`;
}

/** `type` of a note value by its fraction of a whole note. */
export const TYPE_NAMES: Readonly<Record<number, string>> = {
  0.5: 'breve',
  1: 'whole',
  2: 'half',
  4: 'quarter',
  8: 'eighth',
  16: '16th',
  32: '32nd',
  64: '64th',
  128: '128th',
  256: '256th',
};

/** A metronome mark for a beat, with the tempo for whoever plays the file. */
export function metronome(beat: Ticks, quartersPerMinute: number): string {
  const value = writtenValue(beat);
  const perMinute = Math.round((quartersPerMinute * TICKS_PER_QUARTER) / beat);
  const unit = `<beat-unit>${TYPE_NAMES[value?.type ?? 4]}</beat-unit>${value?.dots ? '<beat-unit-dot/>' : ''}`;
  return `<direction placement="above"><direction-type><metronome>${unit}<per-minute>${perMinute}</per-minute></metronome></direction-type><staff>1</staff><sound tempo="${quartersPerMinute}"/></direction>`;
}

/** A tempo that is heard and not printed. */
export const heardTempo = (quartersPerMinute: number): string => `<sound tempo="${quartersPerMinute}"/>`;

/** Writes backups and forwards so that the next element stands at a given tick. */
export class Cursor {
  constructor(
    private at: Ticks,
    private readonly divisions: number,
    private readonly out: string[],
  ) {}
  moveTo(tick: Ticks): void {
    const units = Math.round(((tick - this.at) * this.divisions) / TICKS_PER_QUARTER);
    if (units > 0) this.out.push(`<forward><duration>${units}</duration></forward>`);
    if (units < 0) this.out.push(`<backup><duration>${-units}</duration></backup>`);
    this.at = tick;
  }
  passed(ticks: Ticks): void {
    this.at += ticks;
  }
}
