<script lang="ts">
  /** What else would do in a measure for one hand, named by what it trades; one click takes it. */
  import type { Note } from '$core/score/score';
  import type { MeasureFingering } from '$core/version/why';
  import type { Bench } from './bench.svelte';

  interface Props {
    bench: Bench;
    /** The present fingering first. */
    ways: readonly MeasureFingering[];
    /** Struck notes of the hand, in order. */
    notes: readonly Note[];
  }
  let { bench, ways, notes }: Props = $props();
  const shown = $derived(ways.slice(1));
  const digits = ({ fingers }: MeasureFingering): string =>
    notes
      .map((n) => fingers[n.id] ?? '')
      .join(' ')
      .trim();

  function take({ fingers }: MeasureFingering): void {
    bench.decideAll(
      ...Object.entries(fingers)
        .filter(([id, finger]) => bench.version?.fingers[id]?.finger !== finger)
        .map(([note, finger]) => ({ kind: 'finger' as const, note, finger })),
    );
  }
</script>

{#if shown.length > 0}
  <ul class="mt-2 grid gap-1 text-sm">
    {#each shown as way (way.name)}
      <li class="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-2">
        <span><span class="font-mono">{digits(way)}</span> <span class="text-quiet">{way.name}</span></span>
        <button
          type="button"
          class="link"
          aria-label="Take {digits(way)}: {way.name}"
          onclick={() => take(way)}>Take</button
        >
      </li>
    {/each}
  </ul>
{/if}
