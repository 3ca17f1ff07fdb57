<script lang="ts">
  /** Hearing the version: from here, round what is chosen, one hand or both, as slowly as is wanted. */
  import type { Hands } from '$core/performance/program';
  import { tempoText } from '$ui/text';
  import Play from '@lucide/svelte/icons/play';
  import SlidersHorizontal from '@lucide/svelte/icons/sliders-horizontal';
  import Repeat from '@lucide/svelte/icons/repeat';
  import Square from '@lucide/svelte/icons/square';
  import { CREDIT } from '$ui/sound/samples';
  import { untrack } from 'svelte';
  import { perform } from './commands';
  import { scopeText } from './scopeText';
  import { FASTEST, SLOWEST } from '$ui/sound/sound.svelte';
  import { getBench } from './state/bench.svelte';

  let isPrepared = false;
  /** On a narrow screen the options wait behind a button. */
  let showsAll = $state(false);
  const bench = getBench();
  const { sound, view, selection, trial } = bench;
  const version = $derived(view.version);
  const tempo = $derived(
    version ? tempoText(version.score.measures[0]!.time, version.score.tempo * sound.share) : '',
  );
  const isLong = $derived(selection.range !== undefined && selection.range.from !== selection.range.to);
  const HANDS: readonly { value: Hands; says: string }[] = [
    { value: 'right', says: 'right' },
    { value: 'left', says: 'left' },
    { value: 'both', says: 'both' },
  ];

  // What changes while it sounds is heard from the next note on.
  $effect(() => {
    void [sound.hands, sound.click, sound.speaks];
    untrack(() => void sound.renew());
  });
  $effect(() => {
    void version;
    untrack(() => sound.versionChanged());
  });
  // When there is nothing else to do.
  $effect(() => {
    if (!version || isPrepared) return;
    isPrepared = true;
    const prepare = (): void => void sound.prepare().catch(() => undefined);
    if ('requestIdleCallback' in window) requestIdleCallback(prepare, { timeout: 5000 });
    else setTimeout(prepare, 2000);
  });
  $effect(() => () => sound.stop());
</script>

<div
  class="grid w-[18.5rem] shrink-0 gap-y-0.5 text-sm max-desk:w-full max-desk:gap-y-2"
  role="group"
  aria-label="Playback"
>
  <div class="flex items-center gap-3">
    <button
      class="flex h-9 w-9 shrink-0 pointer-coarse:h-11 pointer-coarse:w-11 items-center justify-center rounded-full bg-accent text-on-accent disabled:opacity-50"
      aria-label={sound.isPlaying ? 'Stop' : 'Play'}
      title="{sound.isPlaying ? 'Stop' : 'Play from here'} (Space)"
      disabled={!version}
      onclick={() => perform(bench, { do: 'play' })}
    >
      {#if sound.isPlaying}<Square size={14} aria-hidden="true" />{:else}<Play
          size={16}
          aria-hidden="true"
        />{/if}
    </button>
    <div class="min-w-0 flex-1">
      <p class="flex justify-between">
        <span class="whitespace-nowrap">{tempo}, {Math.round(100 * sound.share)}%</span>
        <button
          class="flex items-center gap-1 border-b-2 {sound.loops
            ? 'border-accent text-ink'
            : 'border-transparent text-quiet hover:text-ink'}"
          aria-pressed={sound.loops}
          onclick={() => perform(bench, { do: 'loop' })}
        >
          <Repeat size={14} aria-hidden="true" />
          <span class="max-w-32 truncate">{isLong ? scopeText(bench, 'range') : 'this phrase'}</span>
        </button>
      </p>
      <input
        type="range"
        class="block w-full accent-accent"
        aria-label="Tempo, percent of goal"
        min={100 * SLOWEST}
        max={100 * FASTEST}
        step="5"
        value={100 * sound.share}
        oninput={(event) => sound.setShare(Number(event.currentTarget.value) / 100)}
      />
    </div>
    <button
      type="button"
      class="flex h-9 w-9 shrink-0 items-center justify-center pointer-coarse:h-11 pointer-coarse:w-11 desk:hidden"
      aria-expanded={showsAll}
      aria-label="Playback options"
      onclick={() => (showsAll = !showsAll)}><SlidersHorizontal size={18} aria-hidden="true" /></button
    >
  </div>
  <div class="flex items-center justify-between gap-2 {showsAll ? '' : 'max-desk:hidden'}">
    <div class="flex" role="radiogroup" aria-label="Hands to play">
      {#each HANDS as { value, says } (value)}
        <button
          role="radio"
          aria-checked={sound.hands === value}
          class="h-7 border-b-2 px-1.5 {sound.hands === value
            ? 'border-accent bg-accent-soft text-ink'
            : 'border-transparent text-quiet hover:text-ink'}"
          onclick={() => (sound.hands = value)}
        >
          {says}
        </button>
      {/each}
    </div>
    <label class="flex items-center gap-1"
      ><input type="checkbox" class="tick" bind:checked={sound.click} /> Metronome</label
    >
    <label class="flex items-center gap-1" title="The counts are spoken (K)"
      ><input type="checkbox" class="tick" bind:checked={sound.speaks} /> Counts</label
    >
  </div>
  <div
    class="flex items-center justify-between gap-3 {showsAll || trial.now || sound.silence
      ? ''
      : 'max-desk:hidden'}"
  >
    <label class="flex items-center gap-1"
      ><input type="checkbox" class="tick" bind:checked={sound.countIn} /> Count-in</label
    >
    {#if trial.now}
      <p class="flex min-w-0 items-center gap-2" role="status">
        <span class="truncate">Trying: {trial.now.name}</span>
        <button class="link" onclick={() => perform(bench, { do: 'take' })}>Use this</button>
      </p>
    {:else if sound.silence}<p class="min-w-0 truncate text-alarm" role="status" title={sound.silence}>
        {sound.silence}
      </p>
    {:else}
      <a class="text-quiet underline" href={CREDIT.url} title="{CREDIT.what}, {CREDIT.licence}"
        >About the piano</a
      >
    {/if}
  </div>
</div>
