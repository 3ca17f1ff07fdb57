<script lang="ts">
  /** A learner's month in plain words, to be printed or sent. */
  import Month from '$ui/learner/Month.svelte';
  import { monthTitle } from '$ui/text';

  let { data } = $props();
  const report = $derived(data.report);
  const title = $derived(monthTitle(report.month));
</script>

<svelte:head><title>{data.learner.name}, {title} · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-2xl px-4 py-7 sm:px-7">
  <p class="print:hidden">
    <a class="text-quiet hover:text-ink" href="/learners/{data.learner.id}">{data.learner.name}</a>
  </p>
  <Month name={data.learner.name} {report} />
  <p class="mt-5 flex flex-wrap items-center gap-5 print:hidden">
    <button class="action" onclick={() => print()}>Print</button>
    <a class="link" href="/learners/{data.learner.id}/month/text?of={report.month}" download
      >Download (text)</a
    >
    <a class="link" href="?of={data.before}">Previous month</a>
    {#if data.after}<a class="link" href="?of={data.after}">Next month</a>{/if}
  </p>
</main>
