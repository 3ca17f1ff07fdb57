<script lang="ts">
  /** What goes home on paper: the pages as they will print, what goes on them, and the files to take away. */
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import PaperForm from '$ui/paper/PaperForm.svelte';
  import Pages from '$ui/paper/Pages.svelte';
  import { plural } from '$ui/text';

  let { data, form } = $props();

  function forWhom(assignment: string): void {
    const url = new URL(page.url);
    if (assignment) url.searchParams.set('for', assignment);
    else url.searchParams.delete('for');
    void goto(url, { replaceState: true, keepFocus: true, noScroll: true });
  }
  const query = $derived(page.url.search);
  const zip = $derived(`${query}${query ? '&' : '?'}zip`);
</script>

<svelte:head><title>{data.title} · handout · Key Path</title></svelte:head>

<div class="lg:grid lg:grid-cols-[20rem_minmax(0,1fr)] print:block">
  <aside
    class="border-hairline px-6 py-5 lg:sticky lg:top-0 lg:h-screen lg:overflow-y-auto lg:border-r print:hidden"
    aria-label="What goes on paper"
  >
    <a class="link" href="/versions/{data.id}">Back to the bench</a>
    <h1 class="mt-3">{data.title}</h1>
    <p class="text-quiet">
      {plural(data.pages.length, 'page')}{data.earlier === null
        ? ''
        : `, as it was at change ${data.earlier}`}
    </p>
    {#if data.holders.length > 1}
      <label class="mt-2 grid text-sm text-quiet">
        For
        <select class="field text-base text-ink" onchange={(event) => forWhom(event.currentTarget.value)}>
          <option value="" selected={data.chosen === null}>everybody who has it</option>
          {#each data.holders as { assignment, name } (assignment)}
            <option value={assignment} selected={data.chosen === assignment}>{name}</option>
          {/each}
        </select>
      </label>
    {/if}
    <p class="my-4 flex flex-wrap items-center gap-x-4 gap-y-2">
      <button type="button" class="action" onclick={() => window.print()}>Print</button>
      <a class="link" href="/versions/{data.id}/handout/pdf{query}" download>PDF</a>
      {#if data.holders.length > 1 && data.chosen === null}
        <a class="link" href="/versions/{data.id}/handout/pdf{zip}" download>One PDF a learner</a>
      {/if}
    </p>
    <PaperForm choices={data.choices} problem={form?.message} />
  </aside>
  <main id="main" class="min-w-0 px-4 py-6 print:p-0">
    <Pages pages={data.pages} paper={data.choices.paper} />
  </main>
</div>
