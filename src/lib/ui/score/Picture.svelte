<script lang="ts">
  /** One engraved phrase. What is chosen in it is marked without drawing it again. */
  interface Props {
    /** Undefined while it is drawn for the first time. */
    svg: string | undefined;
    selected?: string | undefined;
    /** Ids of everything that is chosen, where it is more than one note. */
    chosen?: ReadonlySet<string>;
    /** The measure in hand, or the measures that are chosen, by index. */
    current?: number | { readonly from: number; readonly to: number } | undefined;
    /** Ids of notes that sound. */
    sounding?: ReadonlySet<string> | undefined;
    /** Measures that are marked for what is said of them, by index. */
    marked?: ReadonlySet<number>;
    /** Ids of notes that were not played as they stand. */
    slipped?: readonly string[];
    label: string;
  }
  let { svg, selected, chosen, current, marked, sounding, slipped, label }: Props = $props();
  let element = $state<HTMLElement>();
  /** In sight, or about to be. What is not is kept as text that is neither laid out nor painted. */
  let isNear = $state(true);

  $effect(() => {
    if (!element) return;
    const observer = new IntersectionObserver(([entry]) => (isNear = entry?.isIntersecting ?? true), {
      rootMargin: '250px',
    });
    observer.observe(element);
    return () => observer.disconnect();
  });

  $effect(() => {
    if (svg) performance.mark('picture');
  });

  $effect(() => {
    void svg;
    if (!element) return;
    for (const note of element.querySelectorAll('.note.selected')) note.classList.remove('selected');
    if (selected) element.querySelector(`[data-id="${CSS.escape(selected)}"]`)?.classList.add('selected');
    for (const area of element.querySelectorAll<SVGElement>('.measure-area'))
      area.classList.toggle('current', isCurrent(Number(area.dataset.measure)));
  });

  const isCurrent = (measure: number): boolean =>
    marked?.has(measure) === true ||
    (typeof current === 'object' ? current.from <= measure && measure <= current.to : measure === current);

  $effect(() => {
    void svg;
    if (!element) return;
    for (const note of element.querySelectorAll('.note.chosen')) note.classList.remove('chosen');
    for (const id of chosen ?? [])
      element.querySelector(`[data-id="${CSS.escape(id)}"]`)?.classList.add('chosen');
  });

  $effect(() => {
    void svg;
    if (!element) return;
    for (const note of element.querySelectorAll('.note.slipped')) note.classList.remove('slipped');
    for (const id of slipped ?? [])
      element.querySelector(`[data-id="${CSS.escape(id)}"]`)?.classList.add('slipped');
  });

  $effect(() => {
    void svg;
    if (!element) return;
    for (const note of element.querySelectorAll('.note.sounding')) note.classList.remove('sounding');
    for (const id of sounding ?? [])
      element.querySelector(`[data-id="${CSS.escape(id)}"]`)?.classList.add('sounding');
  });
</script>

<div class="sheet" class:far={!isNear} bind:this={element} role="img" aria-label={label}>
  {#if svg}
    <!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by our own engraver from our own MusicXML -->
    {@html svg}
  {:else}
    <div class="h-44" aria-hidden="true"></div>
  {/if}
</div>
