<script lang="ts">
  /** What goes home on paper: the page as it will print, and what goes on it. */
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { keyName } from '$core/theory/key';
  import Path from '$ui/path/Path.svelte';
  import { measuresText, tempoText } from '$ui/text';
  import { tick } from 'svelte';

  let { data } = $props();
  const numbers = $derived(data.measures.map((m) => m.number));
  const time = $derived(data.measures.at(-1)!.time);

  function set(name: string, value: string): void {
    const url = new URL(page.url);
    url.searchParams.set(name, value);
    void goto(url, { replaceState: true, keepFocus: true, noScroll: true });
  }
  /** The same page from a phrase on. */
  function goesOnAt(phrase: number): string {
    const url = new URL(page.url);
    url.searchParams.set('phrase', String(phrase));
    return url.pathname + url.search;
  }
  const CONTENT = [
    { id: 'fingers', says: 'Fingers' },
    { id: 'counts', says: 'Counts' },
    { id: 'chords', says: 'Chord names' },
    { id: 'steps', says: 'Practice steps' },
  ] as const;
</script>

{#snippet music(phrases: typeof data.phrases)}
  {#each phrases as phrase (phrase.from)}
    <section class="break-inside-avoid">
      {#if phrase.heading}<h2 class="mt-2">{phrase.heading}</h2>{/if}
      <div class="sheet">
        <!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by our own engraver from our own MusicXML -->
        {@html phrase.svg}
      </div>
    </section>
  {/each}
{/snippet}

<svelte:head>
  <title>{data.title} · handout · Key Path</title>
  <!-- eslint-disable-next-line svelte/no-at-html-tags -- a style of two known values -->
  {@html `<style>@page { size: ${data.paper === 'a4' ? 'A4' : 'letter'}; margin: 14mm 13mm; }</style>`}
</svelte:head>

<header class="flex flex-wrap items-center gap-6 border-b border-hairline px-7 py-2.5 print:hidden">
  <a class="link" href="/versions/{data.id}">Back to the bench</a>
  <fieldset class="flex items-center gap-3">
    <legend class="sr-only">Paper</legend>
    {#each [['a4', 'A4'], ['letter', 'Letter']] as const as [value, name] (value)}
      <label class="flex min-h-6 items-center gap-1.5">
        <input
          type="radio"
          name="paper"
          {value}
          checked={data.paper === value}
          onchange={() => set('paper', value)}
        />
        {name}
      </label>
    {/each}
  </fieldset>
  <fieldset class="flex items-center gap-4">
    <legend class="sr-only">On the page</legend>
    {#each CONTENT as { id, says } (id)}
      <label class="flex min-h-6 items-center gap-1.5">
        <input
          type="checkbox"
          checked={data.shown[id]}
          onchange={(event) => set(id, event.currentTarget.checked ? 'yes' : 'no')}
        />
        {says}
      </label>
    {/each}
  </fieldset>
  <button
    type="button"
    class="action ml-auto"
    onclick={() => void data.others.then(() => tick()).then(() => window.print())}>Print</button
  >
</header>

<main
  id="main"
  class="paper mx-auto my-6 bg-paper px-[13mm] py-[14mm] print:m-0 print:w-auto print:p-0"
  style:width={data.paper === 'a4' ? '210mm' : '8.5in'}
>
  <header class="mb-3 flex items-baseline gap-4">
    <h1>{data.title}</h1>
    <p class="text-quiet">
      level {data.level}{data.earlier === null ? '' : `, as it was at change ${data.earlier}`}, {keyName(
        data.key,
      )}, goal {tempoText(time, data.goalTempo)}
    </p>
    {#if data.learners.length > 0}<p class="ml-auto font-semibold">{data.learners.join(', ')}</p>{/if}
  </header>
  <div class="mb-2">
    <Path
      form={data.form}
      {numbers}
      difficulty={data.difficulty}
      label="Map of {data.title}"
      firstWidth={690}
    />
  </div>
  {@render music(data.phrases)}
  {#await data.others}
    <p class="text-quiet print:hidden" role="status">Setting the rest of the page…</p>
    <noscript><a href="?whole=yes">The whole page</a></noscript>
  {:then others}
    {@render music(others)}
  {:catch problem}
    <p class="text-alarm" role="alert">The rest could not be drawn: {problem.message}</p>
  {/await}
  {#if data.goesOn}
    <p class="mt-3 print:hidden">
      <a class="link" href={goesOnAt(data.goesOn.phrase)}>
        The music goes on from measure {numbers[data.goesOn.measure]}
      </a>
    </p>
  {/if}
  {#if data.shown.steps}
    <section class="mt-6">
      <h2>Steps</h2>
      <div class="mt-2 columns-2 gap-8 text-[14px]">
        {#each data.steps as chunk (chunk.id)}
          <div class="mb-4 break-inside-avoid">
            <h3 class="font-semibold">{chunk.section}, {measuresText(numbers, chunk.from, chunk.to)}</h3>
            <ul>
              {#each chunk.steps as step (step.id)}
                <li class="flex items-baseline gap-2">
                  <span
                    class="inline-block h-3 w-3 shrink-0 translate-y-px border border-ink"
                    aria-hidden="true"
                  ></span>
                  {step.says}
                </li>
              {/each}
            </ul>
          </div>
        {/each}
      </div>
    </section>
  {/if}
  <footer class="mt-4 border-t border-hairline pt-2 text-[12px] text-quiet">
    <p>
      Pause every five to ten minutes and shake out hands, wrists and shoulders. Stop when it hurts; pain that
      stays belongs with a doctor.
    </p>
    {#if data.rights === 'not known'}
      <p>
        The rights in this piece are not known. Whether it may be arranged and copied is for the law of the
        place.
      </p>
    {/if}
  </footer>
</main>

<style>
  @media print {
    .paper {
      width: auto !important;
    }
  }
</style>
