<script lang="ts">
  import { enhance } from '$app/forms';
  import Was from '$ui/form/Was.svelte';
  import { stays } from '$ui/form/kept';
  import { plural, shortDate } from '$ui/text';
  import LocaleForm from '$ui/settings/LocaleForm.svelte';
  import Restore from '$ui/settings/Restore.svelte';

  let { data, form } = $props();
</script>

<svelte:head><title>Studio · Key Path</title></svelte:head>

<main id="main" class="mx-auto grid max-w-6xl gap-x-12 px-7 py-7 lg:grid-cols-2">
  <h1 class="lg:col-span-2">Studio</h1>
  {#if form?.message}<p class="mt-3 text-alarm lg:col-span-2" role="alert">{form.message}</p>{/if}

  <div class="min-w-0">
    <section class="mt-6 border-t border-hairline pt-3" aria-labelledby="copies">
      <h2 id="copies">Backups</h2>
      <p class="text-quiet">
        Everything is stored in <span class="font-mono text-sm break-all">{data.folder}</span>. A daily backup
        is saved there; keep another on a separate disk.
      </p>
      <p class="mt-3"><a class="action" href="/settings/studio/copy" download>Download a backup</a></p>
      {#if data.copies.length > 0}
        <details class="mt-3">
          <summary class="cursor-pointer text-quiet hover:text-ink"
            >{plural(data.copies.length, 'daily backup')}, newest {shortDate(data.copies[0]!)}</summary
          >
          <ul class="mt-2 columns-2">
            {#each data.copies as day (day)}
              <li><a class="link" href="/settings/studio/copy?day={day}" download>{day}</a></li>
            {/each}
          </ul>
        </details>
      {/if}
      <Restore />
    </section>

    <section class="mt-6 border-t border-hairline pt-3" aria-labelledby="named">
      <h2 id="named">On paper</h2>
      <p class="text-quiet">The studio name and this line appear at the foot of every printed page.</p>
      <form method="post" action="?/named" use:enhance={stays} class="mt-2 flex flex-wrap items-end gap-3">
        <Was value={data.named} {form} />
        <label class="grid"
          >Name of the studio <input
            name="name"
            class="field"
            value={data.named.name}
            required
            maxlength="60"
          /></label
        >
        <label class="grid grow"
          >Footer line <input
            name="ownLine"
            class="field"
            value={data.named.ownLine}
            maxlength="100"
            placeholder="phone, address, or nothing"
          /></label
        >
        <button class="link mb-1">Save</button>
      </form>
    </section>

    <section class="mt-6 border-t border-hairline pt-3" aria-labelledby="zone">
      <h2 id="zone">Language and time</h2>
      <p class="mb-2 text-quiet">
        Used on every page, on paper and in downloads. Lessons are in this time zone.
      </p>
      <LocaleForm {...data.offer} zone={data.zone} zones={data.zones} {form} />
    </section>

    <section class="mt-6 border-t border-hairline pt-3" aria-labelledby="passphrase">
      <h2 id="passphrase">Passphrase</h2>
      <p class="text-quiet">
        {data.isOpen
          ? 'Other computers can reach this studio and need the passphrase.'
          : 'Only this computer can reach this studio. A passphrase is needed once others can.'}
        {data.hasPassphrase ? 'A passphrase is set.' : 'No passphrase is set.'}
      </p>
      <form method="post" action="?/passphrase" use:enhance class="mt-2 flex flex-wrap items-end gap-3">
        <label class="grid">
          {data.hasPassphrase ? 'New passphrase' : 'Passphrase'}
          <input type="password" name="passphrase" class="field" autocomplete="new-password" minlength="10" />
        </label>
        <button class="link">Save passphrase</button>
      </form>
      {#if form?.isSet}<p role="status">Saved. Other browsers need it now.</p>{/if}
      {#if data.isOpen}
        <form method="post" action="/sign-in?/leave" class="mt-2">
          <button class="link">Sign out</button>
        </form>
      {/if}
    </section>
  </div>

  <section class="mt-6 min-w-0 border-t border-hairline pt-3" aria-labelledby="trash">
    <h2 id="trash">Trash</h2>
    <p class="text-quiet">Restore anything here for {data.keptDays} days.</p>
    <ul class="mt-2">
      {#each data.trash as thing (thing.kind + thing.id)}
        <li
          class="grid grid-cols-[minmax(0,1fr)_auto_auto] items-baseline gap-4 border-t border-hairline py-2"
        >
          <span
            ><span class="inline-block first-letter:uppercase">{thing.says}</span>
            <span class="text-sm text-quiet">deleted {shortDate(thing.deletedAt.slice(0, 10))}</span></span
          >
          {#each [['takeBack', 'Restore'], ['deleteForGood', 'Delete permanently']] as const as [action, says] (action)}
            <form method="post" action="?/{action}" use:enhance>
              <input type="hidden" name="kind" value={thing.kind} />
              <input type="hidden" name="id" value={thing.id} />
              <button class="link" aria-label="{says}: {thing.says}">{says}</button>
            </form>
          {/each}
        </li>
      {:else}
        <li class="border-t border-hairline py-2 text-quiet">The trash is empty.</li>
      {/each}
    </ul>
  </section>
</main>
