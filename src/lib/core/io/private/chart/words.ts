/** Signs and words that charts are made of. */
import type { TimeSignature } from '../../../score/score';
import { parseChord, rootNamed } from '../../../theory/chordName';
import type { ChartSign } from '../../chart/chart';

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

/** A sign of a row of chords: what names no chord that is known is a chord all the same, of which the root is kept. */
export function signInRow(token: string): ChartSign {
  const sign = signOf(token);
  if (sign) return sign;
  // "Fade" is a word, whatever letter it begins with.
  const root = isWord(token) ? undefined : rootNamed(token);
  return { kind: 'unknown', name: token, ...(root === undefined ? {} : { root }) };
}

const isWord = (token: string): boolean => /^\p{L}[\p{Ll}'’]{2,}[.,!?]?$/u.test(token);

/** A token that begins with a letter of the scale and goes on as no word does: "Gx9", "C~", "Bb7q". */
export const looksLikeChord = (token: string): boolean =>
  rootNamed(token) !== undefined && /^[A-G][#b♯♭]?.*[\d#+°øΔ^()~]/.test(token);

/**
 * Whether a row is one of chords: at least one of its tokens is, and every other a sign of a chart, or, with barlines or beside
 * more known ones, a name that no known chord has.
 */
export function isChordRow(row: string): boolean {
  const tokens = tokensOf(row).map(({ token }) => ({ token, sign: signOf(token) }));
  const strange = tokens.filter(({ sign }) => !sign);
  const chords = tokens.filter(({ sign }) => sign?.kind === 'chord' || sign?.kind === 'same measure');
  if (chords.length === 0)
    return (
      strange.length > 0 &&
      strange.every(({ token }) => looksLikeChord(token)) &&
      strange.length < tokens.length
    );
  if (strange.length === 0) return true;
  const isFenced = tokens.some(({ sign }) => sign?.kind === 'bar');
  return strange.length <= chords.length && (isFenced || strange.every(({ token }) => looksLikeChord(token)));
}

const SECTION_WORDS =
  'intro|verse|chorus|pre-?chorus|post-?chorus|refrain|bridge|middle(?: eight)?|interlude|instrumental|solo|break|turnaround|tag|hook|outro|ending|coda|strophe|part|section';

/** Brackets and strokes around the name of a section: "(Chorus)", "<Bridge>", "** Verse 2 **", "--- Coda ---". */
const AROUND = /^\s*(?:[(<{*=#~_\-–—]+)\s*(.{1,40}?)\s*(?:[)>}*=#~_\-–—]+)\s*:?\s*(.*)$/;

/** "Verse 1:", "[Chorus]", "(Bridge)", "A:" and the music that may follow on the same line. */
export function sectionName(line: string): { name: string; rest: string } | undefined {
  const around = AROUND.exec(line);
  if (around && (around[2] === '' || isChordRow(around[2]!))) {
    const name = around[1]!.replace(/:$/, '');
    if (new RegExp(`^(?:${SECTION_WORDS})\\b`, 'i').test(name) || /^[A-Z][′'″]?$/.test(name))
      return { name, rest: around[2]! };
  }
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
