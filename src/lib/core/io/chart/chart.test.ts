import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Score } from '../../score/score';
import { TICKS_PER_QUARTER as Q } from '../../score/ticks';
import { scoreFrom } from '../../test/shorthand';
import { chordSymbol } from '../../theory/chord';
import { keyName } from '../../theory/key';
import { readScoreFile } from '../readScoreFile';
import { readChart } from './read';
import { writeChordPro, writePlainChart } from './write';

/** "1(3): F@0 C7@2" for each measure: number, length, where it begins, chords on their quarters. */
const laidOut = (score: Score): string[] =>
  score.measures.map((m) => {
    const chords = score.chordSymbols
      .filter((s) => s.onset >= m.start && s.onset < m.start + m.length)
      .map((s) => `${s.chord ? chordSymbol(s.chord) : 'N.C.'}@${+((s.onset - m.start) / Q).toFixed(2)}`);
    const begins = m.beginsAt ? `+${m.beginsAt / Q}` : '';
    return `${m.section ? `${m.section}: ` : ''}${m.number}(${m.length / Q}${begins}) ${chords.join(' ')}`.trim();
  });
const chart = (text: string): string[] => laidOut(readChart(text).score);

describe('plain charts', () => {
  it('takes a slash as a beat, a barline as a measure', () => {
    const { score } = readChart('Verse 1:\nF / / | Bb/C / / |\nC7 / / | F / /\n');
    expect(laidOut(score)).toEqual(['Verse 1: 1(3) F@0', '2(3) B♭/C@0', '3(3) C7@0', '4(3) F@0']);
    expect(score.measures[0]!.time).toEqual({ beats: 3, beatType: 4 });
    expect(keyName(score.measures[0]!.key)).toBe('F major');
  });
  it('sees the beat that a section borrows as a pickup', () => {
    expect(chart('Time: 3/4\nVerse 1:\nF / / | C / / | F /\nChorus:\nC | F / / | Bb / / |\n')).toEqual([
      'Verse 1: 1(3) F@0',
      '2(3) C@0',
      '3(2) F@0',
      'Chorus: X3(1+2) C@0',
      '4(3) F@0',
      '5(3) B♭@0',
    ]);
    expect(chart('Time: 4/4\nG7 | C / / / | G / / / |')[0]).toBe('0(1+3) G7@0');
    expect(chart('Time: 3/4\nVerse:\nF / / | F / / C |\nChorus:\nF / / | C / / |')).toEqual([
      'Verse: 1(3) F@0',
      '2(3) F@0',
      'Chorus: X2(1+2) C@0',
      '3(3) F@0',
      '4(3) C@0',
    ]);
  });
  it('shares a measure among its chords where no beats are given', () => {
    expect(chart('Intro\n| C | Am F | C G Am |\n|: D7 :|')).toEqual([
      'Intro: 1(4) C@0',
      '2(4) Am@0 F@2',
      '3(4) C@0 G@2 Am@3',
      '4(4) D7@0',
    ]);
  });
  it('gives each chord a measure where there are neither beats nor barlines, and says so', () => {
    const { score, warnings } = readChart('Hill Song\n\nC       G\nOver the hill\nAm  F\nI   go\n');
    expect(score.title).toBe('Hill Song');
    expect(laidOut(score)).toEqual(['1(4) C@0', '2(4) G@0', '3(4) Am@0', '4(4) F@0']);
    expect(score.parts[0]!.marks!.map((m) => 'text' in m && m.text)).toEqual(['Over the', 'hill', 'I', 'go']);
    expect(warnings.join(' ')).toMatch(/each chord lasts a measure/);
  });
  it('gives a chord of a section without beats a measure, whatever its neighbours say', () => {
    const { score, warnings } = readChart(
      'Key: G\nTime: 3/4\n[Verse]\nG   D/F#  Em\nUp the ladder\n(Chorus)\n| C . . | D . . |\n',
    );
    expect(score.chordSymbols.map((c) => c.onset / (3 * Q))).toEqual([0, 1, 2, 3, 4]);
    expect(warnings.join(' ')).toContain('“Verse” gives no beats: each chord lasts a measure there.');
  });
  it('cuts rows of beats without barlines by the time signature that they show', () => {
    expect(chart('Dm / / Gm / / A7 / / Dm / /')).toEqual([
      '1(3) Dm@0',
      '2(3) Gm@0',
      '3(3) A7@0',
      '4(3) Dm@0',
    ]);
    expect(chart('C / / / F / G /')).toEqual(['1(4) C@0', '2(4) F@0 G@2']);
  });
  it('reads compound metres in beats or in pulses', () => {
    expect(chart('Time: 6/8\n| C / | F G |\n| C / |')).toEqual(['1(3) C@0', '2(3) F@0 G@1.5', '3(3) C@0']);
    expect(chart('Time: 6/8\n| C / / F / / |')).toEqual(['1(3) C@0 F@1.5']);
  });
  it('takes fields as they are called', () => {
    const { score } = readChart('Title: Fields\nBy: Nobody\nKey: Em\nTempo: 72\nTime: 4/4\n\nEm / / / |');
    expect(score).toMatchObject({ title: 'Fields', composer: 'Nobody', tempo: 72 });
    expect(keyName(score.measures[0]!.key)).toBe('E minor');
  });
  it.each([
    ['C F G C', 'C major'],
    ['Am Dm E7 Am', 'A minor'],
    ['G C D7 Em C G', 'G major'],
    ['Eb Bb7 Cm Ab Eb', 'E♭ major'],
    ['F#m D A E F#m', 'F♯ minor'],
  ])('%s is in %s', (chords, key) => expect(keyName(readChart(chords).score.measures[0]!.key)).toBe(key));
});

describe('ChordPro', () => {
  const song = `{title: Lantern}
{composer: Nobody}
{key: D}
{time: 3/4}
{tempo: 100}
# a remark
{start_of_verse: Verse 1}
Oh [D]little lantern [G/D]on the [A7]hill
[D]shine
{end_of_verse}
{start_of_chorus}
[Bm]Home [G]now
{end_of_chorus}
{chorus}
`;
  it('reads directives, sections, chords inside words, and a chorus once more', () => {
    const { score } = readScoreFile('lantern.cho', new TextEncoder().encode(song));
    expect(score).toMatchObject({ title: 'Lantern', composer: 'Nobody', tempo: 100 });
    expect(laidOut(score)).toEqual([
      'Verse 1: 1(3) D@0',
      '2(3) G/D@0',
      '3(3) A7@0',
      '4(3) D@0',
      'Chorus: 5(3) Bm@0',
      '6(3) G@0',
      'Chorus: 7(3) Bm@0',
      '8(3) G@0',
    ]);
    expect(score.parts[0]!.marks![0]).toMatchObject({ text: 'Oh little lantern' });
  });
  it('reads grids, beat by beat', () => {
    expect(chart('{start_of_grid}\n| C . . . | G7 . C . |\n{end_of_grid}')).toEqual([
      '1(4) C@0',
      '2(4) G7@0 C@2',
    ]);
  });
  it('keeps what it cannot read as words, and says so', () => {
    const { warnings } = readChart('{t: X}\n[C]la [Hmm]la');
    expect(warnings.join(' ')).toContain('Line 2: [Hmm]');
  });
  it('names the line of a broken directive', () => {
    expect(() => readChart('{title: x}\n[C]la\n{start_of_chorus')).toThrow(/Line 3/);
  });
});

describe('there and back', () => {
  const source = readChart(
    'Title: Both ways\nKey: F\nTime: 3/4\nTempo: 90\nVerse 1:\nF / / | Bb/C / / | F / C7(b9) | F /\nDown by the river\nChorus:\nC | F / / | Gm7 / / |: N.C. / / | C7sus4 / / :|\n',
  ).score;
  it.each([
    ['ChordPro', writeChordPro],
    ['plain text', writePlainChart],
  ])('%s keeps chords, beats, sections, pickups, repeats, words', (_, write) => {
    const back = readChart(write(source)).score;
    expect(laidOut(back)).toEqual(laidOut(source));
    expect(back.measures).toEqual(source.measures);
    expect(back).toMatchObject({ title: 'Both ways', tempo: 90 });
    expect(back.parts[0]!.marks!.map((m) => 'text' in m && m.text).join(' ')).toBe('Down by the river');
  });
  it('makes a chart of a melody with its words', () => {
    const melody = scoreFrom({
      title: 'T',
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: 'C4:2 E4:2 | G4:4',
      chords: 'C | G7',
    });
    const sung = {
      ...melody,
      parts: melody.parts.map((p) => ({
        ...p,
        notes: p.notes.map((n, i) => ({
          ...n,
          lyrics: [
            {
              line: 'words' as const,
              verse: 1,
              text: ['hel', 'lo', 'you'][i]!,
              syllabic: (['begin', 'end', 'single'] as const)[i]!,
            },
          ],
        })),
      })),
    };
    expect(writeChordPro(sung)).toContain('[|][C]hel[/][/]lo [/][|][G7]you');
  });
  it('law: any text is a chart or one sentence, never a crash', () => {
    const words = fc.constantFrom(
      'C',
      'Am7',
      '/',
      '|',
      '%',
      '|:',
      ':|',
      'la',
      '[G]',
      '{t: x}',
      '{soc}',
      '\n',
      'Verse 1:',
      'N.C.',
      '[|]',
      '  ',
      '{',
      ']',
    );
    fc.assert(
      fc.property(fc.array(words, { maxLength: 40 }), (list) => {
        try {
          const { score } = readScoreFile('x.cho', new TextEncoder().encode(list.join(' ')));
          expect(score.measures.every((m) => m.length > 0)).toBe(true);
        } catch (error) {
          expect((error as Error).name).toBe('InputError');
        }
      }),
      { numRuns: 400 },
    );
  });
});

describe('a songbook', () => {
  const chordsIn = (text: string): string[] =>
    laidOut(readChart(text).score).map((m) => m.replace(/^.*?\) /, ''));
  const sectionsIn = (text: string): (string | undefined)[] =>
    readChart(text).score.measures.map((m) => m.section);

  it('loses no row to a symbol that nobody knows: its beat and its root stay, and it is named with its place', () => {
    const text = 'Row\n4/4\n| C  Qx7 F / | Gz~9 / / C |\n| Am |';
    expect(chordsIn(text)).toEqual(['C@0 F@2', 'G5@0 C@3', 'Am@0']);
    expect(readChart(text).warnings).toEqual(
      expect.arrayContaining([
        'Line 3: “Qx7” isn’t a chord Key Path knows; its beat is kept.',
        'Line 3: “Gz~9” isn’t a chord Key Path knows; its root, G, is kept.',
      ]),
    );
  });
  it('takes a word for a word, whatever letter it begins with', () => {
    const { score, warnings } = readChart('{title: W}\n[C]Sing [Break] it [Fade out] [G]now');
    expect(score.chordSymbols.map((s) => s.chord && chordSymbol(s.chord))).toEqual(['C', 'G']);
    expect(warnings.join()).toMatch(/\[Break\] isn’t a chord.*\[Fade out\] isn’t a chord/);
    expect(chordsIn('Song\n4/4\n| C F | G Fade |')).toEqual(['C@0 F@2', 'G@0']);
  });
  it('has its sections in any bracket', () =>
    expect(
      sectionsIn('Song\n[Verse 1]\n| C |\n(Chorus)\n| F |\n<Bridge>\n| G |\n*** Coda ***\n| C |\n{B}\n| C |'),
    ).toEqual(['Verse 1', 'Chorus', 'Bridge', 'Coda', 'B']));
  it('repeats a measure by its sign, and a chord beside others', () => {
    expect(chordsIn('Song\n4/4\n| C G | % | F % | % G |')).toEqual([
      'C@0 G@2',
      'C@0 G@2',
      'F@0 F@2',
      'F@0 G@2',
    ]);
  });
  it('may say key, tempo and time signature in one line, or below its title', () => {
    for (const head of [
      'Key: Bb   Tempo: 92   3/4',
      'Bb major, 3/4, ♩ = 92',
      'Time: 3/4; Key: Bb | Tempo: 92',
    ]) {
      const { score } = readChart(`Song\n${head}\n| Bb | F7 |`);
      expect([score.measures[0]!.key.fifths, score.measures[0]!.time.beats, score.tempo]).toEqual([
        -2, 3, 92,
      ]);
    }
  });
  it('may have chords over words beside directives', () => {
    const { score } = readChart('{title: Both}\n{key: G}\nG        C\nDown the river\n[D]And a[G]way');
    expect(laidOut(score).map((m) => m.split(' ')[1])).toEqual(['G@0', 'C@0', 'D@0', 'G@0']);
    expect(score.title).toBe('Both');
  });
  it('says of itself what it says in lines or in directives, wherever sections stand in braces', () => {
    const { score, warnings } = readChart(
      'Title: Lamp on the Sill\nKey: Eb\nTempo: 92\nTime: 3/4\n\n[Verse 1]\n| Eb / / | Bb7 / / |\n{Chorus}\n| Ab / / | Eb / / |',
    );
    expect(score.title).toBe('Lamp on the Sill');
    expect(keyName(score.measures[0]!.key)).toBe('E♭ major');
    expect([score.tempo, score.measures[0]!.time.beats]).toEqual([92, 3]);
    expect(warnings).toEqual([]);
  });
  it.each([
    ['{t: X}\n{key: H}\n[C]la [F]la', 'Line 2: “H” isn’t a key.'],
    [
      '{t: X}\n{key: C}\n[C]la\n{key: D}\n[D]la',
      'Line 4: the change to D major inside the chart was left out.',
    ],
    [
      '{t: X}\n{time: 3/4}\n[C]la\n{time: 4/4}\n[D]la',
      'Line 4: the change to 4/4 inside the chart was left out.',
    ],
    [
      '{t: X}\n{tempo: 90}\n[C]la\n{tempo: 120}\n[D]la',
      'Line 4: the change to a tempo of 120 inside the chart',
    ],
    ['Song\nTempo: quick\n| C | F |', 'Line 2: “quick” isn’t a tempo'],
    ['{t: X}\n{textsize: 12}\n{textsize: 14}\n[C]la [F]la', 'Left out: {textsize}, 2 times.'],
    ['{t: X}\n{sot}\ne|--3--|\nb|--1--|\n{eot}\n[C]la [F]la', 'Left out: a line of tablature, 2 times.'],
    ['{t: X}\n[C]la [*softly][F]la', 'Left out: a remark for the players.'],
  ])('says what is left out of it: %j', (text, said) =>
    expect(readChart(text).warnings.join('\n')).toContain(said),
  );
});
