<script lang="ts">
  /** A student's month, as whoever has the link of the practice room may read it. */
  import Month from '$ui/learner/Month.svelte';
  import { monthTitle } from '$ui/text';

  let { data } = $props();
</script>

<svelte:head>
  <title>{data.name}, {monthTitle(data.report.month)} · Key Path</title>
  <meta name="robots" content="noindex" />
</svelte:head>

<main id="main" class="mx-auto max-w-2xl px-4 py-5 sm:px-7">
  <p class="print:hidden"><a class="link" href="/room/{data.token}">Today</a></p>
  <Month name={data.name} report={data.report} />
  <p class="mt-5 flex flex-wrap items-center gap-5 print:hidden">
    <a class="link" href="?of={data.before}">Previous month</a>
    {#if data.after}<a class="link" href="?of={data.after}">Next month</a>{/if}
  </p>
</main>
