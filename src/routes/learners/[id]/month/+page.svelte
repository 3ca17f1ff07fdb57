<script lang="ts">
  /** A learner's month in plain words, to be printed or sent. */
  import Caution from '$ui/learner/Caution.svelte';
  import { monthTitle, shortDate } from '$ui/text';

  let { data } = $props();
  const report = $derived(data.report);
  const title = $derived(monthTitle(report.month));
</script>

<svelte:head><title>{data.learner.name}, {title} · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-2xl px-4 py-7 sm:px-7">
  <p class="print:hidden">
    <a class="text-quiet hover:text-ink" href="/learners/{data.learner.id}">{data.learner.name}</a>
  </p>
  <h1>{data.learner.name}, {title}</h1>
  <p class="mt-3">{report.whole.join(' ')}</p>
  {#each report.pieces as piece (piece.title)}
    <section class="mt-4" aria-label={piece.title}>
      <h2>{piece.title}</h2>
      <p>{piece.sentences.join(' ')}</p>
    </section>
  {/each}
  {#if report.next.length > 0}
    <section class="mt-4" aria-labelledby="then">
      <h2 id="then">Next</h2>
      <ul>
        {#each report.next as line (line)}<li>{line}</li>{/each}
      </ul>
    </section>
  {/if}
  {#if report.said.length > 0}
    <section class="mt-4" aria-labelledby="words">
      <h2 id="words">Lesson notes</h2>
      <ul class="grid gap-1">
        {#each report.said as { date, note } (date + note)}
          <li class="grid grid-cols-[4.2rem_minmax(0,1fr)]">
            <span class="font-mono text-sm leading-6 text-quiet">{shortDate(date)}</span> <span>{note}</span>
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  <Caution class="mt-6 border-t border-hairline pt-2" />
  <p class="mt-5 flex flex-wrap items-center gap-5 print:hidden">
    <button class="action" onclick={() => print()}>Print</button>
    <a class="link" href="/learners/{data.learner.id}/month/text?of={report.month}" download
      >Download (text)</a
    >
    <a class="link" href="?of={data.before}">Previous month</a>
    {#if data.after}<a class="link" href="?of={data.after}">Next month</a>{/if}
  </p>
</main>
