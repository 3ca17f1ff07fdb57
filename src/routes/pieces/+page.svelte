<script lang="ts">
  import { page } from '$app/state';
  import { levelText } from '$core/arrange/levels';
  import Discard from '$ui/form/Discard.svelte';
  import Bring from '$ui/piece/Bring.svelte';
  import { filtered, filterOptions, NO_FILTER, type PieceFilter } from '$ui/piece/filter';
  import { metreText, plural } from '$ui/text';

  let { data } = $props();

  type Listed = (typeof data.pieces)[number];
  const ANY = '';
  let filter = $state<PieceFilter>({ ...NO_FILTER });
  /** What can be chosen of each: only what some piece has. */
  const options = $derived(filterOptions(data.pieces));
  const found = $derived(filtered(data.pieces as readonly Listed[], filter));
  const isFiltered = $derived(Object.values(filter).some((value) => value !== ANY && value !== false));
</script>

<svelte:head><title>Pieces · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-5xl px-7 py-7">
  <div class="flex flex-wrap items-baseline gap-x-5">
    <h1>Pieces</h1>
    <a class="link" href="/pieces/requests">Requests</a>
  </div>
  <div class="mt-5"><Bring rights={data.rights} message={page.form?.message} /></div>

  {#if data.pieces.length > 3}
    <form
      class="mt-6 flex flex-wrap items-end gap-x-4 gap-y-2 text-sm"
      role="search"
      aria-label="Pieces"
      onsubmit={(event) => event.preventDefault()}
    >
      <label class="grid text-quiet"
        >Search<input
          class="field w-44 text-base text-ink"
          type="search"
          placeholder="title, or 6 4 1 5"
          bind:value={filter.text}
        /></label
      >
      {#each options as { name, key, values } (key)}
        {#if values.length > 1}
          <label class="grid text-quiet"
            >{name}
            <select class="field text-base text-ink" aria-label={name} bind:value={filter[key]}>
              <option value="">any</option>
              {#each values as [value, label] (value)}<option {value}>{label}</option>{/each}
            </select></label
          >
        {/if}
      {/each}
      <label class="flex min-h-9 items-center gap-2 text-base"
        ><input type="checkbox" class="tick" bind:checked={filter.unsigned} /> Drafts only</label
      >
      <label class="flex min-h-9 items-center gap-2 text-base"
        ><input type="checkbox" class="tick" bind:checked={filter.lately} /> Recent first</label
      >
      {#if isFiltered}
        <button type="button" class="link min-h-8" onclick={() => (filter = { ...NO_FILTER })}
          >Clear filters</button
        >
      {/if}
      <p class="w-full text-quiet" role="status">
        {isFiltered
          ? `${found.length} of ${plural(data.pieces.length, 'piece')}`
          : plural(data.pieces.length, 'piece')}
      </p>
    </form>
  {/if}

  <ul class="mt-2">
    {#each found as piece (piece.id)}
      <li
        class="grid gap-x-4 gap-y-1 border-t border-hairline py-3.5 sm:grid-cols-[minmax(0,1fr)_auto] sm:gap-4"
      >
        <div>
          <a href="/pieces/{piece.id}" class="text-lg font-semibold hover:text-accent">{piece.title}</a>
          {#if 'problem' in piece}
            <div class="text-alarm">
              It can’t be read: {piece.problem}
              <a class="link" href="/pieces/{piece.id}/source">Download its file</a>
              <Discard kind="piece" id={piece.id} label={piece.title} />
            </div>
          {:else}
            <p class="text-quiet">
              {piece.key}, {metreText(piece.time)}. {piece.newMeasures} of {plural(piece.measures, 'measure')} are
              new.{piece.learners.length > 0 ? ` Current piece of ${piece.learners.join(', ')}.` : ''}
            </p>
          {/if}
        </div>
        <p class="text-quiet sm:text-right">
          {#each piece.levels as { level, count, newest } (level)}
            <a
              class="link ml-4 max-sm:first:ml-0"
              href={count === 1 ? `/versions/${newest}` : `/pieces/${piece.id}#versions`}
              >level {levelText(level)}{count > 1 ? `, ${count} versions` : ''}</a
            >
          {:else}
            no version yet
          {/each}
        </p>
      </li>
    {:else}
      <li class="border-t border-hairline py-4 text-quiet">
        {data.pieces.length > 0
          ? 'No pieces match.'
          : 'Your pieces appear here, each with its versions. Add the first one above.'}
      </li>
    {/each}
  </ul>
</main>
