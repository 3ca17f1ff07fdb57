/** Clicks alone, at a tempo. */
import { clicksAlone } from '$core/performance/program';
import type { TimeSignature } from '$core/score/score';
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
    await this.#player.play({ program: clicksAlone(time, beats), loops: true });
  }

  stop(): void {
    this.#player?.stop();
    this.isOn = false;
  }
}
