<script lang="ts">
  /** The pedal in a measure: each mark with its reason, what blurs, and another style for the measure. */
  import { beatLength, endOf, placeInMeasure } from '$core/score/metre';
  import { PEDAL_STYLES } from '$core/pedal/pedal';
  import type { Version } from '$core/version/realise';
  import { decisionsOf } from '$core/version/recipe';
  import { withSectionWay } from '$core/version/ways';
  import { PEDAL_NAMES } from '$ui/text';
  import type { Bench } from './bench.svelte';
  import WaySelect from './WaySelect.svelte';

  let { bench, version, measure }: { bench: Bench; version: Version; measure: number } = $props();

  const at = $derived(version.score.measures[measure]!);
  const inside = (tick: number): boolean => tick >= at.start && tick < endOf(at);
  const marks = $derived(version.pedals.filter((p) => inside(p.onset)));
  const blurs = $derived(version.blurs.filter((b) => inside(b.onset)));
  const decided = $derived(decisionsOf(bench.decisions, 'pedal').find((d) => d.measure === measure)?.style);
  const section = $derived(version.form.sections.find((s) => s.from <= measure && measure <= s.to)!);
  const ofSection = $derived(bench.recipe.sections.find((s) => s.measure === section.from)?.pedal);
  const beat = (tick: number): string =>
    String(Math.round((1 + placeInMeasure(at, tick) / beatLength(at.time)) * 100) / 100);
</script>

<div>
  <h3 class="font-semibold">Pedal</h3>
  {#if marks.length > 0}
    <ul class="text-quiet">
      {#each marks as mark, i (i)}<li>
          <span class="font-mono">{beat(mark.onset)}</span>
          {mark.because}
        </li>{/each}
    </ul>
  {:else}
    <p class="eyebrow">{version.pedals.length === 0 ? 'none in this version' : 'as before'}</p>
  {/if}
  {#each blurs as blur (blur.onset + blur.kind)}
    <p class="text-alarm">{blur.text}.</p>
  {/each}
  <WaySelect
    where="here"
    label="Pedal in this measure"
    value={decided}
    back="as proposed"
    options={PEDAL_STYLES.map((style) => [style, PEDAL_NAMES[style]] as const)}
    onchange={(style) => {
      if (style) bench.decideAll({ kind: 'pedal', measure, style });
      else bench.withdraw('pedal', measure);
    }}
  />
  <WaySelect
    where="in {section.label}"
    label="Pedal in section {section.label}"
    value={ofSection}
    back="as the whole"
    options={([...PEDAL_STYLES, 'source'] as const).map((style) => [style, PEDAL_NAMES[style]] as const)}
    onchange={(style) => bench.setRecipe(withSectionWay(bench.recipe, section.from, 'pedal', style))}
  />
</div>
