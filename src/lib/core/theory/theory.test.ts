import fc from 'fast-check';
import { Chord as TonalChord, Key as TonalKey, Note as TonalNote } from 'tonal';
import { describe, expect, it } from 'vitest';
import { blackKeyShape, toMidi, type Pitch } from './pitch';
import { parseChord } from './chordName';
import {
  chordSymbol,
  chordToneNames,
  chordTones,
  degree,
  inversion,
  isDiatonic,
  numberDegree,
  type Chord,
} from './chord';
import { CHORD_KINDS, type ChordKindId } from './chordKinds';
import { keyOptions } from './easyKeys';
import { fromFifths, nearestPitch, pitchClass, spellMidi, toFifths } from './fifths';
import {
  keyCode,
  keyName,
  parseKey,
  scaleFifths,
  signatureNames,
  spellInKey,
  withinSix,
  type Key,
} from './key';

const ascii = (fifths: number): string => {
  const { step, alter } = fromFifths(fifths);
  return step + (alter > 0 ? '#' : 'b').repeat(Math.abs(alter));
};
const chord = (root: string, kind: ChordKindId, bass?: string): Chord => {
  const place = (name: string): number =>
    toFifths({ step: name[0] as 'C', alter: name[1] === '#' ? 1 : name[1] === 'b' ? -1 : 0 });
  return { root: place(root), kind, ...(bass ? { bass: place(bass) } : {}) };
};
const key = (code: string): Key => parseKey(code)!;

describe('the line of fifths', () => {
  it('law: a place and its letter are two names of one thing, at the right pitch class', () => {
    fc.assert(
      fc.property(fc.integer({ min: -15, max: 19 }), (place) => {
        expect(toFifths(fromFifths(place))).toBe(place);
        expect(TonalNote.chroma(ascii(place))).toBe(pitchClass(place));
      }),
    );
  });
  it('law: spelling a MIDI number gives that number back', () => {
    fc.assert(
      fc.property(fc.integer({ min: 21, max: 108 }), fc.integer({ min: -12, max: 15 }), (midi, place) => {
        const near = midi - ((((midi - pitchClass(place)) % 12) + 12) % 12);
        expect(toMidi(spellMidi(near, place))).toBe(near);
        expect(Math.abs(toMidi(nearestPitch(place, midi)) - midi)).toBeLessThanOrEqual(6);
      }),
    );
  });
  it('spells across the octave break', () => {
    expect(spellMidi(60, toFifths({ step: 'B', alter: 1 }))).toEqual<Pitch>({
      step: 'B',
      alter: 1,
      octave: 3,
    });
    expect(spellMidi(59, toFifths({ step: 'C', alter: -1 }))).toEqual<Pitch>({
      step: 'C',
      alter: -1,
      octave: 4,
    });
  });
});

describe('keys', () => {
  it('are read and named', () => {
    expect(key('F#m')).toEqual({ fifths: 3, mode: 'minor' });
    expect(keyName(key('E♭'))).toBe('E♭ major');
    expect(keyCode(key('Bbm'))).toBe('Bbm');
    expect(parseKey('H')).toBeUndefined();
    expect(parseKey('G##')).toBeUndefined();
  });
  it.each(['C', 'G', 'D', 'A', 'E', 'B', 'F#', 'F', 'Bb', 'Eb', 'Ab', 'Db', 'Gb'])(
    'has the scale of %s that tonal knows',
    (tonic) => {
      expect(scaleFifths(key(tonic)).map(ascii)).toEqual(TonalKey.majorKey(tonic).scale);
      expect(scaleFifths(key(`${tonic}m`) ?? key('Am')).map(ascii)).toEqual(
        parseKey(`${tonic}m`) ? TonalKey.minorKey(tonic).natural.scale : TonalKey.minorKey('A').natural.scale,
      );
    },
  );
  it('write their signatures in order', () => {
    expect(signatureNames(key('A'))).toEqual(['F♯', 'C♯', 'G♯']);
    expect(signatureNames(key('Eb'))).toEqual(['B♭', 'E♭', 'A♭']);
  });
  it('go round beyond six accidentals', () => {
    expect([7, 6, -6, -7, 8].map(withinSix)).toEqual([-5, 6, -6, 5, -4]);
  });
  it('spell by themselves: a black key is what the key calls it', () => {
    const spelled = (pc: number, code: string): string => ascii(spellInKey(pc, key(code)));
    expect(spelled(8, 'E')).toBe('G#');
    expect(spelled(8, 'Eb')).toBe('Ab');
    expect(spelled(8, 'Am')).toBe('G#');
    expect(spelled(6, 'C')).toBe('F#');
    expect(spelled(10, 'C')).toBe('Bb');
    expect(spelled(1, 'Dm')).toBe('C#');
  });
  it('are offered from the easiest on, each once', () => {
    const options = keyOptions('major');
    expect(options.slice(0, 3).map((k) => k.code)).toEqual(['C', 'G', 'F']);
    expect(new Set(options.map((k) => k.code)).size).toBe(13);
    expect(options[4]?.signature).toBe('2 flats');
  });
});

describe('chords', () => {
  it.each([
    ['major', 'M'],
    ['minor', 'm'],
    ['diminished', 'dim'],
    ['augmented', 'aug'],
    ['dominant7', '7'],
    ['major7', 'maj7'],
    ['minor7', 'm7'],
    ['diminished7', 'dim7'],
    ['halfDiminished', 'm7b5'],
    ['sixth', '6'],
    ['minorSixth', 'm6'],
    ['suspended4', 'sus4'],
    ['ninth', '9'],
  ] as [ChordKindId, string][])('%s has the tones that tonal gives, on every root', (kind, symbol) => {
    for (const root of ['C', 'F#', 'Bb', 'E', 'Ab']) {
      const ours = chordTones(chord(root, kind)).map(ascii);
      expect([...ours].sort()).toEqual([...TonalChord.get(root + symbol).notes].sort());
    }
  });
  it('are named with their bass, and their inversion counted', () => {
    expect(chordSymbol(chord('Bb', 'major', 'D'))).toBe('B♭/D');
    expect(inversion(chord('Bb', 'major', 'D'))).toBe(1);
    expect(inversion(chord('C', 'dominant7', 'Bb'))).toBe(3);
    expect(inversion(chord('C', 'major', 'D'))).toBe(-1);
    expect(chordToneNames(chord('A', 'minor7'))).toBe('A C E G');
  });
  it('have their degree in the key', () => {
    expect(degree(chord('A', 'minor7'), key('C'))).toBe('vi7');
    expect(degree(chord('Bb', 'major'), key('C'))).toBe('♭VII');
    expect(degree(chord('F#', 'diminished'), key('G'))).toBe('vii°');
    expect(degree(chord('E', 'dominant7'), key('Am'))).toBe('V7');
    expect(degree(chord('C', 'major'), key('Am'))).toBe('III');
    expect(degree(chord('B', 'halfDiminished'), key('C'))).toBe('viiø7');
  });
  it.each([
    ['D7', 'C', undefined, 'V7/V'],
    ['D', 'C', undefined, 'V/V'],
    ['A7', 'C', 'F', 'V7/ii'],
    ['B7', 'C', undefined, 'V7/iii'],
    ['E7', 'C', 'F', 'V7/vi'],
    ['C7', 'C', 'F', 'V7/IV'],
    ['C7', 'C', 'G7', 'I7'],
    ['F7', 'C', 'C7', 'IV7'],
    ['F#dim7', 'C', 'G', 'vii°7/V'],
    ['C#dim7', 'C', 'Dm', 'vii°7/ii'],
    ['Bb', 'C', undefined, '♭VII'],
    ['Ab', 'C', undefined, '♭VI'],
    ['Fm', 'C', undefined, 'iv'],
    ['F6', 'C', undefined, 'IV(add6)'],
    ['E7', 'Am', undefined, 'V7'],
    ['B7', 'Am', 'E', 'V7/V'],
    ['A7', 'Am', 'Dm', 'V7/iv'],
    ['A', 'Am', undefined, 'I'],
    ['D', 'Am', undefined, 'IV'],
    ['G7', 'Am', 'C', 'VII7'],
  ] as const)('%s in %s before %s is %s: by what it leads to', (name, inKey, next, expected) => {
    expect(degree(parseChord(name)!, key(inKey), next && parseChord(next))).toBe(expected);
  });
  it.each([
    ['Am', 'C', '6'],
    ['F', 'C', '4'],
    ['G7', 'C', '5(7)'],
    ['Fm', 'C', '4 minor'],
    ['D', 'C', '2 major'],
    ['Bb', 'C', '♭7 major'],
    ['C/E', 'C', '1/3'],
    ['Gsus4', 'C', '5sus4'],
    ['E', 'Am', '5'],
    ['Em', 'Am', '5 minor'],
    ['F', 'Am', '6'],
    ['Bdim', 'C', '7dim'],
  ])('%s in %s is %s as a plain number', (symbol, inKey, number) => {
    expect(numberDegree(parseChord(symbol)!, key(inKey))).toBe(number);
  });
  it('are diatonic or borrowed; the dominant of minor belongs', () => {
    expect(isDiatonic(chord('D', 'minor'), key('C'))).toBe(true);
    expect(isDiatonic(chord('D', 'major'), key('C'))).toBe(false);
    expect(isDiatonic(chord('E', 'major'), key('Am'))).toBe(true);
  });
  it('every kind has a name of its own in the file format', () => {
    const names = Object.values(CHORD_KINDS).map((k) => k.musicxml);
    expect(new Set(names).size).toBe(names.length);
  });
});

describe('the shape of a chord on the keys', () => {
  it.each([
    [[60, 64, 67], ''],
    [[62, 66, 69], 'white, black, white'],
    [[63, 67, 70], 'black, white, black'],
    [[66, 70, 73], 'all black keys'],
    [[59, 63, 66], 'white, black, black'],
  ])('%j: %s', (keys, shape) => expect(blackKeyShape(keys)).toBe(shape));
});
