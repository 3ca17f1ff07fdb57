/** A cabinet of odd files, one for each thing that once went wrong: each is read, arranged at all levels and printed. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it, vi } from 'vitest';
import { LEVELS } from '$core/arrange/levels';
import { chordsOf } from '$core/analysis/harmony';
import { readScoreFile } from '$core/io/readScoreFile';
import { findTune } from '$core/players/tune';
import { withParts } from '$core/players/parts';
import { soundingNotes } from '$core/score/query';
import type { Score } from '$core/score/score';
import { ledgerLines, MOST_LINES, underSigns } from '$core/score/staves';
import { chordSymbol } from '$core/theory/chord';
import { realise } from '$core/version/realise';
import { recipeSchema } from '$core/version/recipe';
import { writeSvg } from '$lib/engrave/svg';
import { choicesSchema } from './choices';
import { handoutDocument } from './handout';
import { missingGlyphs } from './missingGlyphs';
import { marksIn, overlapsIn } from './overlaps';
import { frameHeight, frameWidth } from './page';
import { writePdf } from './pdf';
import { scoreSheet } from './sheets/score';
import { sourceOf, type Source } from './source';

vi.setConfig({ testTimeout: 120_000 });

const CABINET = 'tests/music/cabinet';
const files = readdirSync(CABINET);
const read = (file: string) => readScoreFile(file, readFileSync(join(CABINET, file)));
const versionOf = (score: Score, level: number) =>
  realise(withParts(score), recipeSchema.parse({ level }), [], LEVELS);
const sourceFor = (score: Score, level: number): Source =>
  sourceOf({
    recipe: recipeSchema.parse({ level }),
    decisions: [],
    levels: LEVELS,
    score: withParts(score),
    choices: choicesSchema.parse({ fingers: 'all' }),
  });

describe.each(files)('%s', (file) => {
  const { score } = read(file);
  it('has a title that is one', () => {
    expect(score.title).not.toMatch(/untitled|track|^$/i);
    expect(score.title).toMatch(/^\p{Lu}/u);
  });
  it.each(LEVELS.map((l) => l.level))('is arranged at level %i, in reach of the eyes', (level) => {
    const version = versionOf(score, level);
    const [part] = version.score.parts;
    expect(part!.notes.length).toBeGreaterThan(0);
    const isUnder = underSigns(part!.marks ?? []);
    for (const note of part!.notes) {
      const clef = (part!.clefs ?? []).filter((c) => c.staff === note.staff && c.onset <= note.onset).at(-1);
      const lines = ledgerLines(note, clef?.sign === 'F' ? 'F' : 'G');
      if (!isUnder(note.onset, note.staff)) expect(Math.abs(lines)).toBeLessThanOrEqual(MOST_LINES);
    }
    // A key that both hands strike is one.
    const struck = soundingNotes(part!.notes).map((n) => `${n.onset} ${n.midi}`);
    const byHand = new Map<string, Set<number>>();
    soundingNotes(part!.notes).forEach((n, i) => {
      const hands = byHand.get(struck[i]!) ?? new Set();
      byHand.set(struck[i]!, hands.add(n.staff));
    });
    expect([...byHand.values()].filter((hands) => hands.size > 1)).toEqual([]);
  });
  it('is printed, every letter with a face and nothing in another’s way', async () => {
    const source = sourceFor(score, 4);
    const frame = { width: frameWidth('a4'), height: frameHeight('a4') };
    for (const block of (await scoreSheet(source, frame)).filter((b) => b.isSystem))
      expect(overlapsIn(marksIn(block.drawn))).toEqual([]);
    const document = await handoutDocument([source], source.choices, {
      studio: 'Quay Street Studio',
      ownLine: '',
      date: '1 December 2026',
      areRightsKnown: true,
    });
    const { missing, letters } = missingGlyphs(await writePdf(document));
    expect(letters).toBeGreaterThan(20);
    expect(missing).toBe(0);
  });
});

describe('what each is for', () => {
  const score = (file: string): Score => read(file).score;
  it('a band: the flute, then the saxophone', () => {
    const band = score('lantern_parade.mid');
    expect(
      findTune(band).map(({ part, from, to }) => [band.parts.find((p) => p.id === part)!.name, from, to]),
    ).toEqual([
      ['Flute', 0, 7],
      ['Sax', 8, 15],
    ]);
  });
  it('a performance: a tempo, two ritardandi, and how it was played', () => {
    const { tempo, tempoChanges = [], parts, rights, composer } = score('as_it_was_played.mid');
    expect(Math.abs(tempo - 84)).toBeLessThan(5);
    expect(tempoChanges.filter((t) => !t.isHeard)).toEqual([]);
    expect(tempoChanges.length).toBeGreaterThan(40);
    const words = (parts[0]!.marks ?? []).map((m) => ('text' in m ? m.text : ''));
    expect(words).toEqual(['rit.', 'a tempo', 'rit.']);
    expect([rights, composer]).toEqual(['(c) 2020 Ada Quill', 'Ada Quill']);
  });
  it('a loop: one section, and one page', async () => {
    const loops = score('loops.abc');
    const { form } = versionOf(loops, 3);
    expect(form.sections.map((s) => s.to - s.from + 1)).toEqual([24, 4]);
    const blocks = await scoreSheet(sourceFor(loops, 3), {
      width: frameWidth('a4'),
      height: frameHeight('a4'),
    });
    const says = JSON.stringify(blocks.map((b) => b.drawn.map((d) => writeSvg(d))));
    expect(says).toContain('6 times in all');
  });
  it('a score without a name: words of tempo at every level, clefs and the octave sign where they hold', () => {
    const nameless = score('no_name_yet.musicxml');
    expect(nameless.title).toBe('No name yet');
    for (const { level } of LEVELS) {
      const words = (versionOf(nameless, level).score.parts[0]!.marks ?? []).flatMap((m) =>
        m.kind === 'words' ? [m.text] : [],
      );
      expect(words).toContain('Slower');
    }
    const [part] = versionOf(nameless, 6).score.parts;
    expect(part!.clefs!.filter((c) => c.staff === 2).map((c) => c.sign)).toEqual(['F', 'G', 'F']);
    const signs = (part!.marks ?? []).filter((m) => m.kind === 'octave shift');
    expect(signs.map((m) => m.onset / 10080)).toEqual([3, 6]);
  });
  it('endings: one section', () => expect(versionOf(score('endings.abc'), 3).form.sections).toHaveLength(1));
  it('a chart with letters, and the way back', () => {
    const { measures } = score('letters.txt');
    expect(measures.flatMap((m) => m.section ?? [])).toEqual(['A', 'B', 'C']);
    expect(measures.flatMap((m) => (m.route ? [m.route] : []))).toEqual([
      { fine: true },
      { jump: 'da capo' },
    ]);
  });
  it('a chart with a pickup: its chord sounds', () => {
    const version = versionOf(score('pickup.txt'), 3);
    const first = version.score.measures[0]!;
    expect(first.beginsAt).toBeGreaterThan(0);
    expect(version.score.parts[0]!.notes.some((n) => n.onset < first.start + first.length)).toBe(true);
  });
  it('chord symbols, as players write them', () => {
    const names = chordsOf(score('symbols.txt')).map((c) => (c.chord ? chordSymbol(c.chord) : 'N.C.'));
    expect(names).toEqual([
      'C(add9)',
      'E7(♯9)',
      'C7sus4/G',
      'G13sus4',
      'C6/9',
      'F9sus4',
      'B7(♭9)(♯11)',
      'Cmaj7(♯11)',
      'Am(add9)',
      'D7(♯5)(♯9)',
      'Fm6/9',
      'B♭maj13',
      'Edim7',
      'F♯m7♭5',
      'A♭aug7',
      'N.C.',
    ]);
  });
  it('two at one piano: both, and said so', () =>
    expect(versionOf(score('duet.musicxml'), 6).account.players).toBe(2));
  it('swing from the drums', () =>
    expect(score('swing_and_sway.mid').parts[0]!.marks).toMatchObject([{ text: 'Swing' }]));
  it('seven eighths in the groups of its spaces', () =>
    expect(score('seven.abc').measures[0]!.time.groups).toEqual([3, 2, 2]));
  it('rights', () => expect(score('rights.pro').rights).toBe('2020 Ada Quill, all rights reserved'));
});
