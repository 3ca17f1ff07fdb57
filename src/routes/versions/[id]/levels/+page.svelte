<script lang="ts">
  import { enhance } from '$app/forms';
  import { goto } from '$app/navigation';
  import Once from '$ui/form/Once.svelte';
  import Walked from '$ui/score/Walked.svelte';
  import { measuresText } from '$ui/text';

  let { data, form } = $props();

  const phrases = $derived(data.first.form.phrases);
  const at = $derived(Math.max(0, Math.min(data.at, phrases.length - 1)));
  const phrase = $derived(phrases[at]);
  const numbers = $derived(data.first.numbers);
  const go = (to: number): void =>
    void goto(`?phrase=${to}`, { keepFocus: true, noScroll: true, replaceState: true });
  type Shown = typeof data.first;
</script>

<svelte:head><title>{data.version.title} at all levels · Key Path</title></svelte:head>

{#snippet facts(level: Shown, made: boolean)}
  <p class="text-quiet">{level.key}, difficulty {level.hard} of 100</p>
  <p class="mt-1 text-sm text-quiet">{level.account}</p>
  {#if made}<p class="mt-1 text-sm">version exists</p>{/if}
{/snippet}

{#snippet line(level: Shown, text: string)}
  {#if phrase}
    <Walked
      svg={level.picture}
      reading={level.reading}
      label="Level {text}, {measuresText(level.numbers, phrase.from, phrase.to)}"
    />
  {/if}
{/snippet}

<main id="main" class="mx-auto max-w-6xl px-4 py-7 sm:px-7">
  <h1>{data.version.title}: levels side by side</h1>
  <div class="mt-2 mb-4 flex flex-wrap items-center gap-5">
    {#if phrase}
      <label class="flex items-center gap-2 text-quiet">
        Same phrase
        <select class="field text-ink" value={at} onchange={(event) => go(Number(event.currentTarget.value))}>
          {#each phrases as p, i (p.from)}
            <option value={i}>
              {data.first.form.sections[p.section]?.label}, {measuresText(numbers, p.from, p.to)}
            </option>
          {/each}
        </select>
      </label>
      <button type="button" class="link" disabled={at === 0} onclick={() => go(at - 1)}
        >Previous phrase</button
      >
      <button type="button" class="link" disabled={at >= phrases.length - 1} onclick={() => go(at + 1)}>
        Next phrase
      </button>
    {/if}
    <a class="link ml-auto" href="/versions/{data.version.id}">Back to the bench</a>
  </div>
  {#if form?.message}<p class="text-alarm" role="alert">{form.message}</p>{/if}

  <form method="post" action="?/set" use:enhance>
    <Once />
    <ol class="grid list-none gap-2">
      {#each data.levels as level, i (level.level)}
        {@const made = data.made.includes(level.level)}
        <li class="grid gap-x-5 gap-y-2 border-t border-hairline py-3 sm:grid-cols-[13rem_minmax(0,1fr)]">
          <div class="text-[15px]">
            <h2 class="text-base">
              <label class="flex items-center gap-2">
                <input type="checkbox" name="level" value={level.level} class="tick" />
                {level.text}
                {level.name}
              </label>
            </h2>
            {#if i === 0}
              {@render facts(data.first, made)}
            {:else}
              {#await data.following[i - 1]}
                <p class="text-quiet" role="status">Arranging…</p>
              {:then shown}
                {#if shown}{@render facts(shown, made)}{/if}
              {:catch problem}
                <p class="text-alarm" role="alert">This level couldn’t be made: {problem.message}</p>
              {/await}
            {/if}
          </div>
          {#if i === 0}
            {@render line(data.first, level.text)}
          {:else}
            {#await data.following[i - 1] then shown}
              {#if shown}{@render line(shown, level.text)}{/if}
            {:catch}<span></span>{/await}
          {/if}
        </li>
      {/each}
    </ol>
    <p class="mt-4 flex items-center gap-4">
      <button class="action">Make versions of the checked levels</button>
      <span class="text-sm text-quiet">They keep the key, hands and choices.</span>
    </p>
  </form>
</main>
