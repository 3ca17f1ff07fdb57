/** Clicks alone, at a tempo. */
import { accentsOf, type TimeSignature } from './accents';
import type { Program } from '$core/performance';
import type { Player } from '$ui/sound/player';

export class Metronome {
  isOn = $state(false);
  #player: Player | undefined;

  /** Beats per minute of the metre's beat. */
  async toggle(beats: number, time: TimeSignature): Promise<void> {
    if (this.isOn) return this.stop();
    this.isOn = true;
    const { Player } = await import('$ui/sound/player');
    this.#player ??= new Player({ onend: () => (this.isOn = false), onsilence: () => undefined });
    await this.#player.play({ program: clicking(beats, time), loops: true });
  }

  stop(): void {
    this.#player?.stop();
    this.isOn = false;
  }
}

/** A measure of clicks. */
function clicking(beats: number, time: TimeSignature): Program {
  const beat = 60 / beats;
  const clicks = accentsOf(time).map((weight, i) => ({ at: i * beat, weight }));
  return {
    notes: [],
    clicks,
    words: [],
    begins: 0,
    ends: clicks.length * beat,
    tickAt: () => 0,
    secondsAt: () => 0,
  };
}
