<script lang="ts">
  import { goto } from '$app/navigation';
  import { toScore } from '$core/compose/toScore';
  import type { Sketch } from '$core/compose/sketch';
  import { writeMusicXml } from '$core/io/musicxml/write';
  import Composer from '$ui/compose/Composer.svelte';
  import TypedMusic from '$ui/compose/TypedMusic.svelte';
  import { formToken } from '$ui/form/token';
  import { keep, look } from '$ui/piece/bring';

  let { data } = $props();
  let way = $state<'notes' | 'text'>('notes');
  /** Keeping the same tune twice keeps one piece. */
  const once = formToken();

  async function keepSketch(sketch: Sketch, rights: string): Promise<void> {
    const file = new File([writeMusicXml(toScore(sketch))], `${sketch.title}.musicxml`, {
      type: 'application/xml',
    });
    const { choices } = await look(file);
    const { title, composer } = sketch;
    await goto(await keep(file, { title, composer, rights, parts: choices }, once), {
      invalidateAll: true,
    });
  }
</script>

<svelte:head><title>A new piece · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-6xl px-7 py-6">
  <div class="mb-4 flex flex-wrap items-baseline gap-x-6">
    <h1>A new piece</h1>
    <div class="flex" role="radiogroup" aria-label="How it is written">
      {#each [['notes', 'Note by note'], ['text', 'As text']] as const as [value, name] (value)}
        <button
          type="button"
          role="radio"
          aria-checked={way === value}
          class="border-b-2 px-2 py-1 {way === value
            ? 'border-accent bg-accent-soft'
            : 'border-transparent text-quiet hover:text-ink'}"
          onclick={() => (way = value)}>{name}</button
        >
      {/each}
    </div>
  </div>
  {#if way === 'notes'}
    <Composer onkeep={keepSketch} rights={data.rights} simulated={data.simulated} />
  {:else}
    <TypedMusic rights={data.rights} />
  {/if}
</main>
