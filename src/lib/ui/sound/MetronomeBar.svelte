<script lang="ts">
  /** A metronome over any page: its tempo, beats of a measure, and a beat that is tapped. */
  import { Metronome } from '$ui/lesson/metronome.svelte';
  import { tapped, tempoOfTaps } from '$ui/lesson/tapped';
  import { search } from '$ui/search/search.svelte';
  import X from '@lucide/svelte/icons/x';

  const metronome = new Metronome();
  const [SLOWEST, FASTEST] = [30, 240];
  let tempo = $state(80);
  let beats = $state(4);
  let taps: number[] = [];

  async function restart(): Promise<void> {
    if (!metronome.isOn) return;
    metronome.stop();
    await start();
  }
  const start = (): Promise<void> => metronome.toggle(tempo, { beats, beatType: 4 });
  function tap(): void {
    taps = tapped(taps, performance.now());
    const found = tempoOfTaps(taps);
    if (found === undefined) return;
    tempo = Math.min(FASTEST, Math.max(SLOWEST, found));
    void restart();
  }
  function close(): void {
    metronome.stop();
    search.metronome = false;
  }
  $effect(() => () => metronome.stop());
</script>

<section
  class="fixed right-4 bottom-4 z-30 flex max-w-[calc(100vw-2rem)] flex-wrap items-center gap-3 rounded-lg border border-hairline bg-paper px-4 py-2 shadow-md print:hidden"
  aria-label="Metronome"
>
  <button type="button" class="action" aria-pressed={metronome.isOn} onclick={() => void start()}
    >{metronome.isOn ? 'Stop' : 'Start'}</button
  >
  <label class="flex items-center gap-2 text-sm"
    >Tempo <input
      type="number"
      class="field w-20 font-mono"
      min={SLOWEST}
      max={FASTEST}
      bind:value={tempo}
      onchange={() => {
        tempo = Math.min(FASTEST, Math.max(SLOWEST, Number(tempo) || SLOWEST));
        void restart();
      }}
    /></label
  >
  <label class="flex items-center gap-2 text-sm"
    >Beats <select class="field" bind:value={beats} onchange={() => void restart()}>
      {#each [2, 3, 4, 5, 6, 7] as count (count)}<option value={count}>{count}</option>{/each}
    </select></label
  >
  <button type="button" class="link text-sm" onclick={tap}>Tap the beat</button>
  <button
    type="button"
    class="flex h-8 w-8 items-center justify-center"
    aria-label="Close the metronome"
    onclick={close}><X size={18} aria-hidden="true" /></button
  >
</section>
