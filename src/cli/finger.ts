/** The finger command: hands and fingers of a source as it stands, other remedies, and the reasons for all of it. */
import { alternativesIn } from '../lib/core/fingering/alternatives';
import { fingerExplainer } from '../lib/core/fingering/explain';
import type { FingeredHand } from '../lib/core/fingering/fingerHand';
import type { Hand } from '../lib/core/fingering/events';
import { positionsOf, positionText } from '../lib/core/fingering/positions';
import { fingerLine } from '../lib/core/fingering/solve';
import { playablePart, type PlayablePart } from '../lib/core/hands/playable';
import { endOf } from '../lib/core/score/metre';
import { pitchName } from '../lib/core/theory/pitch';
import { keyboardPart, measureAt, type SoundingNote } from '../lib/core/score/query';
import type { Score } from '../lib/core/score/score';
import { fingeredHands } from '../lib/core/version/markSource';
import { placeIn } from '../lib/core/version/why';
import { withFingers } from '../lib/core/version/writeMarks';
import { integerFrom, recipeFrom } from './options';
import { numberOf, reachOf, type Input, type Outcome } from './outcome';

const HANDS = ['right', 'left'] as const;
type Fingered = Readonly<Record<Hand, FingeredHand>>;

export function finger({ score: written, values }: Input): Outcome {
  const reach = reachOf(recipeFrom(values));
  const original = keyboardPart(written);
  const playable = playablePart(original, written.measures, reach);
  const { part } = playable;
  const score = { ...written, parts: written.parts.map((p) => (p === original ? part : p)) };
  const hands = fingeredHands(score, part, { reach, keep: values.keep ?? false });
  if (values.alternatives !== undefined)
    return { json: alternatives(score, hands, integerFrom('alternatives', values.alternatives, 1, 3)) };
  const fingers = new Map(HANDS.flatMap((hand) => [...hands[hand].fingering.fingers]));
  return {
    music: { ...score, parts: score.parts.map((p) => (p === part ? withFingers(p, fingers) : p)) },
    // Every reason is the phrase solved again: only for those who ask.
    ...(values.json === undefined ? {} : { report: report(score, hands, playable) }),
  };
}

/** For each measure and hand the fingering, and what else would do, named by what it trades. */
function alternatives(score: Score, hands: Fingered, count: number) {
  const measures = score.measures.flatMap((m) =>
    HANDS.flatMap((hand) => {
      const { notes, fingering } = hands[hand];
      const own = notes.filter((n) => n.onset >= m.start && n.onset < endOf(m));
      if (own.length === 0) return [];
      const remedies = alternativesIn(fingering, m.start, endOf(m), count);
      return [
        {
          measure: numberOf(score, m.index),
          hand,
          notes: own.map((n) => pitchName(n.pitch)),
          alternatives: remedies.map(({ fingers, name, dearer }) => ({
            fingers: own.map((n) => fingers.get(n.id) ?? null),
            name,
            dearer: rounded(dearer),
          })),
        },
      ];
    }),
  );
  return { measures };
}

function report(score: Score, hands: Fingered, { proposals, wide }: PlayablePart) {
  const at = (onset: number): number | string => numberOf(score, measureAt(score.measures, onset).index);
  const place = (hand: Hand, note: SoundingNote) => ({
    measure: at(note.onset),
    hand,
    note: pitchName(note.pitch),
    id: note.id,
  });
  return {
    hands: proposals.map(({ onset, hand, kind, text }) => ({ measure: at(onset), hand, kind, text })),
    wide: wide.map(({ onset, hand, span, reach, remedies }) => ({
      measure: at(onset),
      hand,
      span,
      reach,
      remedies: remedies.map(({ kind, text }) => ({ kind, text })),
    })),
    positions: HANDS.flatMap((hand) =>
      positionsOf(hands[hand].notes, hands[hand].fingering.fingers, hand).map((p) => ({
        measure: at(p.onset),
        hand,
        position: positionText(p),
      })),
    ),
    locks: HANDS.flatMap((hand) =>
      priceOfLocks(hands[hand]).map(({ note, dearer }) => ({ ...place(hand, note), dearer })),
    ),
    fingers: HANDS.flatMap((hand) => {
      const { notes, fingering } = hands[hand];
      const why = fingerExplainer(notes, fingering, placeIn(score.measures));
      return notes.map((n) => ({
        ...place(hand, n),
        finger: fingering.fingers.get(n.id),
        because: why(n.id)?.text ?? '',
      }));
    }),
  };
}

/** How much dearer the line is for each finger that is kept. */
function priceOfLocks({
  notes,
  fingering,
  settings,
}: FingeredHand): { note: SoundingNote; dearer: number }[] {
  return notes
    .filter((n) => settings.locks.has(n.id))
    .map((note) => {
      const locks = new Map([...settings.locks].filter(([id]) => id !== note.id));
      return { note, dearer: rounded(fingering.cost - fingerLine(notes, { ...settings, locks }).cost) };
    });
}

const rounded = (cost: number): number => Math.round(cost * 100) / 100;
