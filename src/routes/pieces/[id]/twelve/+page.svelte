<script lang="ts">
  let { data } = $props();
</script>

<svelte:head><title>{data.piece.title} in all keys · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-6xl px-7 py-7 print:p-0">
  <h1>{data.piece.title} in all twelve keys</h1>
  <p class="mb-4 flex flex-wrap gap-5 text-quiet print:hidden">
    A slash is a beat.
    <button type="button" class="link" onclick={() => window.print()}>Print the set</button>
    <a class="link" href="/pieces/{data.piece.id}/twelve/set" data-sveltekit-reload>Download (ChordPro)</a>
    <a class="link" href="/pieces/{data.piece.id}">Back to the piece</a>
  </p>
  {#if data.piece.rights === 'not known'}
    <p class="mb-3 text-sm text-quiet">
      Arranging and copying a protected piece may need permission, depending on local law.
    </p>
  {/if}
  <div class="grid gap-x-10 gap-y-7 lg:grid-cols-2 print:block">
    {#each data.charts as { key, text } (key)}
      <section aria-label={key} class="min-w-0 print:mb-6 print:break-inside-avoid">
        <h2>{key}</h2>
        <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
        <pre
          class="mt-1 overflow-x-auto font-mono text-xs leading-snug"
          tabindex="0"
          aria-label="Chart in {key}">{text}</pre>
      </section>
    {/each}
  </div>
</main>
