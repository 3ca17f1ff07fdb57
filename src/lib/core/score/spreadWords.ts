/** Words that stand over a stretch of music without places of their own. */
import type { Ticks } from './ticks';

/** Words over a stretch, as evenly as its beats allow: those of each beat at its tick. */
export function spreadWords(
  text: string,
  from: Ticks,
  to: Ticks,
  beat: Ticks,
): { tick: Ticks; text: string }[] {
  const words = text.trim().split(/\s+/).filter(Boolean);
  const beats = Math.max(1, Math.round((to - from) / beat));
  const byBeat = new Map<number, string[]>();
  words.forEach((word, i) => {
    const place = Math.floor((i * beats) / Math.max(beats, words.length));
    byBeat.set(place, [...(byBeat.get(place) ?? []), word]);
  });
  return [...byBeat].map(([place, list]) => ({ tick: from + place * beat, text: list.join(' ') }));
}
