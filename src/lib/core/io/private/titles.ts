/** What in a file is the title of its music, and what is only the name of an instrument, of a track, or of nothing. */
import { plainLine } from '../../plainText';

/** What a score is called that has no title; whoever shows it takes the name of its file. */
const UNTITLED = 'Untitled';

/** Names of instruments, hands, voices and tracks, and words that programs put where a title belongs. A name made of these alone is none. */
const NO_TITLE_WORDS =
  /^(untitled|unnamed|new|no|name|title|score|sequence|seq|track|tracks?|staff|stave|channel|chan?|ch|part|voice|voices|vocals?|vox|midi|file|format|type|tempo|control|conductor|master|meta|system|setup|default|instruments?|piano|grand|acoustic|electric|bright|honky|tonk|upright|rhodes|epiano|keyboards?|keys|harpsichord|clavi(net|chord)?|celesta|glockenspiel|vibraphone|vibes|marimba|xylophone|bells?|tubular|dulcimer|organ|hammond|church|reed|accordion|harmonica|bandoneon|guitars?|gtr|nylon|steel|jazz|clean|muted|overdriven|distort(ed|ion)|harmonics|bass|basses|fingered|picked|fretless|slap|synth|synthesi[sz]er|violins?|violas?|cellos?|contrabass|double|tremolo|pizzicato|strings?|ensemble|orchestral?|harp|timpani|choir|aahs|oohs|hit|trumpets?|trombones?|tuba|french|horns?|brass|sections?|sax|saxophones?|soprano|alto|tenor|baritone|oboe|english|bassoon|clarinets?|piccolo|flutes?|recorder|pan|bottle|whistle|ocarina|lead|square|saw|sawtooth|pads?|warm|polysynth|sweep|fx|effects?|sitar|banjo|shamisen|koto|kalimba|bagpipes?|fiddle|shanai|drums?|drum|kit|set|percussion|perc|hand|hands|right|left|upper|lower|treble|rh|lh|r|l|melody|melodie|tune|chords?|harmony|backing|accomp(animent)?|arp(eggio)?|rhythm|comp|solo|main|one|two|i|ii|iii|iv|the|and|of|und|a|b|[\d#.]+s?)$/i;

/** What programs say of themselves, or of nobody. */
const OF_A_PROGRAM =
  /\b(generated|created|exported|sequenced|encoded|converted|written) (by|with|in|from)\b|https?:|www\./i;

/** The text as a title; empty where it is none. */
export function asTitle(text: string): string {
  const line = plainLine(text);
  if (line === '' || OF_A_PROGRAM.test(line) || !/\p{L}/u.test(line)) return '';
  const words = line.split(/[^\p{L}\p{N}#']+/u).filter((w) => w !== '');
  return words.every((w) => NO_TITLE_WORDS.test(w)) ? '' : line;
}

/** What programs put where a title is asked for and nobody gave one. */
const NOT_GIVEN =
  /^((untitled|unnamed|unknown|no title|new)( (score|song|project|document|piece|sequence))?|title)( \d+)?$/i;

/** A title that stands in its own field, where a person put it there; empty for what a program did. */
export function givenTitle(text: string): string {
  const line = plainLine(text);
  return NOT_GIVEN.test(line) || OF_A_PROGRAM.test(line) ? '' : line;
}

/** A file's name in words, for what has no title of its own. */
export function titleOfFile(fileName: string): string {
  const words = plainLine(
    fileName
      .replace(/\.[^.]+$/, '')
      .replace(/[-_+]+/g, ' ')
      .replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2'),
  );
  return words === '' ? UNTITLED : words[0]!.toUpperCase() + words.slice(1);
}

const BY =
  /^(?:(?:music|words and music|composed|composer|written|arranged|arr\.?|author)\s*(?:by)?\s*[:.]?|by)\s+(.{2,80})$/i;

/** Whom a line names as the composer: "Music by …", "Composer: …", "by …". */
export function namedComposer(text: string): string | undefined {
  const found = BY.exec(plainLine(text))?.[1]?.trim();
  return found && !OF_A_PROGRAM.test(text) ? found : undefined;
}

/** Whether a line is about rights. */
export const isAboutRights = (text: string): boolean =>
  /©|\(c\)\s|\bcopyright\b|\ball rights reserved\b|\bpublic domain\b|\bcc[- ](by|0)\b|\blicen[sc]ed?\b/i.test(
    text,
  );
