<script lang="ts">
  /** What can be decided about the note in hand, a button for each key of its kinds; fingers have their own row. */
  import { decisionText } from '$core/decisions/registry';
  import { noteKinds, perform } from './commands';
  import { keyText } from './keys';
  import { getBench } from './state/bench.svelte';

  let { note }: { note: string } = $props();

  const bench = getBench();
  const made = $derived(bench.document.decisions.filter((d) => 'note' in d.at && d.at.note === note));
  const keys = noteKinds()
    .filter((kind) => kind.id !== 'finger')
    .flatMap((kind) => (kind.keys ?? []).map((key) => ({ kind: kind.id, ...key })));
</script>

{#if made.length > 0}
  <p class="mt-1 text-sm">
    Decided: {made.map(decisionText).join(', ')}.
    <button type="button" class="link" onclick={() => perform(bench, { do: 'give note back' })}>
      Give it back <kbd class="font-mono">0</kbd>
    </button>
  </p>
{:else}
  <p class="mt-1 text-sm text-quiet">
    Proposed. <kbd class="font-mono">1</kbd>–<kbd class="font-mono">5</kbd> decides.
  </p>
{/if}
<ul class="mt-1 grid gap-0.5 text-sm">
  {#each keys as { kind, press, does } (press)}
    <li>
      <button type="button" class="link" onclick={() => perform(bench, { do: 'decide by key', kind, press })}
        >{does}</button
      >
      <kbd class="font-mono text-quiet">{keyText(press)}</kbd>
    </li>
  {/each}
</ul>
