<script lang="ts">
  /** The help, searched by typing: the shortcuts of some screens, what the path's stones mean, and ten short answers. */
  import { keyText } from '$ui/form/press';
  import { ANSWERS } from './answers';
  import type { Screen } from './screens';
  import Stones from './Stones.svelte';

  let { screens, level = 2 }: { screens: readonly Screen[]; level?: 2 | 3 } = $props();

  let sought = $state('');
  const words = $derived(sought.toLowerCase().split(/\s+/).filter(Boolean));
  const matches = (text: string): boolean => words.every((word) => text.toLowerCase().includes(word));
  const answers = $derived(ANSWERS.filter(({ asked, answer }) => matches(`${asked} ${answer}`)));
  const found = $derived(
    screens
      .map(({ name, shortcuts }) => ({
        name,
        shortcuts: shortcuts.filter(({ press, does }) => matches(`${does} ${keyText(press)}`)),
      }))
      .filter(({ shortcuts }) => shortcuts.length > 0),
  );
  const showsStones = $derived(matches('path stones measure learn hand tempo hard spot repeat filled'));
</script>

<input
  class="field w-full"
  type="search"
  aria-label="Search help"
  placeholder="Search help"
  data-keys-home
  bind:value={sought}
/>
<div class="mt-4 grid gap-6">
  {#each found as { name, shortcuts } (name)}
    <section>
      <svelte:element this={`h${level}`} class="font-bold">Shortcuts: {name}</svelte:element>
      <dl class="mt-1 grid grid-cols-[8rem_1fr] gap-y-1">
        {#each shortcuts as { press, does } (press)}
          <dt class="font-mono">{keyText(press)}</dt>
          <dd class="text-quiet">{does}</dd>
        {/each}
      </dl>
    </section>
  {/each}
  {#if showsStones}
    <section>
      <svelte:element this={`h${level}`} class="font-bold">The path</svelte:element>
      <p class="mt-1 text-quiet">A piece is one line of stones, a stone per measure.</p>
      <Stones />
    </section>
  {/if}
  {#if answers.length > 0}
    <section>
      <svelte:element this={`h${level}`} class="font-bold">Questions</svelte:element>
      {#each answers as { asked, answer } (asked)}
        <p class="mt-2 font-semibold">{asked}</p>
        <p>{answer}</p>
      {/each}
    </section>
  {/if}
  {#if found.length === 0 && !showsStones && answers.length === 0}
    <p class="text-quiet" role="status">Nothing found. Try another word.</p>
  {/if}
</div>
