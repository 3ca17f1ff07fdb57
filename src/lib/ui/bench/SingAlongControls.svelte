<script lang="ts">
  /** Of a sing-along: the rhythm of its chords, and how many measures lead in. */
  import { CHORD_RHYTHM_IDS, CHORD_RHYTHMS, type ChordRhythm } from '$core/arrange/singAlong';
  import type { Bench } from './bench.svelte';
  import Choice from './Choice.svelte';

  let { bench }: { bench: Bench } = $props();

  const PROPOSED = 'proposed';
  const rhythms = $derived([
    { value: PROPOSED, label: 'as proposed' },
    ...CHORD_RHYTHM_IDS.filter((id) => CHORD_RHYTHMS[id].from <= bench.recipe.level).map((id) => ({
      value: id as string,
      label: CHORD_RHYTHMS[id].name,
    })),
  ]);
  const introductions = [
    { value: '0', label: 'no introduction' },
    { value: '2', label: 'two measures before' },
    { value: '4', label: 'four measures before' },
  ];
</script>

<Choice
  label="Right hand"
  shown="Right hand"
  value={bench.recipe.rhythm ?? PROPOSED}
  options={rhythms}
  onchange={(rhythm) => bench.setRecipe({ rhythm: rhythm === PROPOSED ? null : (rhythm as ChordRhythm) })}
/>
{#if bench.recipe.style === 'sing-along'}
  <Choice
    label="Introduction"
    value={String(bench.version?.introduction ?? 2)}
    options={introductions}
    onchange={(count) => bench.setRecipe({ introduction: Number(count) as 0 | 2 | 4 })}
  />
{/if}
