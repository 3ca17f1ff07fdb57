<script lang="ts">
  /** What goes home on paper: the pages as they will print, what goes on them, and the files to take away. */
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import PaperDesk from '$ui/paper/PaperDesk.svelte';

  let { data, form } = $props();

  function forWhom(assignment: string): void {
    const url = new URL(page.url);
    if (assignment) url.searchParams.set('for', assignment);
    else url.searchParams.delete('for');
    void goto(url, { replaceState: true, keepFocus: true, noScroll: true });
  }
  const own = $derived(`/versions/${data.id}/handout`);
  const query = $derived(page.url.search);
  const and = $derived(query ? `${query}&` : '?');
  const files = $derived([
    { href: `${own}/pdf${query}`, name: 'PDF' },
    ...(data.holders.length > 1 && data.chosen === null
      ? [{ href: `${own}/pdf${and}zip`, name: 'One PDF a student' }]
      : []),
  ]);
</script>

<svelte:head><title>{data.title} · handout · Key Path</title></svelte:head>

<PaperDesk
  title={data.title}
  says={data.earlier === null ? '' : `as it was at change ${data.earlier}`}
  back={{ href: `/versions/${data.id}`, name: 'Back to the bench' }}
  pages={data.pages}
  count={data.count}
  choices={data.choices}
  problem={form?.message}
  {files}
  more="{own}/pages{and}"
  reading="/versions/{data.id}/reading"
>
  {#snippet whose()}
    {#if data.holders.length > 1}
      <label class="mt-2 grid text-sm text-quiet">
        For
        <select class="field text-base text-ink" onchange={(event) => forWhom(event.currentTarget.value)}>
          <option value="" selected={data.chosen === null}>everyone with this version</option>
          {#each data.holders as { assignment, name } (assignment)}
            <option value={assignment} selected={data.chosen === assignment}>{name}</option>
          {/each}
        </select>
      </label>
    {/if}
  {/snippet}
</PaperDesk>
