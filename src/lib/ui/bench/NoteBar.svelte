<script lang="ts">
  /** On a narrow screen, between the music and what plays it: the selected note with its fingers and why, and what opens the rest. */
  import { pitchName } from '$core/theory/pitch';
  import type { Version } from '$core/version/realise';
  import { capital, measureText } from '$ui/text';
  import ChevronUp from '@lucide/svelte/icons/chevron-up';
  import FingerPad from './FingerPad.svelte';
  import { getBench } from './state/bench.svelte';

  interface Props {
    version: Version;
    isOpen: boolean;
    /** The fingers and the reason stand beside the note. */
    isBeside: boolean;
  }
  let { version, isOpen = $bindable(), isBeside }: Props = $props();

  const bench = getBench();
  const { selection } = bench;
  const note = $derived(selection.note);
  const measure = $derived(version.score.measures[selection.measure ?? 0]!);
  const why = $derived(bench.view.answer?.note === selection.id ? bench.view.answer?.why?.text : undefined);
</script>

<div class="bg-ground px-3 py-1.5 desk:hidden">
  <button
    type="button"
    class="flex min-h-11 w-full items-center gap-2 text-left"
    aria-expanded={isOpen}
    onclick={() => (isOpen = !isOpen)}
  >
    <span class="min-w-0 flex-1 text-sm leading-snug">
      <strong>{capital(measureText(measure.number))}</strong>
      <span class="line-clamp-2 text-quiet"
        >{isBeside && note
          ? pitchName(note.pitch)
          : (why ?? (note ? pitchName(note.pitch) : 'Tap a note.'))}</span
      >
    </span>
    <span class="sr-only">{isOpen ? 'Show less' : 'Show all options'}</span>
    <ChevronUp size={20} class={isOpen ? 'rotate-180' : ''} aria-hidden="true" />
  </button>
  {#if note && note.id in version.fingers && !isBeside}
    <FingerPad note={note.id} hand={note.staff === 1 ? 'right' : 'left'} />
  {/if}
</div>
