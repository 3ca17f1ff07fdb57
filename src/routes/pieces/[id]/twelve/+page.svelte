<script lang="ts">
  let { data } = $props();
</script>

<svelte:head><title>{data.piece.title} in all keys · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-6xl px-4 py-7 sm:px-7 print:p-0">
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
  <div class="grid max-w-4xl gap-y-8 print:block">
    {#each data.charts as { key, sections } (key)}
      <section aria-label={key} class="min-w-0 break-inside-avoid print:mb-6">
        <h2>{key}</h2>
        {#each sections as { name, lines }, i (i)}
          {#if name}<h3 class="mt-1 text-sm text-quiet">{name}</h3>{/if}
          {#each lines as line, n (n)}
            <div class="flex flex-wrap items-start gap-y-1 py-1">
              {#each line as { signs, repeatStart, repeatEnd }, m (m)}
                <div
                  class="flex min-w-0 gap-x-1 border-ink px-1.5 {m === 0 && line.length > 4
                    ? 'grow-0'
                    : 'grow basis-36'} {m === 0 ? 'border-l' : ''} border-r"
                >
                  {#if repeatStart}<span aria-label="start repeat">:</span>{/if}
                  {#each signs as { sign, words }, k (k)}
                    <span class="min-w-0 flex-1">
                      <span class="block {sign === '/' ? 'text-quiet' : 'font-semibold'}">{sign}</span>
                      {#if words}<span class="block text-sm leading-tight text-quiet">{words}</span>{/if}
                    </span>
                  {/each}
                  {#if repeatEnd}<span aria-label="end repeat">:</span>{/if}
                </div>
              {/each}
            </div>
          {/each}
        {/each}
      </section>
    {/each}
  </div>
</main>
