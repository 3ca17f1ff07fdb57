import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../test/shorthand';
import { playedBy } from '../fingering/fingerHand';
import { fingersOf, withPedal } from './markSource';
import { withFingers } from './writeMarks';

const score = scoreFrom({
  key: 'C',
  time: { beats: 4, beatType: 4 },
  right: 'C4:1 D4:1 E4:1 F4:1 | G4:4',
  left: '[C3 E3 G3]:4 | [C3 E3 G3]:4',
  chords: 'C | ',
});
const part = score.parts[0]!;
const reach = { right: 14, left: 14 };

describe('marking a source as it stands', () => {
  it('fingers every note of both hands and changes nothing else', () => {
    const fingers = fingersOf(score, part, { reach, keep: false });
    expect(fingers.size).toBe(part.notes.length);
    expect(
      playedBy(part, 'right')
        .map((n) => fingers.get(n.id))
        .join(''),
    ).toBe('12345');
    expect(
      playedBy(part, 'left')
        .map((n) => fingers.get(n.id))
        .join(''),
    ).toBe('531531');
    const marked = withFingers(part, fingers);
    expect(marked.notes.map(({ finger: _finger, ...rest }) => rest)).toEqual(part.notes);
  });
  it('takes the fingers of the source as locks on request, and drops them otherwise', () => {
    const own = { ...part, notes: part.notes.map((n, i) => (i === 0 ? { ...n, finger: 2 } : n)) };
    const first = own.notes[0]!.id;
    expect(fingersOf(score, own, { reach, keep: true }).get(first)).toBe(2);
    expect(fingersOf(score, own, { reach, keep: false }).get(first)).toBe(1);
  });
  it('puts the pedal down with the chord and up at the end', () => {
    expect(withPedal(score, part, 'harmony').score.pedals.map((p) => p.type)).toEqual(['start', 'stop']);
  });
});
