<script lang="ts">
  /** What is said in a measure: proposed, or in the teacher's own words; and the school of its section. */
  import { countsInWords, countText, withOtherWords } from '$core/counting/count';
  import { SCHOOL_IDS, SCHOOLS } from '$core/counting/schools';
  import { whyCounted } from '$core/counting/why';
  import { decisionsOf, type Recipe } from '$core/version/recipe';
  import type { Version } from '$core/version/realise';
  import { countingIn, withSectionWay } from '$core/version/ways';
  import { plural } from '$ui/text';
  import type { Bench } from './bench.svelte';
  import WaySelect from './WaySelect.svelte';

  let { bench, version, measure }: { bench: Bench; version: Version; measure: number } = $props();

  const counts = $derived(version.counts[measure]?.counts ?? []);
  const decided = $derived(decisionsOf(bench.decisions, 'count').some((d) => d.measure === measure));
  const section = $derived(version.form.sections.find((s) => s.from <= measure && measure <= s.to)!);
  const ofSection = $derived(bench.recipe.sections.find((s) => s.measure === section.from)?.counting);
  const options = $derived(countingIn(bench.recipe, version.form)(measure));
  const why = $derived(
    options && !decided ? whyCounted(version.score.measures[measure]!, counts, options) : '',
  );
  const schools: [Recipe['counting'], string][] = [
    ...SCHOOL_IDS.map((id): [Recipe['counting'], string] => [id, SCHOOLS[id].name]),
    ['none', 'not counted'],
  ];
  let complaint = $state('');

  function keep(words: string): void {
    complaint = '';
    if (!words.trim()) bench.withdraw('count', measure);
    else if (!withOtherWords(counts, words))
      complaint = `This measure has ${plural(counts.length, 'place')} to count; write as many words.`;
    else if (words !== countsInWords(counts)) bench.decideAll({ kind: 'count', measure, words });
  }
</script>

<div>
  <h3 class="font-semibold">Count{version.feel === 'swing' ? ', swung' : ''}</h3>
  {#if counts.length > 0}
    <p class="font-mono">
      {#each counts as count (count.at)}<span class={count.kind === 'onset' ? '' : 'text-quiet'}
          >{countText(count)}&nbsp;</span
        >{/each}
    </p>
    <input
      id="count-words"
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
      <button type="button" class="link text-sm" onclick={() => bench.withdraw('count', measure)}
        >Give the words back</button
      >
    {/if}
  {:else}
    <p class="eyebrow">not counted</p>
  {/if}
  <WaySelect
    where="in {section.label}"
    label="Counting in section {section.label}"
    value={ofSection}
    back="as the whole"
    options={schools}
    onchange={(school) => bench.setRecipe(withSectionWay(bench.recipe, section.from, 'counting', school))}
  />
</div>
