<script lang="ts">
  /** A level where it is chosen: two lines that say what it asks, and how the piece begins at it. */
  import { levelSays, type LevelContract } from '$core/arrange/levels';
  import Picture from '$ui/score/Picture.svelte';

  let { pieceId, level }: { pieceId: string; level: LevelContract } = $props();

  let svg = $state<string>();
  const says = $derived(levelSays(level));
  /** Between a choice and its picture, in milliseconds: whoever walks through the list waits for nothing. */
  const PAUSE = 250;

  $effect(() => {
    const wanted = level.level;
    const stop = new AbortController();
    const timer = setTimeout(() => {
      fetch(`/pieces/${pieceId}/begin?level=${wanted}`, { signal: stop.signal })
        .then(async (answer) => (answer.ok ? ((await answer.json()) as { svg: string }).svg : undefined))
        .then(
          (picture) => (svg = picture),
          (error: unknown) => {
            // Without the picture the two lines say what they say.
            if (!stop.signal.aborted) console.warn(error);
          },
        );
    }, PAUSE);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  });
</script>

<div class="mt-2 max-w-2xl" aria-live="polite">
  <p class="text-sm text-quiet">{says[0]}<br />{says[1]}</p>
  {#if svg}
    <div class="mt-1 border-y border-hairline bg-paper px-2">
      <Picture {svg} label="The beginning at level {level.level} ({level.name})" />
    </div>
  {/if}
</div>
