<script lang="ts">
  /** What the left hand plays in a measure and its section, and which line has the tune. */
  import { TUNE_LINE_NAMES } from '$core/analysis/melody';
  import { isForLevel, TEXTURE_IDS, TEXTURES } from '$core/arrange/textures';
  import type { Version } from '$core/version/realise';
  import { decisionsOf } from '$core/version/recipe';
  import { withSectionWay } from '$core/version/ways';
  import type { Bench } from './bench.svelte';
  import WaySelect from './WaySelect.svelte';

  let { bench, version, measure }: { bench: Bench; version: Version; measure: number } = $props();

  const time = $derived(version.score.measures[measure]!.time);
  const decided = $derived(
    decisionsOf(bench.decisions, 'texture').find((d) => d.measure === measure)?.texture,
  );
  const section = $derived(version.form.sections.find((s) => s.from <= measure && measure <= s.to)!);
  const ways = $derived(bench.recipe.sections.find((s) => s.measure === section.from));
  const textures = $derived(
    TEXTURE_IDS.filter(
      (id) => isForLevel(id, bench.recipe.level, time) && (id !== 'own' || version.hasOwnAccompaniment),
    ).map((id) => [id, TEXTURES[id].name] as const),
  );
</script>

<div>
  <h3 class="font-semibold">What the left hand plays</h3>
  <WaySelect
    where="here"
    label="Left hand in this measure"
    value={decided}
    back="as proposed"
    options={textures}
    onchange={(texture) => {
      if (texture) bench.decideAll({ kind: 'texture', measure, texture });
      else bench.withdraw('texture', measure);
    }}
  />
  <WaySelect
    where="in {section.label}"
    label="Left hand in section {section.label}"
    value={ways?.texture}
    back="as the whole"
    options={textures}
    onchange={(texture) => bench.setRecipe(withSectionWay(bench.recipe, section.from, 'texture', texture))}
  />
  {#if version.tune.has.length > 1}
    <p class="mt-2 text-sm text-quiet">
      The tune is in {TUNE_LINE_NAMES[version.tune.lines[measure] ?? 'upper']}.
    </p>
    <WaySelect
      where="in {section.label}"
      label="Tune in section {section.label}"
      value={ways?.tune}
      back="as it was found"
      options={version.tune.has.map((line) => [line, TUNE_LINE_NAMES[line]] as const)}
      onchange={(tune) => bench.setRecipe(withSectionWay(bench.recipe, section.from, 'tune', tune))}
    />
  {/if}
</div>
