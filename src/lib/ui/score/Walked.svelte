<script lang="ts">
  /** A picture of music that can be walked by the arrows and is read out, note by note, as on the bench. */
  import type { Reading } from '$core/version/announce';
  import type { ComponentProps } from 'svelte';
  import Picture from './Picture.svelte';
  import { readingMove, walkReading } from './walkReading';

  type Props = ComponentProps<typeof Picture> & { reading: readonly Reading[] };
  let { reading, label, ...picture }: Props = $props();

  let current = $state<string>();
  const text = $derived(reading.find((r) => r.id === current)?.text ?? '');

  function onkeydown(event: KeyboardEvent): void {
    const move = readingMove(event);
    if (!move) return;
    event.preventDefault();
    event.stopPropagation();
    current = walkReading(reading, current, move)?.id;
  }
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
<div role="application" aria-label="{label}: arrow keys move" tabindex="0" {onkeydown}>
  <Picture {...picture} {label} selected={current} />
  <p class="sr-only" aria-live="polite">{text}</p>
</div>
