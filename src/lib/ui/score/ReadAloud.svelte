<script lang="ts">
  /** Music that stands on pages as a picture, walked by the arrows and read out note by note. Fetched when it is first asked for. */
  import type { Reading } from '$core/version/announce';
  import { readingMove, walkReading } from './walkReading';

  let { at, label }: { at: string; label: string } = $props();

  let reading = $state.raw<readonly Reading[]>();
  let current = $state<string>();
  let problem = $state('');
  const text = $derived(problem || (reading?.find((r) => r.id === current)?.text ?? ''));

  async function load(): Promise<void> {
    if (reading) return;
    try {
      const answer = await fetch(at);
      if (!answer.ok) throw new Error(String(answer.status));
      reading = (await answer.json()) as Reading[];
      current = walkReading(reading, undefined, 'next')?.id;
    } catch (error) {
      console.error(error);
      problem = 'The music couldn’t be loaded. Try again.';
    }
  }
  function onkeydown(event: KeyboardEvent): void {
    const move = readingMove(event);
    if (!move || !reading) return;
    event.preventDefault();
    current = walkReading(reading, current, move)?.id;
  }
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
<div
  role="application"
  aria-label="{label}: arrow keys read it note by note"
  tabindex="0"
  class="sr-only focus:not-sr-only focus:my-2 focus:rounded-md focus:bg-accent-soft focus:px-3 focus:py-2"
  onfocus={() => void load()}
  {onkeydown}
>
  <p aria-live="polite">{text || 'Loading the music…'}</p>
</div>
