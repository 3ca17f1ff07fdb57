<script lang="ts">
  /** What is said in a measure: proposed, or in the teacher's own words; and the school of the measure and its section. */
  import { countsInWords, countText, withOtherWords } from '$core/counting/count';
  import { whyCounted } from '$core/counting/why';
  import { valuesIn } from '$core/decisions/holds';
  import type { Version } from '$core/version/realise';
  import { plural } from '$ui/text';
  import { perform } from './commands';
  import DecisionPanel from './DecisionPanel.svelte';
  import { getBench } from './state/bench.svelte';

  let { version, measure }: { version: Version; measure: number } = $props();

  const bench = getBench();
  const counts = $derived(version.counts[measure]?.counts ?? []);
  const at = $derived({ measure: version.score.measures[measure]!.id });
  const decided = $derived(bench.document.decided('count', at) !== undefined);
  const school = $derived(
    (bench.layout ? valuesIn('counting', bench.document.decisions, bench.layout)[measure] : undefined) ??
      'numbers',
  );
  const why = $derived(
    school !== 'none' && !decided
      ? whyCounted(version.score.measures[measure]!, counts, {
          school,
          cutTime: bench.document.recipe.cutTime,
        })
      : '',
  );
  let complaint = $state('');

  function keep(words: string): void {
    complaint = '';
    if (!words.trim()) perform(bench, { do: 'give back', kind: 'count', at });
    else if (!withOtherWords(counts, words))
      complaint = `This measure needs ${plural(counts.length, 'counting word')}.`;
    else if (words !== countsInWords(counts))
      perform(bench, { do: 'decide all', decisions: [{ kind: 'count', at, value: words.trim() }] });
  }
</script>

<DecisionPanel kind="counting" title="Count{version.feel === 'swing' ? ', swung' : ''}">
  {#if counts.length > 0}
    <p class="font-mono">
      {#each counts as count (count.at)}<span class={count.kind === 'onset' ? '' : 'text-quiet'}
          >{countText(count)}&nbsp;</span
        >{/each}
    </p>
    <input
      id="write-count"
      class="field mt-1 w-full font-mono text-sm {decided ? 'border-ink' : 'border-dashed'}"
      aria-label="Words to count this measure"
      value={countsInWords(counts)}
      onchange={(event) => keep(event.currentTarget.value)}
      onkeydown={(event) => {
        if (event.key === 'Escape') event.currentTarget.blur();
      }}
    />
    {#if why}<p class="text-sm text-quiet">{why}</p>{/if}
    {#if complaint}<p class="text-sm text-alarm" role="alert">{complaint}</p>{/if}
    {#if decided}
      <button
        type="button"
        class="link text-sm"
        onclick={() => perform(bench, { do: 'give back', kind: 'count', at })}
        >Reset the counting words</button
      >
    {/if}
  {:else}
    <p class="eyebrow">not counted</p>
  {/if}
</DecisionPanel>
