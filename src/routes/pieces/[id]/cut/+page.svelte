<script lang="ts">
  import { numberText } from '$ui/text';
  /** A piece that is too long for the bench: its sections, each to be made a piece of its own. */
  import { enhance } from '$app/forms';
  import Once from '$ui/form/Once.svelte';

  let { data, form } = $props();
  const number = numberText;
</script>

<svelte:head><title>Sections of {data.piece.title} · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-3xl px-4 py-7 sm:px-7">
  <p><a class="text-quiet hover:text-ink" href="/pieces/{data.piece.id}">{data.piece.title}</a></p>
  <h1>Sections as pieces</h1>
  <p class="mt-1">
    {#if data.isTooLong && data.weight}
      This piece has {number(data.weight.notes)} notes in {number(data.weight.measures)} measures; the bench opens
      up to {number(data.most.notes)} notes and {number(data.most.measures)} measures. Make a piece of one section
      and arrange that.
    {:else}
      Make a piece of one section and arrange that.
    {/if}
  </p>
  {#if form?.message}<p class="mt-2 text-alarm" role="alert">{form.message}</p>{/if}
  {#await data.sections}
    <p class="mt-4 text-quiet" role="status">Looking for the sections…</p>
  {:then sections}
    <ul class="mt-4">
      {#each sections as { from, to, name, measures } (from)}
        <li class="flex flex-wrap items-baseline gap-x-4 border-t border-hairline py-2">
          {#if name}<strong class="font-semibold">{name}</strong>{/if}
          <span class="text-quiet">{measures}</span>
          <form method="post" use:enhance class="ml-auto">
            <Once />
            <input type="hidden" name="from" value={from} />
            <input type="hidden" name="to" value={to} />
            <button class="link min-h-6" aria-label="Make a piece of {name ? `${name}, ` : ''}{measures}"
              >Make a piece</button
            >
          </form>
        </li>
      {/each}
    </ul>
  {:catch problem}
    <p class="mt-4 text-alarm" role="alert">{problem.message}</p>
  {/await}
</main>
