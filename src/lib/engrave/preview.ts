/** A look at a file before it is kept: what it holds, what was left out, and how it begins. Nothing is stored. */
import { measuresPlayed } from '$core/analysis/form';
import { keyOf } from '$core/analysis/home';
import { readScoreFile } from '$core/io/readScoreFile';
import { choicesFor, withParts, type PartChoices } from '$core/players/parts';
import { saysOfPlayers } from '$core/players/says';
import { soundingNotes } from '$core/score/query';
import type { Part, TimeSignature } from '$core/score/score';
import { keyName } from '$core/theory/key';
import type { Sheet } from './sheet';
import { sourceSheet } from './sourceSheet';
import { tuneFacts, type TuneFacts } from './tuneFacts';

export interface PartFacts {
  readonly id: string;
  readonly name: string;
  readonly staves: number;
  readonly notes: number;
  readonly hasWords: boolean;
}

export interface Preview {
  readonly title: string;
  readonly composer: string;
  readonly key: string;
  readonly time: TimeSignature;
  readonly tempo: number;
  readonly measures: number;
  readonly notes: number;
  readonly chords: number;
  readonly pickup: boolean;
  readonly warnings: readonly string[];
  readonly parts: readonly PartFacts[];
  readonly choices: PartChoices;
  /** Who has the tune of a band; empty where one has it throughout. */
  readonly tune: readonly TuneFacts[];
  readonly sheet: Sheet;
}

const SHEET_WIDTH = 640;

/** Parts as they are offered for choosing. */
export const partFacts = (parts: readonly Part[]): PartFacts[] =>
  parts.map(({ id, name, staves, notes }, i) => ({
    id,
    name: name || `Part ${i + 1}`,
    staves,
    notes: soundingNotes(notes).length,
    hasWords: notes.some((n) => n.lyrics?.some((l) => l.line === 'words')),
  }));

/** Reads a file and says what is in it. Throws InputError when it cannot be read. */
export function previewOf(
  file: { readonly name: string; readonly bytes: Uint8Array },
  chosen?: PartChoices,
  /** Measures that are shown at most; else how it begins. */
  shown?: number,
): Preview {
  const { score: source, warnings } = readScoreFile(file.name, file.bytes);
  const choices = choicesFor(source, chosen);
  const score = withParts(source, choices);
  const first = score.measures[0]!;
  const parts = partFacts(source.parts);
  return {
    title: source.title,
    composer: source.composer,
    key: keyName(keyOf(score)),
    time: first.time,
    tempo: score.tempo,
    measures: measuresPlayed(score.measures),
    notes: parts.reduce((sum, p) => sum + p.notes, 0),
    chords: score.chordSymbols.filter((s) => s.chord).length,
    pickup: first.beginsAt > 0,
    warnings: [...warnings, ...saysOfPlayers(source, choices)],
    parts,
    choices,
    tune: tuneFacts(source, choices),
    sheet: sourceSheet(
      score,
      SHEET_WIDTH,
      shown === undefined ? undefined : { from: 0, to: Math.min(score.measures.length, shown) - 1 },
    ),
  };
}
