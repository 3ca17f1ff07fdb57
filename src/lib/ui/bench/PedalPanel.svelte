<script lang="ts">
  /** The pedal in a measure: each mark with its reason, what blurs, and another style for the measure. */
  import { beatLength, endOf, placeInMeasure } from '$core/score/metre';
  import { PEDAL_STYLES, type PedalStyle } from '$core/pedal/pedal';
  import type { Version } from '$core/version/realise';
  import { decisionsOf, type Recipe } from '$core/version/recipe';
  import { withSectionWay } from '$core/version/ways';
  import { PEDAL_NAMES } from '$ui/text';
  import type { Bench } from './bench.svelte';

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
  <label class="mt-1 flex items-center gap-2 text-sm text-quiet">
    here
    <select
      class="field min-w-0 flex-1 text-ink {decided ? 'border-ink' : 'border-dashed'}"
      aria-label="Pedal in this measure"
      value={decided ?? ''}
      onchange={(event) => {
        const style = event.currentTarget.value;
        if (style) bench.decideAll({ kind: 'pedal', measure, style: style as PedalStyle });
        else bench.withdraw('pedal', measure);
      }}
    >
      <option value="">as proposed</option>
      {#each PEDAL_STYLES as style (style)}<option value={style}>{PEDAL_NAMES[style]}</option>{/each}
    </select>
  </label>
  <label class="mt-1 flex items-center gap-2 text-sm text-quiet">
    in {section.label}
    <select
      class="field min-w-0 flex-1 text-ink {ofSection ? '' : 'border-dashed'}"
      aria-label="Pedal in section {section.label}"
      value={ofSection ?? ''}
      onchange={(event) => {
        const value = (event.currentTarget.value || undefined) as Recipe['pedal'] | undefined;
        bench.setRecipe(withSectionWay(bench.recipe, section.from, 'pedal', value));
      }}
    >
      <option value="">as the whole</option>
      {#each [...PEDAL_STYLES, 'source'] as const as style (style)}<option value={style}
          >{PEDAL_NAMES[style]}</option
        >{/each}
    </select>
  </label>
</div>
