<script lang="ts">
  import { enhance } from '$app/forms';
  import { levelText } from '$core/arrange/levels';
  import { scoreOfWhole } from '$core/difficulty/level';
  import { keyName } from '$core/theory/key';
  import type { Version } from '$core/version/realise';
  import { sheetOf } from '$lib/engrave/sheet';
  import { startRealiser } from '$ui/bench/realiser';
  import Sheet from '$ui/score/Sheet.svelte';
  import { measuresText } from '$ui/text';
  import { onMount } from 'svelte';

  let { data, form } = $props();

  const WIDTH = 860;
  let versions = $state.raw<readonly (Version | undefined)[]>([]);
  let problem = $state('');
  let at = $state(0);

  onMount(() => {
    const realiser = startRealiser(data.source, data.levels);
    const { recipe, decisions } = data.version;
    void (async () => {
      try {
        const made: Version[] = [];
        for (const { level } of data.levels) {
          made.push(await realiser.realise({ ...recipe, level }, decisions));
          versions = [...made];
        }
      } catch (error) {
        problem = error instanceof Error ? error.message : String(error);
      }
    })();
    return () => realiser.stop();
  });

  const form0 = $derived(versions[0]?.form);
  const phrases = $derived(form0?.phrases ?? []);
  const phrase = $derived(phrases[Math.min(at, Math.max(0, phrases.length - 1))]);
  const numbers = $derived(versions[0]?.score.measures.map((m) => m.number) ?? []);
  const go = (by: number): void => void (at = Math.max(0, Math.min(phrases.length - 1, at + by)));
</script>

<svelte:head><title>{data.version.title} at all levels · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-6xl px-7 py-7">
  <h1>{data.version.title}, level by level</h1>
  <div class="mt-2 mb-4 flex flex-wrap items-center gap-5">
    {#if phrase}
      <label class="flex items-center gap-2 text-quiet">
        The same phrase
        <select class="field text-ink" bind:value={at}>
          {#each phrases as p, i (p.from)}
            <option value={i}>
              {form0?.sections[p.section]?.label}, {measuresText(numbers, p.from, p.to)}
            </option>
          {/each}
        </select>
      </label>
      <button type="button" class="link" disabled={at === 0} onclick={() => go(-1)}>Phrase before</button>
      <button type="button" class="link" disabled={at >= phrases.length - 1} onclick={() => go(1)}>
        Phrase after
      </button>
    {/if}
    <a class="link ml-auto" href="/versions/{data.version.id}">Back to the bench</a>
  </div>
  {#if problem}<p class="text-alarm" role="alert">The levels could not be made: {problem}</p>{/if}
  {#if form?.message}<p class="text-alarm" role="alert">{form.message}</p>{/if}

  <form method="post" action="?/set" use:enhance>
    <ol class="grid list-none gap-2">
      {#each data.levels as level, i (level.level)}
        {@const version = versions[i]}
        <li class="grid grid-cols-[13rem_minmax(0,1fr)] gap-5 border-t border-hairline py-3">
          <div class="text-[15px]">
            <h2 class="text-base">
              <label class="flex items-center gap-2">
                <input type="checkbox" name="level" value={level.level} class="h-5 w-5" />
                {levelText(level.level)}
                {level.name}
              </label>
            </h2>
            {#if version}
              <p class="text-quiet">{keyName(version.key)}, hard {scoreOfWhole(version.difficulty)} of 100</p>
              <p class="mt-1 text-sm text-quiet">{version.accountText}</p>
            {:else}
              <p class="text-quiet" role="status">arranging…</p>
            {/if}
            {#if data.made.includes(level.level)}<p class="mt-1 text-sm">has a version</p>{/if}
          </div>
          {#if version && phrase}
            <Sheet
              sheet={() =>
                sheetOf(version, phrase, { width: WIDTH, fingers: true, counts: false, chords: true })}
              label="Level {levelText(level.level)}, {measuresText(numbers, phrase.from, phrase.to)}"
            />
          {/if}
        </li>
      {/each}
    </ol>
    <p class="mt-4 flex items-center gap-4">
      <button class="action">Make versions of the ticked levels</button>
      <span class="text-sm text-quiet">Key, hands and decisions go with them.</span>
    </p>
  </form>
</main>
