<script lang="ts">
  /** A class's set of parts: everybody's pages in turn, as they will print. */
  import PaperForm from '$ui/paper/PaperForm.svelte';
  import Pages from '$ui/paper/Pages.svelte';
  import { plural } from '$ui/text';

  let { data, form } = $props();
</script>

<svelte:head><title>{data.name} · handouts · Key Path</title></svelte:head>

<div class="lg:grid lg:grid-cols-[20rem_minmax(0,1fr)] print:block">
  <aside
    class="border-hairline px-6 py-5 lg:sticky lg:top-0 lg:h-screen lg:overflow-y-auto lg:border-r print:hidden"
    aria-label="What goes on paper"
  >
    <a class="link" href="/classes/{data.id}">Back to the class</a>
    <h1 class="mt-3">{data.title}</h1>
    <p class="text-quiet">
      {data.name}: {plural(data.count, 'learner')}, {plural(data.pages.length, 'page')}
    </p>
    {#if data.count > 0}
      <p class="my-4 flex flex-wrap items-center gap-x-4 gap-y-2">
        <button type="button" class="action" onclick={() => window.print()}>Print</button>
        <a class="link" href="/classes/{data.id}/handout/pdf" download>One PDF</a>
        <a class="link" href="/classes/{data.id}/handout/pdf?zip" download>One PDF a learner</a>
      </p>
    {:else}
      <p class="my-4">Nobody in this class has a part yet.</p>
    {/if}
    <PaperForm choices={data.choices} problem={form?.message} />
  </aside>
  <main id="main" class="min-w-0 px-4 py-6 print:p-0">
    <Pages pages={data.pages} paper={data.choices.paper} />
  </main>
</div>
