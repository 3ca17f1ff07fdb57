<script lang="ts">
  /** One engraved phrase. Keeps the old picture while a new one is drawn, so that nothing jumps. */
  import { draw } from '$lib/engrave/engraver';
  import type { Sheet } from '$lib/engrave/sheet';
  import { inTurn } from './turns';

  interface Props {
    /** The phrase, or how it is made: many on a page are made one after another. */
    sheet: Sheet | (() => Sheet);
    selected?: readonly string[];
    current?: number | undefined;
    label: string;
  }
  let { sheet, selected = [], current, label }: Props = $props();

  let svg = $state('');
  let problem = $state('');
  let element = $state<HTMLElement>();

  $effect(() => {
    const wanted = sheet;
    const show = (phrase: Sheet): void =>
      void draw(phrase).then(
        (picture) => {
          if (wanted === sheet) inTurn(() => ([svg, problem] = [picture, '']));
        },
        (error: unknown) => {
          if (wanted === sheet) problem = error instanceof Error ? error.message : String(error);
        },
      );
    if (typeof wanted === 'function') return inTurn(() => show(wanted()));
    show(wanted);
  });

  // Marks on the drawn page follow the selection without drawing it again.
  $effect(() => {
    void svg;
    if (!element) return;
    for (const note of element.querySelectorAll('.note.selected')) note.classList.remove('selected');
    for (const id of selected)
      element.querySelector(`[data-id="${CSS.escape(id)}"]`)?.classList.add('selected');
    for (const area of element.querySelectorAll<SVGElement>('.measure-area'))
      area.classList.toggle('current', Number(area.dataset.measure) === current);
  });
</script>

<div class="sheet" bind:this={element} role="img" aria-label={label}>
  {#if problem}
    <p class="text-alarm" role="alert">This phrase could not be drawn: {problem}</p>
  {:else}
    <!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by our own engraver from our own MusicXML -->
    {@html svg}
  {/if}
</div>
