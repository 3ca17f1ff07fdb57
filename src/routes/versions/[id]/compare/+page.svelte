<script lang="ts">
  /** Two versions phrase by phrase, one under the other; the measures in which they differ are marked, and said. */
  import { goto } from '$app/navigation';
  import Walked from '$ui/score/Walked.svelte';
  import { capital } from '$ui/text';

  let { data } = $props();
  const same = $derived(data.phrases.every((p) => p.differences.length === 0));
</script>

<svelte:head><title>{data.version.title}, two versions · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-5xl px-4 py-7 sm:px-7">
  <h1>{data.version.title}: two versions</h1>
  <div class="mt-2 flex flex-wrap items-center gap-5">
    <p><strong>{data.version.name}</strong> above</p>
    {#if data.other}
      <label class="flex items-center gap-2">
        below
        <select
          class="field"
          value={data.other.id}
          onchange={(event) => void goto(`?with=${event.currentTarget.value}`, { keepFocus: true })}
        >
          {#each data.others as { id, name } (id)}<option value={id}>{name}</option>{/each}
        </select>
      </label>
    {/if}
    <a class="link ml-auto" href="/versions/{data.version.id}">Back to the bench</a>
  </div>
  {#if !data.other}
    <p class="mt-4 text-quiet">
      This piece has only one version. Make another on the piece’s page to compare them here.
    </p>
  {:else if same && data.count <= data.most}
    <p class="mt-4">These versions are identical.</p>
  {/if}
  {#each data.phrases as phrase (phrase.from)}
    <section class="mt-5 border-t border-hairline pt-3" aria-label={phrase.name}>
      <h2>{phrase.heading ? `${phrase.heading}, ${phrase.name}` : capital(phrase.name)}</h2>
      {#each phrase.pictures as svg, i (i)}
        <Walked
          {svg}
          reading={phrase.readings[i] ?? []}
          marked={new Set(phrase.differences.flatMap((d) => (i === 0 ? d.measure : (d.other ?? []))))}
          label="{i === 0 ? data.version.name : (data.other?.name ?? '')}, {phrase.name}"
        />
      {/each}
      {#if phrase.differences.length > 0}
        <ul class="text-sm text-quiet">
          {#each phrase.says as line (line)}<li>{line}.</li>{/each}
        </ul>
      {:else}
        <p class="text-sm text-quiet">Identical.</p>
      {/if}
    </section>
  {/each}
  {#if data.other}
    <p class="mt-4 flex gap-5">
      {#if data.from > 0}
        <a class="link" href="?with={data.other.id}&phrase={Math.max(0, data.from - data.most)}"
          >Previous phrases</a
        >
      {/if}
      {#if data.from + data.most < data.count}
        <a class="link" href="?with={data.other.id}&phrase={data.from + data.most}">Next phrases</a>
      {/if}
    </p>
  {/if}
</main>
