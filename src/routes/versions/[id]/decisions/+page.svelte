<script lang="ts">
  /** Everything that is decided in a version: by whom and when, where it is, and what waits for its place to come back. */
  import { enhance } from '$app/forms';
  import { capital, momentText, plural } from '$ui/text';

  let { data, form } = $props();
  let sought = $state('');
  const found = $derived(
    data.decisions.filter(({ says, where, kind }) =>
      `${kind} ${says} ${where}`.toLowerCase().includes(sought.trim().toLowerCase()),
    ),
  );
  const waiting = $derived(data.decisions.filter((d) => d.parked).length);
</script>

<svelte:head><title>{data.version.title}, choices · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-4xl px-7 py-7">
  <h1>{data.version.title}: your choices</h1>
  <p class="text-quiet">
    {plural(data.decisions.length, 'choice')}.
    {#if waiting > 0}
      {plural(waiting, 'choice is on hold', 'choices are on hold')} until what {waiting === 1
        ? 'it names'
        : 'they name'} comes back.
    {/if}
    <a class="link ml-2" href="/versions/{data.version.id}/history">History</a>
    <a class="link ml-2" href="/versions/{data.version.id}">Back to the bench</a>
  </p>
  {#if form?.message}<p class="text-alarm" role="alert">{form.message}</p>{/if}
  {#if data.decisions.length > 8}
    <input
      class="field mt-4 w-full max-w-sm"
      type="search"
      aria-label="Search the choices"
      placeholder="Search"
      bind:value={sought}
    />
  {/if}
  <ul class="mt-3">
    {#each found as decision (decision.subject)}
      <li class="flex flex-wrap items-baseline gap-x-4 border-t border-hairline py-2">
        <span class="min-w-0 flex-1 max-sm:basis-full">
          {capital(decision.says)}
          {#if decision.parked}<span class="block text-sm text-alarm">on hold: {decision.parked}</span>{/if}
        </span>
        {#if decision.at && !decision.parked}
          <a class="link" href="/versions/{data.version.id}?at={encodeURIComponent(decision.at)}"
            >{decision.where}</a
          >
        {:else}<span class="text-quiet">{decision.where}</span>{/if}
        <span class="text-sm text-quiet sm:w-56 sm:text-right"
          >{decision.by
            ? `${momentText(decision.by.at)}, by the ${decision.by.author}`
            : 'from the beginning'}</span
        >
        {#if decision.mends && !decision.parked}
          <form method="post" action="?/mend" use:enhance>
            <input type="hidden" name="subject" value={decision.subject} />
            <button
              class="link text-sm"
              title="Correct the source for every version"
              aria-label="Correct the source: {decision.says}, {decision.where}">Correct the source</button
            >
          </form>
        {/if}
        <form method="post" action="?/giveBack" use:enhance>
          <input type="hidden" name="subject" value={decision.subject} />
          <button class="link text-sm" aria-label="Reset: {decision.says}, {decision.where}">Reset</button>
        </form>
      </li>
    {:else}
      <li class="border-t border-hairline py-3 text-quiet">
        {data.decisions.length > 0
          ? 'No choices match.'
          : 'No choices yet. What you choose on the bench appears here.'}
      </li>
    {/each}
  </ul>
</main>
