<script lang="ts">
  /** Hearing the version: from here, round a phrase, one hand or both, as slowly as is wanted. */
  import type { Hands } from '$core/performance';
  import { tempoText } from '$ui/text';
  import Play from '@lucide/svelte/icons/play';
  import Repeat from '@lucide/svelte/icons/repeat';
  import Square from '@lucide/svelte/icons/square';
  import { CREDIT } from '$ui/sound/samples';
  import { untrack } from 'svelte';
  import { perform } from './commands';
  import { FASTEST, SLOWEST } from './state/sound.svelte';
  import { getBench } from './state/bench.svelte';

  let isPrepared = false;
  const bench = getBench();
  const { sound, view } = bench;
  const version = $derived(view.version);
  const tempo = $derived(
    version ? tempoText(version.score.measures[0]!.time, version.score.tempo * sound.share) : '',
  );
  const HANDS: readonly { value: Hands; says: string }[] = [
    { value: 'left', says: 'left' },
    { value: 'both', says: 'both' },
    { value: 'right', says: 'right' },
  ];

  // What changes while it sounds is heard from the next note on.
  $effect(() => {
    void [sound.hands, sound.click];
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

<div class="grid w-[23.5rem] shrink-0 gap-y-1 text-sm" role="group" aria-label="Hearing it">
  <div class="flex items-center gap-3">
    <button
      class="flex h-9 items-center gap-2 rounded-full bg-accent px-4 font-semibold text-white disabled:opacity-50"
      disabled={!version}
      onclick={() => perform(bench, { do: 'play' })}
    >
      {#if sound.isPlaying}<Square size={14} aria-hidden="true" /> Stop{:else}<Play
          size={15}
          aria-hidden="true"
        /> Play{/if}
    </button>
    <button
      class="flex h-9 items-center gap-1.5 border-b-2 px-1 {sound.loops
        ? 'border-accent text-ink'
        : 'border-transparent text-quiet hover:text-ink'}"
      aria-pressed={sound.loops}
      onclick={() => perform(bench, { do: 'loop' })}
    >
      <Repeat size={15} aria-hidden="true" /> <span class="whitespace-nowrap">this phrase</span>
    </button>
    <div class="ml-auto flex" role="radiogroup" aria-label="Hands that are heard">
      {#each HANDS as { value, says } (value)}
        <button
          role="radio"
          aria-checked={sound.hands === value}
          class="h-8 border-b-2 px-1.5 {sound.hands === value
            ? 'border-accent bg-accent-soft text-ink'
            : 'border-transparent text-quiet hover:text-ink'}"
          onclick={() => (sound.hands = value)}
        >
          {says}
        </button>
      {/each}
    </div>
  </div>
  <label class="flex items-center gap-3">
    <span class="w-[8.5rem] whitespace-nowrap">{tempo}, {Math.round(100 * sound.share)} %</span>
    <input
      type="range"
      class="min-w-0 flex-1 accent-accent"
      aria-label="Tempo, in percent of the goal"
      min={100 * SLOWEST}
      max={100 * FASTEST}
      step="5"
      value={100 * sound.share}
      oninput={(event) => sound.setShare(Number(event.currentTarget.value) / 100)}
    />
  </label>
  <div class="flex items-center gap-4">
    <label class="flex items-center gap-1.5"
      ><input type="checkbox" class="accent-accent" bind:checked={sound.click} /> click</label
    >
    <label class="flex items-center gap-1.5"
      ><input type="checkbox" class="accent-accent" bind:checked={sound.countIn} /> a measure before</label
    >
    <a class="ml-auto text-quiet underline" href={CREDIT.url} title="{CREDIT.what}, {CREDIT.licence}"
      >About the piano</a
    >
  </div>
</div>
{#if sound.silence}<p class="max-w-52 text-sm text-alarm" role="status">{sound.silence}</p>{/if}
