import { formatOf } from '$core/io/writeScoreFile';
import { readScoreFile } from '$core/io/readScoreFile';
import { scoreFrom } from '$core/test/shorthand';
import { describe, expect, it } from 'vitest';
import { estimated, fileWithin, isHeavy, isTooLong, weightOf } from './weight';

const bytesOf = (text: string | Uint8Array): Uint8Array =>
  typeof text === 'string' ? new TextEncoder().encode(text) : text;
const song = (measures: number) =>
  scoreFrom({
    title: 'Song',
    key: 'C',
    time: { beats: 4, beatType: 4 },
    right: Array.from({ length: measures }, () => 'C5:0.5 D5:0.5 E5:1 F5:1 G5:1').join(' | '),
    left: Array.from({ length: measures }, () => 'C3:2 G2:2').join(' | '),
  });

describe('how much there is to do for a piece', () => {
  it('is known by its notes and measures', () => {
    expect(weightOf(song(10))).toEqual({ notes: 70, measures: 10 });
    expect([isHeavy(weightOf(song(64))), isHeavy(weightOf(song(300)))]).toEqual([false, true]);
    expect(isHeavy({ notes: 9000, measures: 64 })).toBe(true);
    expect([20_000, 26_000].map((notes) => isTooLong({ notes, measures: 900 }))).toEqual([false, true]);
    expect([isTooLong({ notes: 9000, measures: 3700 }), isTooLong(null)]).toEqual([true, false]);
  });
  it('is estimated before a file is read, in every format', () => {
    for (const ending of ['.musicxml', '.mxl', '.mid', '.abc'] as const) {
      const [small, large] = [40, 1200].map((n) => bytesOf(formatOf(ending)!.write(song(n))));
      expect(isHeavy(estimated(`x${ending}`, small!)), `${ending}, small`).toBe(false);
      expect(isHeavy(estimated(`x${ending}`, large!)), `${ending}, large`).toBe(true);
    }
  });
  it('is seen in the form that brings the file, without parsing that', async () => {
    const form = new FormData();
    form.append('rights', 'own work');
    form.append('file', new File(['X:1\nK:C\nCDEF|\n'], 'tüne.abc'));
    const body = new Uint8Array(await new Response(form).arrayBuffer());
    const { name, bytes } = fileWithin(body);
    expect([name, new TextDecoder().decode(bytes).slice(0, 7)]).toEqual(['tüne.abc', 'X:1\nK:C']);
    expect(fileWithin(new Uint8Array([1, 2])).bytes).toHaveLength(2);
  });
  it('is much in a small file of many short measures', () => {
    const abc = `X:1\nT:Many\nM:2/4\nL:1/4\nK:C\n${'C D|'.repeat(3700)}\n`;
    expect(abc.length).toBeLessThan(40_000);
    expect(isHeavy(estimated('many.abc', bytesOf(abc)))).toBe(true);
    expect(weightOf(readScoreFile('many.abc', bytesOf(abc)).score).measures).toBe(3700);
  });
});
