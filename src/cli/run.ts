/** One command line from its arguments to what it writes: files are read and written here, standard output is given back. */
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { basename, extname } from 'node:path';
import { InputError } from '../lib/core/io/inputError';
import { tunesIn } from '../lib/core/io/abc/book';
import { decode } from '../lib/core/io/decode';
import { readScoreFile } from '../lib/core/io/readScoreFile';
import { writeMusicXml } from '../lib/core/io/musicxml/write';
import { formatOf, WRITTEN_FORMATS } from '../lib/core/io/writeScoreFile';
import { WHOLE } from '../lib/core/decisions/anchor';
import { decisionSchema } from '../lib/core/decisions/registry';
import { proposedParts, tunePhrases, withParts, type PartChoices } from '../lib/core/players/parts';
import { saysOfPlayers } from '../lib/core/players/says';
import type { Score } from '../lib/core/score/score';
import { keyCode, parseKey } from '../lib/core/theory/key';
import { mended } from '../lib/core/version/mend';
import { SHEET_IDS } from '../lib/paper/choices';
import { COMMANDS } from './commands';
import { levelsFrom, readArguments, settingsHelp, UsageError, type Values } from './options';
import type { Input, Outcome } from './outcome';
import { STUDIO_COMMANDS } from './studioCommands';

/** A command whose result is drawn; the engraver is loaded only for it. */
interface DrawingCommand {
  readonly says: string;
  readonly run: (input: Input) => Promise<Uint8Array>;
}
const DRAWING: Readonly<Record<string, DrawingCommand>> = {
  handout: {
    says: 'a version at --level 1 to 6 on paper, as -o FILE.pdf',
    run: async (input) => (await import('./handout')).handout(input),
  },
  practice: {
    says: 'the practice room as -o FILE.html: of a file at --level 1 to 6, or of a version by its id',
    run: async (input) => (await import('./practice')).practice(input),
  },
};

const HELP = `keypath COMMAND [options] FILE

Reads .musicxml .xml .mxl .mid .midi .abc .pro .cho .txt (chord chart). Writes music by the ending after -o (.musicxml .xml
.mxl .mid .abc .pro .txt .json), without -o as MusicXML to standard output; everything else is JSON on standard output.
Messages go to standard error.
Status: 0 done, 1 a check found something, 2 unusable input or options.

Commands
${Object.entries(COMMANDS)
  .map(([name, { says }]) => `  ${name.padEnd(11)}${says}`)
  .join('\n')}
${Object.entries(DRAWING)
  .map(([name, { says }]) => `  ${name.padEnd(11)}${says}`)
  .join('\n')}

The studio in the folder that KEYPATH_DATA names (data)
${Object.entries(STUDIO_COMMANDS)
  .map(([usage, says]) => `  ${usage.padEnd(15)}${says}`)
  .join('\n')}

Options
  -o FILE                 where music goes
  --levels FILE.json      arrange, check, keys: your levels instead of the built-in ones
  --reach 7…10            white keys; also --reach-left, --reach-right
  --hand right|left|both  count: whose notes
  --recipe FILE.json      arrange, keys: settings and choices from a file
  --json FILE             arrange, finger, pedal: also the report, with reasons
  --tune 12               which tune of a tune book in ABC, by its X: (the first)
  --home KEY              the home key, instead of the suggested one (C, Am, "D mixolydian")
  --groups 2+2+3          how the notes of a measure fall into groups
  --players both|first|second   of two keyboard parts: both in two hands, or one
  --voice A3-D5           keys: the student's comfortable range
  --song-range A3-C5      keys: how low and high the song goes, where there is no melody
  --weights voice=30,reading=2   keys: what each criterion counts for
  --to KEY, --by SEMITONES, --up, --down    transpose; --to all writes a chart in all twelve keys as one file
  --keep                  finger: fingers in the source stay
  --strict                check: status 1 also where a chord lies close and low
  --alternatives 1…3      finger: ways to finger each measure, as JSON
  --sheets score,chords   handout: which sheets, in order (${SHEET_IDS.join(', ')})
  --paper a4|letter, --size normal|large|very-large
  --finger-numbers once|all|positions|none, --note-names none|below|heads|degrees|tones
  --chord-keys all|C,G,Bb handout: the chord sheet in these keys
  --student NAME          handout, practice: whose it is
  --minutes 5…240         practice: minutes a day (15)

Settings of a version (arrange, keys; some for check, count, finger and pedal)
${settingsHelp()}
`;

/** Text or bytes of a score in the format of a file name. */
function encode(score: Score, path: string): string | Uint8Array {
  const ending = extname(path).toLowerCase();
  if (ending === '.json') return `${JSON.stringify(score, null, 2)}\n`;
  const format = formatOf(ending);
  if (!format)
    throw new UsageError(
      `Key Path can’t write music as “${ending || path}”; use ${WRITTEN_FORMATS.map((f) => f.ending).join(', ')}, .xml or .json.`,
    );
  return format.write(score);
}

/** Writes beside the target first, so that there is never half a file under its name. */
function writeWhole(path: string, content: string | Uint8Array): void {
  const half = `${path}.part`;
  writeFileSync(half, content);
  renameSync(half, path);
}

function readJson(path: string): unknown {
  const text = readFileSync(path, 'utf8');
  try {
    return JSON.parse(text);
  } catch {
    throw new UsageError(`${path} is not JSON.`);
  }
}

/** What a process shows of itself. */
interface Ended {
  readonly status: number;
  readonly stdout: string;
  readonly stderr: string;
}

type Spoken = Omit<Ended, 'stderr'>;

function deliver(outcome: Outcome, values: Values): Spoken {
  if ('json' in outcome) {
    const text = `${JSON.stringify(outcome.json, null, 2)}\n`;
    if (values.output) writeWhole(values.output, text);
    return { status: outcome.found ? 1 : 0, stdout: values.output ? '' : text };
  }
  if ('set' in outcome) {
    const path = values.output ?? 'set.pro';
    const ending = extname(path).toLowerCase();
    // A set is one file: charts follow each other in it, as songs do in a book.
    if (ending !== '.pro' && ending !== '.txt')
      throw new UsageError('A set of all keys is written as .pro or .txt: -o FILE.pro');
    const songs = outcome.set.map(({ music }) => String(encode(music, path)));
    const text = songs.join(ending === '.pro' ? '{new_song}\n' : '\n\n');
    if (values.output) writeWhole(values.output, text);
    return { status: 0, stdout: values.output ? '' : text };
  }
  const content = values.output ? encode(outcome.music, values.output) : writeMusicXml(outcome.music);
  if (values.json && outcome.report !== undefined)
    writeWhole(values.json, `${JSON.stringify(outcome.report, null, 2)}\n`);
  if (values.output) writeWhole(values.output, content);
  return { status: 0, stdout: values.output ? '' : String(content) };
}

interface Asked {
  readonly name: string;
  readonly input: Input;
}

/** Commands by what they were called before. */
const ALIASES: Readonly<Record<string, string>> = { analyse: 'analyze' };

/** Reads a command line and its file; what needs no file is answered at once. */
function read(args: readonly string[], say: (message: string) => void): Asked | Spoken {
  const { values, positionals } = readArguments(args);
  const [asked, file, ...more] = positionals;
  const name = asked === undefined ? undefined : (ALIASES[asked] ?? asked);
  if (values.help || !name) return { status: name || values.help ? 0 : 2, stdout: HELP };
  if (!COMMANDS[name] && !DRAWING[name])
    throw new UsageError(`There is no command “${name}”; keypath --help lists them.`);
  if (!file) throw new UsageError(`${name} needs a file.`);
  if (more.length > 0) throw new UsageError(`${name} takes one file, not ${1 + more.length}.`);
  if (name === 'convert' && !values.output) throw new UsageError('convert needs -o FILE.');
  const bytes = readFileSync(file);
  const { score: source, warnings } = readScoreFile(
    basename(file),
    values.tune === undefined ? bytes : tuneIn(file, bytes, values.tune),
  );
  const recipeFile = values.recipe === undefined ? undefined : readJson(values.recipe);
  const levels = levelsFrom(values.levels === undefined ? undefined : readJson(values.levels));
  // Melody and hands are found among the parts, except where the music is to come out as it went in.
  const choices = playersOf(source, values.players);
  const isAsWritten = COMMANDS[name]?.asWritten ?? false;
  const said = isAsWritten ? warnings : [...warnings, ...saysOfPlayers(source, choices)];
  for (const warning of said) say(warning);
  const nameOf = (id: string): string => source.parts.find((p) => p.id === id)?.name || id;
  const leading = Object.values(choices.parts).filter((c) => c === 'melody').length;
  return {
    name,
    input: {
      score: saidOf(values, isAsWritten ? source : withParts(source, choices)),
      warnings: said,
      tune:
        leading > 1
          ? tunePhrases(source, choices).map(({ from, to, part }) => ({ from, to, player: nameOf(part) }))
          : [],
      values,
      recipeFile,
      levels,
    },
  };
}

/** The score with what the options say of it as a whole. Throws UsageError where they say what it cannot be. */
function saidOf(values: Values, score: Score): Score {
  const { home, groups } = values;
  const key = home === undefined ? undefined : parseKey(home);
  if (home !== undefined && !key)
    throw new UsageError(`--home takes a key such as C, Am or "D mixolydian", not “${home}”.`);
  const said = [
    ...(key ? [{ kind: 'home', value: keyCode(key) }] : []),
    ...(groups === undefined ? [] : [{ kind: 'groups', value: groups }]),
  ].map((decision) => {
    const checked = decisionSchema.safeParse({ ...decision, at: WHOLE });
    if (!checked.success) throw new UsageError(`--groups takes groups such as 2+2+3, not “${groups}”.`);
    return checked.data;
  });
  return mended(score, said);
}

/** Who plays: all, or of two keyboards one. Throws UsageError for anything else. */
function playersOf(source: Score, wanted: string | undefined): PartChoices {
  const choices = proposedParts(source);
  if (wanted === undefined || wanted === 'both') return choices;
  const pianos = source.parts.filter((p) => p.staves >= 2).map((p) => p.id);
  const place = ['first', 'second'].indexOf(wanted);
  if (place < 0) throw new UsageError(`--players takes both, first or second, not “${wanted}”.`);
  const one = pianos[place];
  if (pianos.length < 2 || one === undefined)
    throw new UsageError('--players chooses between two keyboard parts; this file has only one.');
  const others = pianos.filter((id) => id !== one).map((id) => [id, 'other'] as const);
  return { ...choices, parts: { ...choices.parts, ...Object.fromEntries(others) } };
}

/** One tune of a tune book, as a file of its own. Throws UsageError where there is none of that number. */
function tuneIn(file: string, bytes: Uint8Array, number: string): Uint8Array {
  const tunes = tunesIn(decode(bytes));
  const found = tunes.find((tune) => tune.number === number);
  if (found) return new TextEncoder().encode(found.text);
  const has =
    tunes.length === 0
      ? 'no tunes'
      : tunes
          .map((tune) => `X:${tune.number}`)
          .slice(0, 20)
          .join(', ');
  throw new UsageError(`There is no tune X:${number} in ${basename(file)}; it has ${has}.`);
}

/** What went wrong, in one line; undefined for what is a fault of ours and deserves its trace. */
function plainly(error: unknown): string | undefined {
  if (error instanceof UsageError || error instanceof InputError) return error.message;
  const code = (error as NodeJS.ErrnoException | undefined)?.code;
  const path = (error as NodeJS.ErrnoException | undefined)?.path;
  if (code === 'ENOENT') return `There is no file or folder ${path?.replace(/\.part$/, '')}.`;
  if (code === 'EISDIR') return `${path ?? 'That'} is a folder.`;
  if (code === 'EACCES') return `${path} may not be read or written.`;
  return undefined;
}

/** What is said on standard error, and what went wrong as its last line. */
function messenger() {
  const messages: string[] = [];
  return {
    say: (message: string): void => void messages.push(message),
    ended: (spoken: Spoken): Ended => ({ ...spoken, stderr: messages.map((m) => `${m}\n`).join('') }),
    failed(error: unknown): Ended {
      const line = plainly(error);
      messages.push(
        `keypath: ${line ?? `unexpected error: ${error instanceof Error ? error.message : String(error)}`}`,
      );
      return this.ended({ status: 2, stdout: '' });
    },
  };
}

/** Carries out one command line, but for paper. Never throws: what cannot be done is status 2 and one line. */
export function keypath(args: readonly string[]): Ended {
  const messages = messenger();
  try {
    const asked = read(args, messages.say);
    if ('status' in asked) return messages.ended(asked);
    const command = COMMANDS[asked.name];
    if (!command) throw new UsageError('Paper takes longer: use keypathOrPaper.');
    const outcome = command.run(asked.input);
    if ('says' in outcome) for (const message of outcome.says ?? []) messages.say(message);
    return messages.ended(deliver(outcome, asked.input.values));
  } catch (error) {
    return messages.failed(error);
  }
}

/** Carries out one command line, whichever it is. */
export async function keypathOrPaper(args: readonly string[]): Promise<Ended> {
  const name = args.find((arg) => !arg.startsWith('-')) ?? '';
  const drawing = DRAWING[name];
  if (!drawing) return keypath(args);
  const messages = messenger();
  try {
    const { values, positionals } = readArguments([...args]);
    const ofStudio =
      name === 'practice' && !values.help ? await versionCalled(positionals, values) : undefined;
    const asked = ofStudio ? undefined : read(args, messages.say);
    if (asked && 'status' in asked) return messages.ended(asked);
    const content = ofStudio ?? (await drawing.run(asked!.input));
    writeWhole(values.output ?? '', content);
    return messages.ended({ status: 0, stdout: '' });
  } catch (error) {
    return messages.failed(error);
  }
}

/** The practice room of a version of the studio, where what is named is no file. */
async function versionCalled(
  [, id, ...more]: readonly string[],
  values: Values,
): Promise<Uint8Array | undefined> {
  if (id === undefined || more.length > 0 || existsSync(id)) return undefined;
  return (await import('./practice')).practiceOfVersion(id, values);
}
