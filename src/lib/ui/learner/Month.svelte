<script lang="ts">
  /** A learner's month in plain words. */
  import Caution from './Caution.svelte';
  import { monthTitle, shortDate } from '$ui/text';

  interface Report {
    readonly month: string;
    readonly whole: readonly string[];
    readonly pieces: readonly { readonly title: string; readonly sentences: readonly string[] }[];
    readonly next: readonly string[];
    readonly said: readonly { readonly date: string; readonly note: string }[];
  }
  let { name, report }: { name: string; report: Report } = $props();
  const title = $derived(monthTitle(report.month));
</script>

<h1>{name}, {title}</h1>
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
