<script lang="ts">
  /** How the whole version is counted and pedalled. */
  import type { Feel } from '$core/counting/feel';
  import { SCHOOL_IDS, SCHOOLS } from '$core/counting/schools';
  import type { Recipe } from '$core/version/recipe';
  import { PEDAL_NAMES } from '$ui/text';
  import type { Bench } from './bench.svelte';
  import Choice from './Choice.svelte';
  import SingAlongControls from './SingAlongControls.svelte';

  let { bench }: { bench: Bench } = $props();

  const schools = [
    ...SCHOOL_IDS.map((id) => ({ value: id as Recipe['counting'], label: SCHOOLS[id].name })),
    { value: 'none' as const, label: 'no counting' },
  ];
  const counted: { value: Recipe['countFor']; label: string }[] = [
    { value: 'right', label: 'for the right hand' },
    { value: 'left', label: 'for the left hand' },
    { value: 'both', label: 'for both hands' },
  ];
  const feels: { value: Feel; label: string }[] = [
    { value: 'straight', label: 'straight' },
    { value: 'swing', label: 'swing' },
  ];
  const cutTimes: { value: Recipe['cutTime']; label: string }[] = [
    { value: 'halves', label: 'in halves' },
    { value: 'quarters', label: 'in quarters' },
  ];
  const pedals = (Object.keys(PEDAL_NAMES) as Recipe['pedal'][]).map((value) => ({
    value,
    label: PEDAL_NAMES[value],
  }));
</script>

<div class="flex flex-wrap items-center gap-x-5 gap-y-1 text-[15px]">
  {#if bench.version?.isSingAlong}<SingAlongControls {bench} />{/if}
  <Choice
    label="Count"
    value={bench.recipe.counting}
    options={schools}
    onchange={(counting: Recipe['counting']) => bench.setRecipe({ counting })}
  />
  <Choice
    label="Count for"
    value={bench.recipe.countFor}
    options={counted}
    onchange={(countFor: Recipe['countFor']) => bench.setRecipe({ countFor })}
  />
  {#if bench.version?.score.measures.some((m) => m.time.beats === 2 && m.time.beatType === 2)}
    <Choice
      label="Cut time"
      value={bench.recipe.cutTime}
      options={cutTimes}
      onchange={(cutTime: Recipe['cutTime']) => bench.setRecipe({ cutTime })}
    />
  {/if}
  <Choice
    label="Feel"
    value={bench.version?.feel ?? 'straight'}
    options={feels}
    onchange={(feel: Feel) => bench.setRecipe({ feel })}
  />
  {#if bench.contract.pedal !== 'none'}
    <Choice
      label="Pedal"
      value={bench.recipe.pedal}
      options={pedals}
      onchange={(pedal: Recipe['pedal']) => bench.setRecipe({ pedal })}
    />
  {/if}
</div>
