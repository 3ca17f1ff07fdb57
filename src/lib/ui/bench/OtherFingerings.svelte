<script lang="ts">
  /** What else would do in a measure for one hand, as badges, named by what it trades; heard or taken by one click. */
  import type { Note } from '$core/score/score';
  import type { MeasureFingering } from '$core/version/why';
  import Play from '@lucide/svelte/icons/play';
  import { perform } from './commands';
  import { getBench } from './state/bench.svelte';

  interface Props {
    /** The present fingering first. */
    list: readonly MeasureFingering[];
    /** Struck notes of the hand, in order. */
    notes: readonly Note[];
    hand: 'right' | 'left';
  }
  let { list, notes, hand }: Props = $props();
  const bench = getBench();
  const shown = $derived(list.slice(1));
  const fingersOf = ({ fingers }: MeasureFingering) => notes.flatMap((n) => fingers[n.id] ?? []);
  const digits = (other: MeasureFingering): string => fingersOf(other).join(' ');
  const now = $derived(notes.flatMap((n) => list[0]?.fingers[n.id] ?? []));

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
  <ul class="mt-1.5 grid gap-1 text-sm">
    {#each shown as other (other.name)}
      <li class="flex items-center gap-2 {bench.sound.fingers === other.fingers ? 'bg-accent-soft' : ''}">
        <button
          type="button"
          class="group flex min-w-0 flex-1 flex-wrap items-center gap-x-1 gap-y-0.5 text-left"
          aria-label="Use {digits(other)}: {other.name}"
          title="Use this fingering"
          onclick={() => take(other)}
        >
          {#each fingersOf(other) as finger, i (i)}
            {@const isNew = finger !== now[i]}
            <span
              class="inline-flex h-[21px] w-[21px] items-center justify-center border-[1.5px] bg-paper text-xs font-bold {hand ===
              'right'
                ? `rounded-full ${isNew ? 'border-plum text-plum' : ''}`
                : `rounded-[4px] ${isNew ? 'border-moss text-moss' : ''}`} {isNew
                ? ''
                : 'border-hairline text-quiet'}">{finger}</span
            >
          {/each}
          <span class="text-quiet group-hover:text-ink group-hover:underline">{other.name}</span>
        </button>
        <button
          type="button"
          class="flex h-7 w-7 shrink-0 items-center justify-center text-accent"
          aria-label="Listen to {digits(other)}: {other.name}"
          title="Listen"
          onclick={() => perform(bench, { do: 'hear', fingering: other })}
          ><Play size={15} aria-hidden="true" /></button
        >
      </li>
    {/each}
  </ul>
{/if}
