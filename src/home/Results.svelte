<script lang="ts">
  /** What was done, for the teacher: as a file, or as text for a message. */
  import { resultsInWords, resultsText } from '$core/lessons/home';
  import type { HomeRecord } from './record.svelte';

  interface Props {
    record: HomeRecord;
    name: string;
    /** Tells what is not told yet. */
    before: () => void;
  }
  let { record, name, before }: Props = $props();
  let said = $state('');
  let shown = $state('');
  function text(): string {
    before();
    return resultsText(name, record.sent);
  }
  function save(): void {
    const url = URL.createObjectURL(new Blob([text()], { type: 'text/plain' }));
    const link = document.createElement('a');
    link.href = url;
    link.download = `${name.replace(/[^\p{L}\p{N} -]/gu, '')} practice results.txt`;
    link.click();
    setTimeout(() => URL.revokeObjectURL(url), 10_000);
    said = 'Saved. Give the file to your teacher.';
  }
  async function copy(): Promise<void> {
    const whole = text();
    try {
      await navigator.clipboard.writeText(whole);
      said = 'Copied. Paste it into a message to your teacher.';
    } catch {
      shown = whole;
      said = 'Copy this text into a message to your teacher:';
    }
  }
</script>

<section class="mt-6 border-t border-hairline pt-4" aria-labelledby="results">
  <h2 id="results" class="text-lg">For your teacher</h2>
  {#if record.sent.length === 0}
    <p class="mt-1 text-quiet">Your results are saved in this browser until you give them to your teacher.</p>
  {:else}
    <p class="mt-1 text-quiet">
      Saved in this browser: {resultsInWords(record.sent)}.
    </p>
    <p class="mt-3 flex flex-wrap gap-x-5 gap-y-2">
      <button type="button" class="action" onclick={save}>Save results</button>
      <button type="button" class="link min-h-11" onclick={() => void copy()}>Copy results</button>
    </p>
    <p class="mt-2" role="status">{said}</p>
    {#if shown}
      <textarea class="field mt-1 h-24 w-full font-mono text-sm" readonly aria-label="Results"
        >{shown}</textarea
      >
    {/if}
  {/if}
</section>
