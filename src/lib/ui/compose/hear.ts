/** Hearing what is written: the tune from an item on, or silence where it sounds already. */
import { perform } from '$core/performance/perform';
import { programOf } from '$core/performance/program';
import type { Score } from '$core/score/score';
import { itemId } from '$core/compose/toScore';
import type { Player } from '$ui/sound/player';

let player: Player | undefined;
let isPlaying = false;

export async function hearSketch(score: Score, from: number): Promise<void> {
  player ??= new (await import('$ui/sound/player')).Player({
    onend: () => (isPlaying = false),
    onsilence: () => undefined,
  });
  if (isPlaying) return player.stop();
  const performance = perform(score, 'straight');
  const start = performance.notes.find((n) => n.id === itemId(from))?.onset ?? 0;
  const program = programOf(performance, score.measures, {
    from: start,
    to: performance.end,
    hands: 'both',
    share: 1,
    click: false,
    countIn: false,
  });
  isPlaying = true;
  await player.play({ program, loops: false });
}
