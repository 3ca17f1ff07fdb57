<script lang="ts">
  /** A strip of the source at the foot of the page: the phrase of the measure that was asked for, engraved. */
  import type { Form } from '$core/analysis/form';
  import { sheetSchema, type Sheet } from '$lib/engrave/sheet';
  import SheetView from '$ui/score/Sheet.svelte';
  import { capital, measuresText } from '$ui/text';
  import ChevronLeft from '@lucide/svelte/icons/chevron-left';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import X from '@lucide/svelte/icons/x';

  interface Props {
    pieceId: string;
    form: Form;
    numbers: readonly string[];
    measure: number;
    /** Ids of notes that were put right: they are marked. */
    mended: ReadonlySet<string>;
    onmove: (measure: number) => void;
    onclose: () => void;
  }
  let { pieceId, form, numbers, measure, mended, onmove, onclose }: Props = $props();

  const WIDTH = 1080;
  const index = $derived(form.phrases.findIndex((p) => p.from <= measure && measure <= p.to));
  const phrase = $derived(form.phrases[index]);
  const label = $derived(phrase ? measuresText(numbers, phrase.from, phrase.to) : '');
  let sheet = $state.raw<Sheet>();
  let problem = $state('');
  let height = $state(0);

  $effect(() => {
    const wanted = phrase;
    if (!wanted) return;
    fetch(`/pieces/${pieceId}/music?from=${wanted.from}&to=${wanted.to}&width=${WIDTH}`)
      .then(async (response) => {
        if (!response.ok) throw new Error('These measures couldn’t be loaded.');
        return sheetSchema.parse(await response.json());
      })
      .then(
        (loaded) => {
          if (wanted === phrase) [sheet, problem] = [loaded, ''];
        },
        (error: unknown) => {
          if (wanted === phrase) problem = error instanceof Error ? error.message : String(error);
        },
      );
  });
</script>

<svelte:window onkeydown={(event) => event.key === 'Escape' && onclose()} />

<!-- The page ends above the strip. -->
<div style:height="{height}px" aria-hidden="true"></div>
{#if phrase}
  <section
    class="fixed inset-x-0 bottom-0 z-20 border-t border-hairline bg-paper"
    aria-label="The music of {label}"
    bind:clientHeight={height}
  >
    <div class="mx-auto max-w-6xl px-7 pt-2 pb-3">
      <div class="flex items-center gap-2">
        <h2 class="mr-2">{capital(label)}</h2>
        <span class="text-quiet">{form.sections[phrase.section]!.label}</span>
        <button
          class="step ml-auto"
          aria-label="Previous phrase"
          disabled={index === 0}
          onclick={() => onmove(form.phrases[index - 1]!.from)}><ChevronLeft size={18} /></button
        >
        <button
          class="step"
          aria-label="Next phrase"
          disabled={index === form.phrases.length - 1}
          onclick={() => onmove(form.phrases[index + 1]!.from)}><ChevronRight size={18} /></button
        >
        <button class="step" aria-label="Close the music" onclick={onclose}><X size={18} /></button>
      </div>
      <div class="max-h-[38vh] overflow-y-auto">
        {#if problem}
          <p class="text-alarm" role="alert">{problem}</p>
        {:else if sheet}
          <SheetView {sheet} chosen={mended} current={measure} label="The music of {label}" />
        {/if}
      </div>
    </div>
  </section>
{/if}

<style>
  .step {
    display: inline-grid;
    place-items: center;
    width: 2rem;
    height: 2rem;
    border-radius: 1rem;
  }
  .step:hover:not(:disabled) {
    background: var(--color-accent-soft);
  }
  .step:disabled {
    opacity: 0.35;
  }
</style>
