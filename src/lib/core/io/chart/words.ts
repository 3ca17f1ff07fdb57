/** Signs and words that charts are made of. */
import type { TimeSignature } from '../../score/score';
import { parseChord } from '../../theory/chordName';
import type { ChartSign } from './chart';

/** A token of a row of chords: "Am7", "/", "|", "%"; undefined for anything else. */
export function signOf(token: string): ChartSign | undefined {
  if (/^[/.\-–]$/.test(token)) return { kind: 'beat' };
  if (/^(%|𝄎)$/.test(token)) return { kind: 'same measure' };
  if (/^[:|\][‖]*[|‖][:|\][‖]*$/.test(token))
    return {
      kind: 'bar',
      ...(/^:/.test(token) ? { repeatEnd: true } : {}),
      ...(/:$/.test(token) ? { repeatStart: true } : {}),
    };
  const chord = parseChord(token.replace(/^\((.*)\)$/, '$1').replace(/[*,]$/, ''));
  return chord === undefined ? undefined : { kind: 'chord', chord };
}

/** Tokens of a row with their columns; barlines and slashes need no room around them. */
export function tokensOf(row: string): { token: string; column: number }[] {
  const result: { token: string; column: number }[] = [];
  for (const match of row.matchAll(/:?[|‖]+:?\]?|[^\s|‖]+/g)) {
    const text = match[0].replace(/^:(?=[A-G])/, '');
    // "F//" is F and two more beats; the slash of "Bb/C" is followed by a letter.
    const beats = /^(.*?[^/])(\/+)$/.exec(text) ?? /^()(\/{2,})$/.exec(text);
    if (beats && !/^[/]?$/.test(text)) {
      if (beats[1]) result.push({ token: beats[1], column: match.index });
      [...beats[2]!].forEach((slash, i) =>
        result.push({ token: slash, column: match.index + beats[1]!.length + i }),
      );
    } else result.push({ token: text, column: match.index });
  }
  return result;
}

/** Whether every token of a row is a sign of a chart, and at least one a chord. */
export function isChordRow(row: string): boolean {
  const signs = tokensOf(row).map(({ token }) => signOf(token));
  return (
    signs.every((s) => s !== undefined) &&
    signs.some((s) => s?.kind === 'chord' || s?.kind === 'same measure')
  );
}

const SECTION_WORDS =
  'intro|verse|chorus|pre-?chorus|post-?chorus|refrain|bridge|middle(?: eight)?|interlude|instrumental|solo|break|turnaround|tag|hook|outro|ending|coda|strophe|part|section';

/** "Verse 1:", "[Chorus]", "Bridge", "A:" and the music that may follow on the same line. */
export function sectionName(line: string): { name: string; rest: string } | undefined {
  const bracketed = /^\[([^\]|]{1,40})\]\s*:?\s*(.*)$/.exec(line.trim());
  if (bracketed && parseChord(bracketed[1]!) === undefined && !/[[\]]/.test(bracketed[2]!))
    return { name: bracketed[1]!.trim(), rest: bracketed[2]! };
  const known = new RegExp(`^((?:${SECTION_WORDS})\\b[\\w '’.-]{0,20}?)\\s*(?::\\s*(.*)|$)`, 'i').exec(
    line.trim(),
  );
  if (known) return { name: known[1]!.trim(), rest: known[2] ?? '' };
  const letter = /^([A-Z][′'″]{0,2}|[A-Z]\d?)\s*:\s*(.*)$/.exec(line.trim());
  if (letter && (letter[2] === '' || isChordRow(letter[2]!))) return { name: letter[1]!, rest: letter[2]! };
  const named = /^([\p{L}][\p{L}\d '’().-]{0,28}):\s*$/u.exec(line.trim());
  return named ? { name: named[1]!.trim(), rest: '' } : undefined;
}

/** "3/4", "C", "6/8 time"; undefined where no metre is named. */
export function timeFrom(text: string): TimeSignature | undefined {
  const match = /^(\d{1,2})\s*\/\s*(1|2|4|8|16|32)\b/.exec(text.trim());
  if (!match) return undefined;
  const [beats, beatType] = [Number(match[1]), Number(match[2])];
  return beats >= 1 && beats <= 64 ? { beats, beatType } : undefined;
}

/** Beats per minute in "90", "♩ = 90", "90 bpm". */
export const tempoFrom = (text: string): number => {
  const number = Number(/\d+(\.\d+)?/.exec(text)?.[0]);
  return number >= 10 && number <= 400 ? number : 0;
};
