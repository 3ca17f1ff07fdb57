<script lang="ts">
  /** After a touch: the five fingers beside the note that was tapped, and why it has the one it has. A tap elsewhere puts them away. */
  import { pitchName } from '$core/theory/pitch';
  import FingerPad from './FingerPad.svelte';
  import { getBench } from './state/bench.svelte';

  /** The music that scrolls, in which the note is. */
  let { music }: { music: HTMLElement | undefined } = $props();

  const bench = getBench();
  const { selection, view } = bench;
  const note = $derived(selection.note);
  const why = $derived(view.answer?.note === selection.id ? view.answer?.why?.text : undefined);

  /** Air between the note and the box, and between the box and the edge, in CSS pixels. */
  const [GAP, EDGE] = [18, 6];
  let width = $state(0);
  let height = $state(0);
  let place = $state<{ left: number; top: number }>();

  /** Above the note where there is room, else below it; never over an edge. */
  function placed(): typeof place {
    const head = music?.querySelector(`[data-id="${CSS.escape(selection.id ?? '')}"] .notehead`);
    if (!music || !head) return undefined;
    const [around, at] = [music.getBoundingClientRect(), head.getBoundingClientRect()];
    const middle = at.left + at.width / 2 - around.left;
    const most = music.clientWidth - width - EDGE;
    const [above, below] = [at.top - around.top - GAP - height, at.bottom - around.top + GAP];
    return {
      left: Math.max(EDGE, Math.min(most, middle - width / 2)) + music.scrollLeft,
      top: (above >= EDGE ? above : below) + music.scrollTop,
    };
  }
  $effect(() => {
    void [selection.id, view.pictures, width, height];
    place = placed();
  });
</script>

<svelte:window onresize={() => (place = placed())} />

{#if note && note.id in (view.version?.fingers ?? {})}
  <!-- What is tapped in it is no tap on the music. -->
  <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
  <div
    class="absolute z-10 max-w-[19rem] rounded-lg border border-ink bg-ground p-2 shadow-lg {place
      ? ''
      : 'invisible'}"
    style:left="{place?.left ?? 0}px"
    style:top="{place?.top ?? 0}px"
    bind:offsetWidth={width}
    bind:offsetHeight={height}
    onclick={(event) => event.stopPropagation()}
    onpointerdown={(event) => event.stopPropagation()}
  >
    <FingerPad note={note.id} hand={note.staff === 1 ? 'right' : 'left'} />
    <p class="mt-1 line-clamp-3 text-sm leading-snug">{why ?? pitchName(note.pitch)}</p>
  </div>
{/if}
