<script lang="ts">
  /** What the version is, as one sentence; each of its words opens what it sets. */
  import { levelText } from '$core/arrange/levels';
  import { keyOptions } from '$core/theory/easyKeys';
  import { keyCode, keyName } from '$core/theory/key';
  import type { Recipe } from '$core/version/recipe';
  import Choice from './Choice.svelte';
  import { perform } from './commands';
  import DecisionChoice from './DecisionChoice.svelte';
  import HandsControls from './HandsControls.svelte';
  import MoreSettings from './MoreSettings.svelte';
  import { STYLES, styleOf } from './recipeChoices';
  import { getBench } from './state/bench.svelte';

  const bench = getBench();
  const recipe = $derived(bench.document.recipe);
  const set = (part: Partial<Recipe>): void => perform(bench, { do: 'set recipe', part });

  const PROPOSED = 'proposed';
  // A moment behind, with the path: the measure in hand comes first.
  const made = $derived(bench.view.onPath);
  const levels = $derived(
    bench.levels.map(({ level, name }) => ({
      value: String(level),
      label: levelText(level),
      note: name,
    })),
  );
  const keys = $derived.by(() => {
    if (!made) return [];
    const source = keyCode(made.sourceKey);
    const most = bench.contract.accidentals ?? 7;
    return [
      {
        value: PROPOSED,
        label: recipe.key === null ? keyName(made.key) : 'suggested',
        note: 'suggested',
      },
      ...keyOptions(made.sourceKey.mode).map((k) => ({
        value: k.code,
        label: k.name,
        note:
          (k.code === source ? 'original, ' : '') +
          (k.accidentals <= most ? k.signature : `${k.signature}: beyond level ${levelText(recipe.level)}`),
      })),
    ];
  });
</script>

<p
  class="order-last flex w-full min-w-0 flex-wrap xl:order-none xl:w-auto xl:flex-1 items-center gap-x-1 text-sm"
  aria-label="Version settings"
>
  <span>Level</span>
  <Choice
    label="Level"
    value={String(recipe.level)}
    options={levels}
    onchange={(level) => set({ level: Number(level) })}
  />
  <Choice
    label="Style"
    value={styleOf(recipe, made)}
    options={STYLES}
    onchange={(style: Recipe['style']) => set({ style })}
  />
  {#if keys.length > 0}
    <span>in</span>
    <Choice
      label="Key"
      value={recipe.key ?? PROPOSED}
      options={keys}
      onchange={(key) => set({ key: key === PROPOSED ? null : key })}
    />
  {/if}<span class="-ml-1">;</span>
  {#if styleOf(recipe, made) === 'solo'}
    <DecisionChoice kind="texture" /><span class="-ml-1">;</span>
  {/if}
  <HandsControls /><span class="-ml-1">;</span>
  <MoreSettings />
</p>
