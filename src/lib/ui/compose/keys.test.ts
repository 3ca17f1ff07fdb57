/** A tune is written by its keys alone: by a typist who knows only the list of keys. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deskOf, type Desk } from '$core/compose/compose';
import { EMPTY, lengthOf, sketchSchema, type Item, type Sketch } from '$core/compose/sketch';
import { toScore } from '$core/compose/toScore';
import { pitchName, STEPS, type Pitch } from '$core/theory/pitch';
import { soundingNotes } from '$core/score/query';
import { alterInKey, parseKey } from '$core/theory/key';
import { COMPOSE_KEYS, composeKey, PAGE_KEYS } from './keys';

const press = (desk: Desk, key: string): Desk => composeKey(key)!.act(desk);
const KEYS_OF_PIECES = ['C', 'G', 'Eb', 'F#m', 'Cm', 'Ddor'].filter((key) => parseKey(key));

/** What a typist presses to have this item behind what is written: length, dot, triplet, letter, then octaves and accidentals. */
function typed(desk: Desk, item: Item): Desk {
  let now = press(desk, item.value === 16 ? '6' : String(item.value));
  if (item.dots === 1) now = press(now, '.');
  if (now.triplet !== item.triplet) now = press(now, 't');
  if (!item.pitch) return press(now, 'r');
  const { step, alter, octave } = item.pitch;
  now = press(now, step.toLowerCase());
  const written = (): Pitch => now.sketch.items[now.at - 1]!.pitch!;
  while (written().octave < octave) now = press(now, 'Shift+ArrowUp');
  while (written().octave > octave) now = press(now, 'Shift+ArrowDown');
  while (written().alter < alter) now = press(now, '#');
  while (written().alter > alter) now = press(now, '-');
  return item.tie ? press(now, '~') : now;
}

const pitch = fc.record<Pitch>({
  step: fc.constantFrom(...STEPS),
  alter: fc.constantFrom(-1, 0, 1),
  octave: fc.integer({ min: 3, max: 6 }),
});
const item = fc.record<Item>({
  pitch: fc.option(pitch, { freq: 5 }),
  value: fc.constantFrom(1, 2, 4, 8, 16),
  dots: fc.constantFrom(0, 1),
  triplet: fc.boolean(),
  tie: fc.boolean(),
  words: fc.constant([]),
});
const tune = fc.record({ key: fc.constantFrom(...KEYS_OF_PIECES), items: fc.array(item, { maxLength: 24 }) });

describe('the keys of writing', () => {
  it('law: write any tune that a sketch can hold', () =>
    fc.assert(
      fc.property(tune, ({ key, items }) => {
        // A rest is tied to nothing.
        const wanted = items.map((i) => (i.pitch ? i : { ...i, tie: false }));
        const desk = wanted.reduce(typed, deskOf({ ...EMPTY, key }));
        expect(desk.sketch.items).toEqual(wanted);
        expect(desk.at).toBe(wanted.length);
      }),
    ));
  it('law: whatever is pressed leaves a sketch that can be kept, and one stands in it', () =>
    fc.assert(
      fc.property(tune, fc.array(fc.constantFrom(...COMPOSE_KEYS.map((k) => k.press))), (begun, keys) => {
        const desk = keys.reduce(press, deskOf({ ...EMPTY, ...begun }));
        expect(sketchSchema.safeParse(desk.sketch).error?.issues).toBeUndefined();
        expect(desk.at).toBeGreaterThanOrEqual(0);
        expect(desk.at).toBeLessThanOrEqual(desk.sketch.items.length);
        expect(desk.from ?? 0).toBeLessThanOrEqual(desk.sketch.items.length);
      }),
    ));
  it('law: what is written sounds as long as it was given', () =>
    fc.assert(
      fc.property(tune, ({ key, items }) => {
        const untied = items.map((i) => ({ ...i, tie: false, triplet: false }));
        const sketch: Sketch = { ...EMPTY, key, items: untied };
        const heard = soundingNotes(toScore(sketch).parts[0]!.notes);
        const pitched = untied.filter((i) => i.pitch);
        expect(heard.map((n) => [pitchName(n.pitch), n.duration])).toEqual(
          pitched.map((i) => [pitchName(i.pitch!), lengthOf(i)]),
        );
      }),
    ));
  it('have each one meaning, none that the page has already', () => {
    const all = [...COMPOSE_KEYS, ...PAGE_KEYS].map((k) => k.press);
    expect(new Set(all).size).toBe(all.length);
    expect(composeKey('q')).toBeUndefined();
  });
  it.each(KEYS_OF_PIECES)('a letter is as the key of %s has it', (key) => {
    for (const step of STEPS) {
      const { sketch } = press(deskOf({ ...EMPTY, key }), step.toLowerCase());
      expect(sketch.items[0]!.pitch!.alter).toBe(alterInKey(step, parseKey(key)!));
    }
  });
  it('up and down by a step come back to the note, by the key', () => {
    const begun = press(deskOf({ ...EMPTY, key: 'Eb' }), 'g');
    const up = press(begun, 'ArrowUp');
    expect(pitchName(up.sketch.items[0]!.pitch!)).toMatch(/^A♭/);
    expect(press(up, 'ArrowDown').sketch).toEqual(begun.sketch);
  });
  it('choosing with Shift and taking away leaves the rest', () => {
    const written = ['4', 'c', 'd', 'e', 'f', 'g'].reduce(press, deskOf(EMPTY));
    const without = ['ArrowLeft', 'Shift+ArrowLeft', 'Shift+ArrowLeft', 'Backspace'].reduce(press, written);
    expect(without.sketch.items.map((i) => i.pitch!.step)).toEqual(['C', 'D', 'G']);
    expect(without.from).toBeNull();
    expect(press(without, 'End').at).toBe(3);
    expect(press(without, 'Home').at).toBe(0);
  });
});
