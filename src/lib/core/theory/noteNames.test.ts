import { afterEach, describe, expect, it } from 'vitest';
import { keyCode, keyName, parseKey } from './key';
import { nameNotesAs } from './noteNames';
import { parsePitch, pitchClassName, pitchName } from './pitch';

afterEach(() => nameNotesAs('letters'));

describe('names of notes', () => {
  const [b, bFlat, fSharp] = ['B3', 'B♭3', 'F♯4'].map((name) => parsePitch(name)!) as [never, never, never];
  it.each([
    ['letters', ['B3', 'B♭3', 'F♯4'], 'B minor'],
    ['german', ['H3', 'B3', 'F♯4'], 'H minor'],
    ['solfege', ['si3', 'si♭3', 'fa♯4'], 'si minor'],
  ] as const)('%s', (naming, names, key) => {
    nameNotesAs(naming);
    expect([b, bFlat, fSharp].map(pitchName)).toEqual(names);
    expect(pitchClassName(b)).toBe(names[0].slice(0, -1));
    expect(keyName(parseKey('Bm')!)).toBe(key);
  });
  it('are letters in what is stored, whatever they are called', () => {
    nameNotesAs('german');
    expect(keyCode(parseKey('Bm')!)).toBe('Bm');
    expect(parsePitch('B3')).toEqual(b);
  });
});
