/** What the parser of ABC says it could not read, in our words: what changes no note is not said, the rest with its place. */

/** How many places are named; what is more is counted. */
const MOST = 6;

/** Layout, fonts, other programs' commands and drawings: no note is lost with them. */
const OF_LAYOUT =
  /directive|Postscript|Decoration redefinition|tabs in|font|MIDI|%%score|staffscale|stafflines|style|stems|Formatting|maxstaves|visualTranspose|symbols before/i;

const SAID: readonly (readonly [RegExp, string])[] = [
  [
    /Expected '\]' to end the chords|Spaces are not allowed in chords/,
    'a chord in square brackets is not closed',
  ],
  [/Missing the closing quote/, 'a text in quotation marks is not closed'],
  [/Missing the closing '}'/, 'grace notes in braces are not closed'],
  [/while parsing grace note/, 'something among the grace notes is left out'],
  [/Unknown decoration/, 'a sign between exclamation marks is not known and left out'],
  [/Unknown bar/, 'a bar line is not understood'],
  [/triplet/, 'a tuplet is not understood'],
  [/Duration not representable/, 'a length is not understood'],
  [/key signature|accidental/i, 'the key is not understood'],
  [/words before/, 'lyrics come before any music'],
  [/voice/i, 'something about a voice is not understood'],
  [/macro/i, 'a macro is not understood'],
  [/Unknown character ignored/, 'a character is left out'],
];

/** Sentences for a reader, each place once, from what the parser says ("Music Line:2:9: Unknown character ignored: …"). */
export function parserWarnings(warnings: readonly string[]): string[] {
  const said = new Map<string, string>();
  for (const warning of warnings) {
    // Behind the second colon the line of the file is quoted, in which any word may stand.
    const message = warning.replace(/^Music Line:\d+:\d+:\s*/, '').replace(/:.*/s, '');
    if (OF_LAYOUT.test(message)) continue;
    const [, line = '', column = ''] = /^Music Line:(\d+):(\d+):/.exec(warning) ?? [];
    const what =
      SAID.find(([pattern]) => pattern.test(message))?.[1] ?? 'something is not understood and left out';
    const character = /<span[^>]*>(.)<\/span>/.exec(warning)?.[1]?.trim();
    const key = `${line} ${what}`;
    if (said.has(key)) continue;
    said.set(
      key,
      line
        ? `Line ${line}: ${what}${character ? ` (“${character}”, at character ${column})` : ''}.`
        : `${what[0]!.toUpperCase()}${what.slice(1)}.`,
    );
  }
  const all = [...said.values()];
  return all.length <= MOST
    ? all
    : [...all.slice(0, MOST), `${all.length - MOST} more places of the ABC text are not understood.`];
}
