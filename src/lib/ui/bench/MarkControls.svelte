<script lang="ts">
  /** How the whole version is counted and pedalled. */
  import { inSentence } from '$core/capital';
  import { IDIOMS, type Idiom } from '$core/analysis/idioms';
  import type { Feel } from '$core/counting/feel';
  import type { Recipe } from '$core/version/recipe';
  import Choice from './Choice.svelte';
  import { perform } from './commands';
  import DecisionChoice from './DecisionChoice.svelte';
  import { COUNTED, FEELS, INTRODUCTIONS, MUSIC_KINDS } from './recipeChoices';
  import { getBench } from './state/bench.svelte';

  const bench = getBench();
  const recipe = $derived(bench.document.recipe);
  const version = $derived(bench.view.version);
  const set = (part: Partial<Recipe>): void => perform(bench, { do: 'set recipe', part });

  const cutTimes: { value: Recipe['cutTime']; label: string }[] = [
    { value: 'halves', label: 'in halves' },
    { value: 'quarters', label: 'in quarters' },
  ];
  const introductions = INTRODUCTIONS.map(({ value, label }) => ({ value: String(value), label }));
  const PROPOSED = 'proposed';
  const idioms = $derived([
    {
      value: PROPOSED as Idiom | typeof PROPOSED,
      label:
        recipe.idiom === null && version ? inSentence(IDIOMS[version.idiom].name) : 'as the source shows',
      note: 'suggested',
    },
    ...MUSIC_KINDS,
  ]);
</script>

<div class="grid justify-items-start gap-2 text-[15px]">
  {#if recipe.style === 'solo'}
    <Choice
      label="Kind"
      shown="kind of music:"
      value={recipe.idiom ?? PROPOSED}
      options={idioms}
      onchange={(idiom: Idiom | typeof PROPOSED) => set({ idiom: idiom === PROPOSED ? null : idiom })}
    />
  {/if}
  <DecisionChoice kind="rhythm" />
  {#if recipe.style === 'sing-along'}
    <Choice
      label="Introduction"
      shown="introduction:"
      value={String(version?.introduction ?? 2)}
      options={introductions}
      onchange={(count) => set({ introduction: Number(count) as 0 | 2 | 4 })}
    />
  {/if}
  <DecisionChoice kind="counting" />
  <Choice
    label="Count for"
    shown="counting:"
    value={recipe.countFor}
    options={COUNTED}
    onchange={(countFor: Recipe['countFor']) => set({ countFor })}
  />
  {#if version?.score.measures.some((m) => m.time.beats === 2 && m.time.beatType === 2)}
    <Choice
      label="Cut time"
      shown="cut time:"
      value={recipe.cutTime}
      options={cutTimes}
      onchange={(cutTime: Recipe['cutTime']) => set({ cutTime })}
    />
  {/if}
  <Choice
    label="Feel"
    shown="eighths:"
    value={version?.feel ?? 'straight'}
    options={FEELS}
    onchange={(feel: Feel) => set({ feel })}
  />
  <DecisionChoice kind="repeats" />
  {#if bench.contract.pedal !== 'none'}<DecisionChoice kind="pedal" />{/if}
</div>
