<script lang="ts">
  /** What else would do in a measure for one hand, named by what it trades; one click takes it. */
  import type { Note } from '$core/score/score';
  import type { MeasureFingering } from '$core/version/why';
  import { perform } from './commands';
  import { getBench } from './state/bench.svelte';

  interface Props {
    /** The present fingering first. */
    list: readonly MeasureFingering[];
    /** Struck notes of the hand, in order. */
    notes: readonly Note[];
  }
  let { list, notes }: Props = $props();
  const bench = getBench();
  const shown = $derived(list.slice(1));
  const digits = ({ fingers }: MeasureFingering): string =>
    notes
      .map((n) => fingers[n.id] ?? '')
      .join(' ')
      .trim();

  function take({ fingers }: MeasureFingering): void {
    const { version } = bench.view;
    perform(bench, {
      do: 'decide all',
      decisions: Object.entries(fingers)
        .filter(([id, finger]) => version?.fingers[id]?.finger !== finger)
        .map(([note, value]) => ({ kind: 'finger' as const, at: { note }, value })),
    });
  }
</script>

{#if shown.length > 0}
  <ul class="mt-2 grid gap-1 text-sm">
    {#each shown as other (other.name)}
      <li
        class="grid grid-cols-[minmax(0,1fr)_auto_auto] items-baseline gap-x-3 {bench.sound.fingers ===
        other.fingers
          ? 'bg-accent-soft'
          : ''}"
      >
        <span
          ><span class="font-mono">{digits(other)}</span> <span class="text-quiet">{other.name}</span></span
        >
        <button
          type="button"
          class="link"
          aria-label="Hear {digits(other)}: {other.name}"
          onclick={() => perform(bench, { do: 'hear', fingering: other })}>Hear</button
        >
        <button
          type="button"
          class="link"
          aria-label="Take {digits(other)}: {other.name}"
          onclick={() => take(other)}>Take</button
        >
      </li>
    {/each}
  </ul>
{/if}
