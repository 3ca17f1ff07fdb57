<script lang="ts">
  /** What is decided about the note in hand, and its keys as small buttons. */
  import { decisionText } from '$core/decisions/registry';
  import { noteKinds, perform } from './commands';
  import FingerPad from './FingerPad.svelte';
  import { keyText } from '$ui/form/press';
  import { getBench } from './state/bench.svelte';

  let { note, hand }: { note: string; hand: 'right' | 'left' } = $props();

  const bench = getBench();
  const made = $derived(bench.document.decisions.filter((d) => 'note' in d.at && d.at.note === note));
  /** What is wanted most often; everything else is in the list that Enter opens. */
  const ALL = noteKinds().flatMap((kind) =>
    kind.stands?.note ? (kind.keys ?? []).map((key) => ({ kind, ...key })) : [],
  );
  const isInChord = $derived.by(() => {
    const notes = bench.view.version?.score.parts[0]?.notes ?? [];
    const own = notes.find((n) => n.id === note);
    return notes.some((n) => n.id !== note && n.onset === own?.onset && n.staff === own.staff);
  });
  const keys = $derived(ALL.filter(({ kind }) => isInChord || kind.stands?.note !== 'of chords'));
</script>

<div class="mt-1.5 max-desk:hidden"><FingerPad {note} {hand} /></div>
{#if made.length > 0}
  <p class="mt-1 text-sm">
    Your choice: {made.map(decisionText).join(', ')}.
    <button type="button" class="link" onclick={() => perform(bench, { do: 'give note back' })}>
      Reset <kbd class="font-mono">0</kbd>
    </button>
  </p>
{:else}
  <p class="mt-1 text-sm text-quiet pointer-coarse:hidden">
    Suggested. Press <kbd class="font-mono">1</kbd>–<kbd class="font-mono">5</kbd> to change.
  </p>
{/if}
<ul class="mt-1 flex flex-wrap gap-1 text-sm" aria-label="Shortcuts for this note">
  {#each keys as { kind, press, does } (press)}
    <li>
      <button
        type="button"
        class="min-h-6 min-w-7 rounded-sm border border-hairline px-1.5 font-mono hover:border-ink"
        title={does}
        aria-label={does}
        onclick={() => perform(bench, { do: 'decide by key', kind: kind.id, press })}
        ><span class="pointer-coarse:hidden">{keyText(press)}</span><span
          class="hidden font-sans pointer-coarse:inline">{does}</span
        ></button
      >
    </li>
  {/each}
</ul>
