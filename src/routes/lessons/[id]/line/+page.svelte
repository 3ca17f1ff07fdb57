<script lang="ts">
  /** A line to be read at sight, without fingers or counts. */
  import { levelText } from '$core/arrange/levels';
  import Walked from '$ui/score/Walked.svelte';
  import { plural } from '$ui/text';

  let { data } = $props();
</script>

<svelte:head><title>Sight-reading, {data.learner} · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-5xl px-4 py-6 sm:px-7">
  <div class="flex flex-wrap items-baseline gap-x-5">
    <h1>Sight-reading</h1>
    <a class="link" href="/lessons/{data.lesson}">Back to the lesson</a>
    {#if data.line}<a class="link" href="?turn={data.turn + 1}">Another</a>{/if}
  </div>
  {#if data.line}
    <p class="text-quiet">
      {plural(data.line.measures, 'measure')} at level {levelText(data.line.level)}. Look first: key, time
      signature, hand position. Then play once through, without stopping.
    </p>
    <div class="mt-5 bg-paper px-4 py-5">
      <Walked svg={data.line.svg} reading={data.line.reading} label="Sight-reading" />
    </div>
    <details class="mt-3">
      <summary class="cursor-pointer text-quiet">Which piece is it?</summary>{data.line.title}
    </details>
  {:else}
    <p class="mt-4">
      {data.learner} already has every piece in the studio:
      <a class="link" href="/pieces">another</a>.
    </p>
  {/if}
</main>
