<script lang="ts">
  /** Every change of a version: each state can be looked at, named, gone back to and made a version of its own. */
  import { enhance } from '$app/forms';
  import Once from '$ui/form/Once.svelte';
  import { capital, momentText, plural } from '$ui/text';

  let { data, form } = $props();
</script>

<svelte:head><title>{data.version.title}, history · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-4xl px-7 py-7">
  <div class="min-w-0">
    <h1>{data.version.title}: history</h1>
    <p class="text-quiet">
      {plural(data.version.edit, 'change')}, the newest first. Nothing is ever lost: going back is a change
      too.
      <a class="link ml-2" href="/versions/{data.version.id}/decisions">Current choices</a>
      <a class="link ml-2" href="/versions/{data.version.id}">Back to the bench</a>
    </p>
    {#if form?.message}<p class="text-alarm" role="alert">{form.message}</p>{/if}
    <ol class="mt-4">
      {#each data.edits as edit (edit.number)}
        <li class="grid grid-cols-[3rem_minmax(0,1fr)] gap-x-3 border-t border-hairline py-2">
          <span class="font-mono text-quiet">{edit.number}</span>
          <div class="min-w-0">
            <p>
              {#if edit.name}<strong>{edit.name}:</strong>{/if}
              {capital(edit.says)}
              <span class="text-sm text-quiet">{momentText(edit.at)}, by the {edit.author}</span>
            </p>
            <div class="flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
              <a class="link" href="/versions/{data.version.id}/handout?at={edit.number}">Preview</a>
              {#if edit.number !== data.version.edit}
                <form method="post" action="?/back" use:enhance>
                  <input type="hidden" name="number" value={edit.number} />
                  <button class="link" aria-label="Restore {edit.number}">Restore</button>
                </form>
              {/if}
              <form method="post" action="?/duplicate" use:enhance>
                <Once />
                <input type="hidden" name="number" value={edit.number} />
                <button class="link" aria-label="New version from {edit.number}">New version from here</button
                >
              </form>
              <form method="post" action="?/name" use:enhance class="flex items-center gap-2">
                <input type="hidden" name="number" value={edit.number} />
                <input
                  class="field min-h-7 w-40 py-0 text-sm"
                  name="name"
                  aria-label="Name of {edit.number}"
                  placeholder="name"
                  value={edit.name ?? ''}
                />
                <button class="link" aria-label="Save the name of {edit.number}">Save</button>
              </form>
            </div>
          </div>
        </li>
      {:else}
        <li class="border-t border-hairline py-3 text-quiet">No changes yet. Every change is listed here.</li>
      {/each}
    </ol>
    {#if data.edits.length === data.most}
      <p class="mt-3"><a class="link" href="?before={data.edits.at(-1)?.number}">Older changes</a></p>
    {/if}
    {#if data.version.edit > 0}
      <form method="post" action="?/back" use:enhance class="mt-3">
        <input type="hidden" name="number" value="0" />
        <button class="link">Reset to the original suggestion</button>
      </form>
    {/if}
  </div>
</main>
