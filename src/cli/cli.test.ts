/** The command line as a script sees it. Most of it runs in this process, for speed; that the process itself is the same is tried once. */
import { missingGlyphs } from '../lib/paper/missingGlyphs';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it, vi } from 'vitest';
import { levelNumbered } from '../lib/core/arrange/levels';
import { writeMusicXml } from '../lib/core/io/musicxml/write';
import { readScoreFile } from '../lib/core/io/readScoreFile';
import { pitchName } from '../lib/core/theory/pitch';
import { soundingNotes } from '../lib/core/score/query';
import { scoreFrom } from '../lib/core/test/shorthand';
import { DEFAULT_RECIPE } from '../lib/core/version/recipe';
import { documentOf } from '../lib/core/version/document';
import { addPiece } from '../lib/server/studio/pieces';
import { addVersion } from '../lib/server/studio/versions';
import { MELODY, testStudio } from '../lib/server/test/studio';
import { keypath as run, keypathOrPaper } from './run';

// The machine may be busy.
vi.setConfig({ testTimeout: 60_000 });

const folder = mkdtempSync(join(tmpdir(), 'keypath-cli-'));
afterAll(() => rmSync(folder, { recursive: true }));

const song = join(folder, 'song.musicxml');
writeFileSync(
  song,
  writeMusicXml(
    scoreFrom({
      title: 'Song',
      key: 'G',
      time: { beats: 4, beatType: 4 },
      pickup: 1,
      right: 'D4:1 | G4:1.5 A4:0.5 B4:2 | C5:1 B4:1 A4:1 F#4:1 | G4:4',
      left: 'r:1 | [G2 D3 B3]:4 | [C3 E3 G3]:2 [D3 F#3 C4]:2 | [G2 D3]:4',
      chords: ' | G | C D7 | G',
      sections: { 1: 'Verse' },
    }),
  ),
);

const keypath = (...args: string[]) => run(args);
const json = (...args: string[]) => JSON.parse(keypath(...args).stdout);
const out = (name: string): string => join(folder, name);
const readBack = (path: string) => readScoreFile('x', readFileSync(path)).score;

describe('as a process', () => {
  it.each([
    [['analyze', song]],
    [['analyse', song]],
    [['finger', song]],
    [['check', song, '--level', '1']],
    [['fly', song]],
    [['--help']],
  ])('%j: the same status, output and messages', (args) => {
    const { status, stdout, stderr } = spawnSync('./keypath', args, { encoding: 'utf8' });
    expect({ status, stdout, stderr }).toEqual(run(args));
  });
});

describe('what cannot be carried out is one plain line, and nothing is written', () => {
  it.each([
    ['arrange --level 9', '--level takes one of 1, 2, 3, 4, 5, 6, not “9”.'],
    ['arrange --level two', '--level takes a number, not “two”.'],
    ['arrange', 'arrange needs --level 1 to 6.'],
    ['arrange --level 2 --reach 12', '--reach-right takes one of 7, 8, 9, 10, not “12”.'],
    ['arrange --level 2 --key H', '--key H isn’t a key. Write it like C, F#m or Bb.'],
    ['arrange --level 2 --keyboard 50', '--keyboard takes one of 49, 61, 76, 88, not “50”.'],
    ['arrange --level 2 --speed 3', "Unknown option '--speed'."],
    ['keys --voice C5-A3', '--voice C5-A3 isn’t a range. Write the lowest and highest notes like A3-D5.'],
    ['keys --voice high', '--voice high isn’t a range. Write the lowest and highest notes like A3-D5.'],
    ['keys --weights voice=101', '--weights go from 0 to 100.'],
    ['transpose', 'transpose needs --to KEY or --by SEMITONES.'],
    ['transpose --to H', '--to H isn’t a key. Write it like C, F#m or Bb.'],
    ['transpose --by 2.5', '--by takes a whole number from -36 to 36, not “2.5”.'],
    ['transpose --to D --by 2', 'transpose takes --to KEY or --by SEMITONES, not both.'],
    ['finger --alternatives 9', '--alternatives takes a whole number from 1 to 3, not “9”.'],
    ['count --hand third', '--hand takes right, left or both, not “third”.'],
    ['convert -o no.pdf', 'Key Path can’t write music as “.pdf”;'],
  ])('%s', (line, said) => {
    const [command, ...options] = line.split(' ');
    const before = readdirSync(folder);
    const { status, stdout, stderr } = keypath(command!, song, ...options);
    expect(status).toBe(2);
    expect(stdout).toBe('');
    expect(stderr).toMatch(/^keypath: [^\n]*\n$/);
    expect(stderr).toContain(said);
    expect(readdirSync(folder)).toEqual(before);
  });
  it.each([
    [['convert'], 'convert needs a file.'],
    [['analyse', song, song], 'analyze takes one file, not 2.'],
    [['analyse', 'nowhere.abc'], 'There is no file or folder nowhere.abc.'],
  ])('%j', (args, said) => {
    const { status, stderr } = keypath(...args);
    expect(status).toBe(2);
    expect(stderr).toContain(said);
  });
});

describe('handout', () => {
  const paper = (...args: string[]) => keypathOrPaper(['handout', ...args]);
  it('writes the chosen sheets as a PDF, without a server', async () => {
    const ended = await paper(
      song,
      '--level',
      '2',
      '--sheets',
      'score,chords',
      '--paper',
      'letter',
      '-o',
      out('h.pdf'),
    );
    expect(ended).toMatchObject({ status: 0, stdout: '' });
    const pdf = readFileSync(out('h.pdf'));
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
    expect(pdf.toString('latin1')).toContain('612 792');
    expect(missingGlyphs(pdf)).toMatchObject({ missing: 0 });
    expect(readdirSync(folder).filter((f) => f.endsWith('.part'))).toEqual([]);
  });
  it('takes what arrange takes', async () => {
    const plain = await paper(song, '--level', '2', '-o', out('a.pdf'));
    const other = await paper(
      song,
      '--level',
      '2',
      '--key',
      'Bb',
      '--student',
      'Runa',
      '--size',
      'very-large',
      '-o',
      out('b.pdf'),
    );
    expect([plain.status, other.status]).toEqual([0, 0]);
    expect(readFileSync(out('a.pdf')).equals(readFileSync(out('b.pdf')))).toBe(false);
  });
  it.each([
    [['--level', '2'], 'handout needs -o FILE.pdf.'],
    [['-o', 'x.pdf'], 'handout needs --level 1 to 6.'],
    [['--level', '2', '-o', 'x.xml'], 'handout needs -o FILE.pdf.'],
    [['--level', '2', '-o', 'x.pdf', '--sheets', 'poster'], '--sheets takes score, chords,'],
    [['--level', '2', '-o', 'x.pdf', '--size', 'huge'], '--size: '],
    [['--level', '2', '-o', 'x.pdf', '--chord-keys', 'H'], '--chord-keys: that isn’t a key'],
  ])('%j is refused in a line', async (args, says) => {
    const ended = await paper(song, ...args);
    expect(ended.status).toBe(2);
    expect(ended.stderr).toContain(says);
    expect(ended.stderr.trim().split('\n')).toHaveLength(1);
  });
  it('runs where the application was never prepared: from a folder that has only the sources and packages', () => {
    const { status, stderr } = spawnSync(
      './keypath',
      ['handout', song, '--level', '1', '-o', out('c.pdf')],
      // What the application would prepare is not looked at.
      { encoding: 'utf8', env: { ...process.env, TSX_TSCONFIG_PATH: '' } },
    );
    expect({ status, stderr }).toEqual({ status: 0, stderr: '' });
  });
});

describe('practice', () => {
  const room = (...args: string[]) => keypathOrPaper(['practice', ...args]);
  it('writes the room as one page with the first week’s steps, at most 12 MB, that asks nothing of anywhere', async () => {
    const ended = await room(
      song,
      '--level',
      '2',
      '--student',
      'Runa',
      '--minutes',
      '20',
      '-o',
      out('room.html'),
    );
    expect(ended).toEqual({ status: 0, stdout: '', stderr: '' });
    const page = readFileSync(out('room.html'), 'utf8');
    expect(page.length).toBeLessThan(12_000_000);
    expect(page).toContain("default-src 'none'");
    const contents = JSON.parse(/id="contents">(.*?)<\/script>/.exec(page)![1]!);
    expect(contents.name).toBe('Runa');
    const minutes = contents.tasks.reduce((sum: number, t: { minutes: number }) => sum + t.minutes, 0);
    expect(minutes).toBeGreaterThan(10);
    expect(minutes).toBeLessThanOrEqual(20);
    const [piece] = Object.values<Record<'wide' | 'narrow', Record<string, string[]>>>(contents.pieces);
    for (const { chunk } of contents.tasks)
      for (const screen of ['wide', 'narrow'] as const) expect(piece![screen][chunk]![0]).toContain('<svg');
  });
  it.each([
    [['--level', '2'], 'practice needs -o FILE.html.'],
    [['-o', 'x.html'], 'practice needs --level 1 to 6'],
    [['--level', '2', '-o', 'x.html', '--minutes', '2'], '--minutes takes a whole number from 5 to 240'],
  ])('%j is refused in a line', async (args, says) => {
    const ended = await room(song, ...args);
    expect(ended.status).toBe(2);
    expect(ended.stderr).toContain(says);
  });
  it('of a version by its id; what is neither file nor version is named', async () => {
    const studio = testStudio();
    vi.stubEnv('KEYPATH_DATA', studio.folder);
    const id = addVersion(
      studio.db,
      addPiece(studio.db, { ...MELODY, rights: 'own work' }),
      documentOf({ ...DEFAULT_RECIPE, level: 1 }, []),
    );
    expect(await room(id, '-o', out('v.html'))).toEqual({ status: 0, stdout: '', stderr: '' });
    const page = readFileSync(out('v.html'), 'utf8');
    // What comes back is about this version.
    expect(JSON.parse(/id="contents">(.*?)<\/script>/.exec(page)![1]!).tasks[0].assignment).toBe(id);
    expect((await room('no-such-id', '-o', out('w.html'))).stderr).toContain(
      'There is no file or folder no-such-id.',
    );
    vi.unstubAllEnvs();
    studio.end();
  });
});

describe('commands', () => {
  it('analyse: key, pickup, sections, chords with degree and bass', () => {
    const result = json('analyse', song);
    expect(result).toMatchObject({
      title: 'Song',
      key: { tonic: 'G', mode: 'major', fifths: 1 },
      time: '4/4',
      measures: 3,
      pickup: 1,
      sections: [{ label: 'A', name: 'Verse', role: 'verse', from: 0, to: 3 }],
      hands: { noteCount: { right: 9, left: 11 } },
    });
    expect(result.chords.slice(0, 3)).toMatchObject([
      { measure: 1, beat: 1, symbol: 'G', degree: 'I', bass: 'G', diatonic: true, notes: ['G', 'B', 'D'] },
      { measure: 2, beat: 1, symbol: 'C', degree: 'IV' },
      { measure: 2, beat: 3, symbol: 'D7', degree: 'V7' },
    ]);
  });

  it('arrange: a fingered and counted version, and the report beside it', () => {
    const made = keypath(
      'arrange',
      song,
      '--level',
      '2',
      '--key',
      'C',
      '-o',
      out('v.musicxml'),
      '--json',
      out('v.json'),
    );
    expect(made).toEqual({ status: 0, stdout: '', stderr: '' });
    const version = readBack(out('v.musicxml'));
    expect(version.measures[0]!.key.fifths).toBe(0);
    expect(version.parts[0]!.notes.every((n) => n.tie || n.finger)).toBe(true);
    const xml = readFileSync(out('v.musicxml'), 'utf8');
    expect(xml).toContain('<lyric number="1" name="counts"><syllabic>single</syllabic><text>1 (2)</text>');
    expect(JSON.parse(readFileSync(out('v.json'), 'utf8'))).toMatchObject({ recipe: { level: 2, key: 'C' } });
    expect(keypath('check', out('v.musicxml'), '--level', '2')).toMatchObject({ status: 0 });
  });

  it('arrange: six levels that their own check passes, never easier from one to the next', () => {
    const hard = ['1', '2', '3', '4', '5', '6'].map((level) => {
      const args = ['--level', level, '-o', out('l.xml'), '--json', out('l.json')];
      expect(keypath('arrange', song, ...args).status).toBe(0);
      const report = JSON.parse(readFileSync(out('l.json'), 'utf8'));
      expect(report.fidelity).toMatchObject({ beatNotes: { share: 1 }, basses: { share: 1 } });
      expect(report.summary).toMatch(/every note kept|notes? left out/i);
      expect(keypath('check', out('l.xml'), '--level', level).status).toBe(0);
      return report.difficulty;
    });
    expect(hard).toEqual([...hard].sort((a, b) => a - b));
  });

  it('arrange: textures, chords to sing to, and levels of one’s own', () => {
    const left = (...options: string[]): number => {
      keypath('arrange', song, '--level', '4', ...options, '-o', out('t.xml'));
      return readBack(out('t.xml')).parts[0]!.notes.filter((n) => n.staff === 2).length;
    };
    expect(left('--texture', 'held-root')).toBeLessThan(left('--texture', 'broken-chord'));
    keypath('arrange', song, '--level', '3', '--style', 'sing-along', '-o', out('s.xml'));
    expect(readBack(out('s.xml')).measures).toHaveLength(6);
    keypath(
      'arrange',
      song,
      '--level',
      '3',
      '--style',
      'sing-along',
      '--introduction',
      '0',
      '-o',
      out('s.xml'),
    );
    expect(readBack(out('s.xml')).measures).toHaveLength(4);
    const own = { ...levelNumbered(2), level: 2.5, name: 'Between' };
    writeFileSync(out('levels.json'), JSON.stringify([own]));
    const made = keypath(
      'arrange',
      song,
      '--levels',
      out('levels.json'),
      '--level',
      '2.5',
      '-o',
      out('o.xml'),
    );
    expect(made.status).toBe(0);
    expect(keypath('check', out('o.xml'), '--levels', out('levels.json'), '--level', '2.5').status).toBe(0);
    writeFileSync(out('levels.json'), JSON.stringify([{ ...own, leftNotes: 0 }]));
    expect(keypath('check', song, '--levels', out('levels.json'), '--level', '2.5')).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('The levels can’t be used at “0.leftNotes”'),
    });
  });

  it('transpose: a chart in all twelve keys as one file', () => {
    keypath('transpose', song, '--to', 'all', '-o', out('all.pro'));
    const text = readFileSync(out('all.pro'), 'utf8');
    expect(text.split('{new_song}')).toHaveLength(12);
    expect(new Set(text.match(/\{key: [^}]+\}/g)).size).toBe(12);
    expect(keypath('analyse', out('all.pro')).stderr).toContain('several songs');
    expect(keypath('transpose', song, '--to', 'all', '-o', out('all.mid')).status).toBe(2);
  });

  it('finger: every note, locks kept on request', () => {
    const xml = keypath('finger', song).stdout;
    writeFileSync(out('f.xml'), xml.replace(/(<note id="m1n0">.*?<fingering[^>]*>)\d/, '$15'));
    expect(readBack(out('f.xml')).parts[0]!.notes.every((n) => n.finger)).toBe(true);
    const again = (...options: string[]) => {
      keypath('finger', out('f.xml'), '-o', out('g.xml'), ...options);
      return readBack(out('g.xml')).parts[0]!.notes.find((n) => n.id === 'm1n0')!.finger;
    };
    expect(again('--keep')).toBe(5);
    expect(again()).not.toBe(5);
  });

  it('count: the pickup is four, a dotted quarter holds two', () => {
    const { measures } = json('count', song);
    expect(measures[0]).toEqual({ number: 0, counts: [{ at: '0', say: '4', kind: 'onset' }] });
    expect(measures[1].counts).toEqual([
      { at: '0', say: '1', kind: 'onset' },
      { at: '1', say: '2', kind: 'held' },
      { at: '3/2', say: '&', kind: 'onset' },
      { at: '2', say: '3', kind: 'onset' },
      { at: '3', say: '4', kind: 'held' },
    ]);
    expect(json('count', song, '--hand', 'left').measures[0].counts[0].kind).toBe('rest');
  });

  it('finger: three ways at most for each measure and hand, named; and a report of every reason', () => {
    const { measures } = json('finger', song, '--alternatives', '3');
    expect(measures[1]).toMatchObject({ measure: 1, hand: 'right' });
    for (const { notes, alternatives } of measures) {
      expect(alternatives.length).toBeGreaterThan(0);
      expect(alternatives.length).toBeLessThanOrEqual(3);
      expect(alternatives[0].dearer).toBe(0);
      for (const { fingers, name } of alternatives) {
        expect(fingers).toHaveLength(notes.length);
        expect(name).not.toBe('');
      }
    }
    keypath('finger', song, '-o', out('r.xml'), '--json', out('r.json'));
    const report = JSON.parse(readFileSync(out('r.json'), 'utf8'));
    expect(report.fingers).toHaveLength(
      readBack(out('r.xml')).parts[0]!.notes.filter((n) => n.finger).length,
    );
    expect(report.fingers.every((f: { because: string }) => f.because.endsWith('.'))).toBe(true);
    expect(report.positions[0]).toMatchObject({
      hand: 'right',
      position: expect.stringContaining('position'),
    });
  });

  it('finger: a chord that one hand cannot hold is shared, and the report says so', () => {
    const wide = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: 'E5:4',
      left: '[C3 G3 E4]:4',
    });
    writeFileSync(out('wide.xml'), writeMusicXml(wide));
    keypath('finger', out('wide.xml'), '-o', out('shared.xml'), '--json', out('shared.json'));
    expect(readBack(out('shared.xml')).parts[0]!.notes.filter((n) => n.staff === 1)).toHaveLength(2);
    expect(JSON.parse(readFileSync(out('shared.json'), 'utf8')).hands[0].text).toContain(
      'the right hand takes E4',
    );
    keypath('finger', out('wide.xml'), '--reach', '10', '-o', out('held.xml'));
    expect(readBack(out('held.xml')).parts[0]!.notes.filter((n) => n.staff === 1)).toHaveLength(1);
  });

  it('count: in another school', () => {
    const said = (...options: string[]): string =>
      json('count', song, ...options)
        .measures[1].counts.map((c: { say: string }) => c.say)
        .join(' ');
    expect(said('--counting', 'takadimi')).toBe('ta ta di ta ta');
    expect(said('--counting', 'ta-titi')).toBe('ta ti ti ta ta');
    expect(said('--counting', 'none')).toBe('');
  });

  it('pedal: in every style, with reasons and what blurs in the report', () => {
    for (const style of ['lifted', 'low-to-chord', 'long', 'harmony']) {
      expect(
        keypath('pedal', song, '--pedal', style, '-o', out('p.xml'), '--json', out('p.json')).status,
      ).toBe(0);
      const { marks, blurs } = JSON.parse(readFileSync(out('p.json'), 'utf8'));
      expect(marks.every((m: { because: string }) => m.because.length > 0)).toBe(true);
      if (style === 'lifted') expect(blurs).toEqual([]);
    }
    expect(keypath('pedal', song, '--pedal', 'none').stdout).not.toContain('<pedal');
  });

  it('pedal: marks on the lower staff', () => {
    expect(keypath('pedal', song).stdout.match(/<pedal type="change"/g)).toHaveLength(3);
  });

  it('keys: all thirteen, the best first', () => {
    const ranked: { key: string; total: number; keyboard: number }[] = json('keys', song, '--voice', 'A3-D5');
    expect(ranked).toHaveLength(13);
    expect(ranked.map((k) => k.total)).toEqual([...ranked.map((k) => k.total)].sort((a, b) => a - b));
    expect(Object.keys(ranked[0]!)).toEqual([
      'key',
      'fifths',
      'by',
      'voiceFrom',
      'total',
      'reading',
      'hands',
      'voice',
      'keyboard',
      'distance',
      'beyondLevel',
    ]);
  });

  it('keys: of a chart the voice counts by the range that is said, and where none is, that is said', () => {
    const chart = join(folder, 'chart.txt');
    writeFileSync(
      chart,
      'C        F\nSlow the river, slow the day\nG        C\nnothing more to carry away\n',
    );
    const silent = keypath('keys', chart, '--voice', 'A3-D5');
    expect(silent.stderr).toContain(
      'the voice doesn’t count. Say how low and high the song goes: --song-range A3-C5',
    );
    expect(JSON.parse(silent.stdout)[0]).toMatchObject({ voice: 0, voiceFrom: null });
    const said = keypath('keys', chart, '--voice', 'C4-C5', '--song-range', 'E4-E5');
    expect(said.stderr).not.toContain('the voice doesn’t count');
    const voiceIn = (key: string): number =>
      JSON.parse(said.stdout).find((k: { key: string }) => k.key === key).voice;
    // An octave that lies a third too high: it fits where everything is a third lower.
    expect([voiceIn('C'), voiceIn('Ab')]).toEqual([1, 0]);
    expect(keypath('keys', chart, '--song-range', 'high').stderr).toContain(
      '--song-range high isn’t a range.',
    );
  });

  it('keys: weights that are given count', () => {
    const near: { key: string; distance: number }[] = json(
      'keys',
      song,
      '--weights',
      'distance=90,reading=0,hands=0,keyboard=0',
    );
    expect(near[0]).toMatchObject({ key: 'G', distance: 0 });
  });

  it('transpose: to a key or by semitones, up or down, and back again', () => {
    const first = (...args: string[]): string => {
      keypath('transpose', song, ...args, '-o', out('t.xml'));
      return pitchName(readBack(out('t.xml')).parts[0]!.notes[0]!.pitch);
    };
    expect(first('--to', 'F')).toBe('C4');
    expect(first('--to', 'F', '--up')).toBe('C5');
    expect(first('--by', '-3')).toBe('B3');
    expect(first('--by', '1')).toBe('E♭4');
  });

  it('check: status 1 with what breaks the level', () => {
    const { status, stdout } = keypath('check', song, '--level', '1');
    expect(status).toBe(1);
    expect(JSON.parse(stdout).violations[0]).toMatchObject({
      measure: 1,
      limit: expect.any(String),
      allowed: expect.any(String),
    });
  });

  it('check: names chords that blur, and fails for them only with --strict', () => {
    writeFileSync(
      out('low.abc'),
      'X:1\nT:Low\nM:4/4\nL:1/4\nK:C\nV:1\nV:2 clef=bass\n[V:1] c4|\n[V:2] [C,,E,,]4|\n',
    );
    const { status, stdout } = keypath('check', out('low.abc'), '--level', '6');
    expect(status).toBe(0);
    expect(JSON.parse(stdout).warnings).toEqual([
      { measure: 1, hand: 'left', text: 'C2 E2 blurs so low: open it as C2 E3, or play it an octave higher' },
    ]);
    expect(keypath('check', out('low.abc'), '--level', '6', '--strict').status).toBe(1);
  });

  it('convert: .musicxml to .mxl and back, and to MIDI', () => {
    keypath('convert', song, '-o', out('c.mxl'));
    keypath('convert', out('c.mxl'), '-o', out('c.xml'));
    keypath('convert', song, '-o', out('c.mid'));
    expect(json('analyse', out('c.mid'))).toMatchObject({ title: 'Song', key: { tonic: 'G' }, pickup: 0 });
    // Ids are given anew when a file is read; everything else is the same to the letter.
    const withoutIds = (path: string): string => readFileSync(path, 'utf8').replace(/ id="m[^"]+"/g, '');
    expect(withoutIds(out('c.xml'))).toBe(withoutIds(song));
  });
});

describe('formats', () => {
  it.each(['abc', 'mid', 'mxl'])('convert: to .%s and back keeps what sounds', (ending) => {
    keypath('convert', song, '-o', out(`r.${ending}`));
    const sound = (path: string) =>
      soundingNotes(readBack(path).parts[0]!.notes).map(
        (n) => `${pitchName(n.pitch)}+${n.duration}/${n.staff}`,
      );
    expect(sound(out(`r.${ending}`))).toEqual(sound(song));
  });
  it.each(['pro', 'txt'])('convert: to a chart as .%s and back keeps the chords', (ending) => {
    keypath('convert', song, '-o', out(`c.${ending}`));
    expect(json('analyse', out(`c.${ending}`)).chords.map((c: { symbol: string }) => c.symbol)).toEqual([
      'G',
      'C',
      'D7',
      'G',
    ]);
  });
  it('convert: one tune of a tune book, by its number', () => {
    const book = out('book.abc');
    writeFileSync(book, 'X:4\nT:Four\nK:C\nC4 |]\n\nX:9\nT:Nine\nK:G\nG4 |]\n');
    const first = keypath('convert', book, '-o', out('tune.musicxml'));
    expect(first.stderr).toBe('The file holds 2 tunes; this is the first.\n');
    expect(readBack(out('tune.musicxml')).title).toBe('Four');
    expect(keypath('convert', book, '--tune', '9', '-o', out('tune.musicxml'))).toMatchObject({
      status: 0,
      stderr: '',
    });
    expect(readBack(out('tune.musicxml')).title).toBe('Nine');
    expect(keypath('convert', book, '--tune', '5', '-o', out('tune.musicxml'))).toMatchObject({
      status: 2,
      stderr: 'keypath: There is no tune X:5 in book.abc; it has X:4, X:9.\n',
    });
  });
  it('arrange: a chart becomes chords to sing to, in both hands', () => {
    writeFileSync(out('chart.txt'), 'Verse:\nF / / | Bb/C / / | F / / |\n');
    expect(keypath('arrange', out('chart.txt'), '--level', '3', '-o', out('sing.xml')).status).toBe(0);
    const { notes } = readBack(out('sing.xml')).parts[0]!;
    expect(notes.filter((n) => n.staff === 1 && n.onset === 0)).toHaveLength(2);
    expect(notes.filter((n) => n.staff === 2)).not.toHaveLength(0);
    expect(notes.every((n) => n.finger || n.tie)).toBe(true);
  });
  it('finger: two parts of one staff are two hands', () => {
    writeFileSync(
      out('two.abc'),
      'X:1\nL:1/4\nK:C\nV:1 name="Upper"\nV:2 clef=bass name="Lower"\n[V:1] c d e f|\n[V:2] C, D, E, F,|\n',
    );
    keypath('finger', out('two.abc'), '-o', out('two.xml'));
    const { notes } = readBack(out('two.xml')).parts[0]!;
    expect(notes.map((n) => [n.staff, n.finger !== undefined])).toEqual(
      expect.arrayContaining([
        [1, true],
        [2, true],
      ]),
    );
    expect(notes).toHaveLength(8);
  });
});

describe('what is said of the whole', () => {
  it('is the home key and the groups of a measure', () => {
    const song = join(folder, 'home.abc');
    writeFileSync(song, 'X:1\nM:7/8\nL:1/8\nK:C\n"Am"A2c2e3|"F"A2c2f3|"C"G2c2e3|"G"G2B2d3|]\n');
    const report = (...args: string[]) =>
      JSON.parse(keypath('analyze', song, ...args).stdout) as {
        key: { tonic: string; mode: string };
        chords: { degree: string }[];
      };
    expect(report('--home', 'D dorian', '--groups', '3+2+2')).toMatchObject({
      key: { tonic: 'D', mode: 'dorian' },
      chords: [{ degree: 'v' }, {}, {}, {}],
    });
    expect(keypath('analyze', song, '--home', 'H sharp').status).toBe(2);
    expect(keypath('analyze', song, '--groups', '3 2 2').stderr).toMatch(
      /--groups takes groups such as 2\+2\+3/,
    );
  });
});
describe('what cannot be done', () => {
  writeFileSync(out('bad.xml'), '<score-partwise><part');
  writeFileSync(out('recipe.json'), '{"level": 0}');
  writeFileSync(out('none.abc'), 'X:1\nK:C\n');
  writeFileSync(out('words.txt'), 'milk, eggs, a new metronome');
  it.each([
    [['fly', song], /no command “fly”/],
    [['analyse'], /needs a file/],
    [['analyse', 'nowhere.xml'], /There is no file or folder nowhere\.xml/],
    [['analyse', folder], /is a folder/],
    [['analyse', out('bad.xml')], /ends in the middle|not well-formed/],
    [['arrange', song], /needs --level/],
    [['arrange', song, '--level', '7'], /--level takes one of 1, 2, 3, 4, 5, 6/],
    [['arrange', song, '--level', '2', '--texture', 'boogie'], /--texture takes one of held-root/],
    [['keys', song, '--weights', 'colour=3'], /--weights takes reading=NUMBER/],
    [['arrange', song, '--level', '2', '--key', 'H'], /isn’t a key/],
    [['arrange', song, '--recipe', out('recipe.json')], /recipe can’t be used at “level”/],
    [['arrange', song, '--level', '1', '-o', out('x.pdf')], /can’t write music as “.pdf”/],
    [['analyse', out('none.abc')], /holds no notes/],
    [['analyse', out('words.txt')], /neither MusicXML, MIDI, ABC nor a chord chart/],
    [['transpose', song, '--by', 'two'], /whole number/],
    [['count', song, '--hand', 'third'], /right, left or both/],
    [['count', song, '--counting', 'loud'], /--counting takes one of numbers, pulses/],
    [['finger', song, '--alternatives', '9'], /from 1 to 3/],
    [['analyse', song, '--loud'], /--loud/],
  ])('%j: one line, status 2, nothing written', (args, expected) => {
    const before = readdirSync(folder).sort();
    const { status, stdout, stderr } = keypath(...args);
    expect(status).toBe(2);
    expect(stdout).toBe('');
    expect(stderr).toMatch(expected);
    expect(stderr.trim().split('\n')).toHaveLength(1);
    expect(readdirSync(folder).sort()).toEqual(before);
  });
  it('--help lists every command', () => {
    const { status, stdout } = keypath('--help');
    expect(status).toBe(0);
    for (const name of [
      'analyze',
      'arrange',
      'finger',
      'count',
      'pedal',
      'keys',
      'transpose',
      'check',
      'convert',
    ])
      expect(stdout).toContain(name);
  });
});
