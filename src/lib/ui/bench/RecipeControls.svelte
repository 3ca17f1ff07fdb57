<script lang="ts">
  /** Level, style, key and texture, within reach above the page. */
  import { IDIOM_IDS, IDIOMS, type Idiom } from '$core/analysis/idiom';
  import { levelText } from '$core/arrange/levels';
  import { keyOptions } from '$core/theory/easyKeys';
  import { keyCode, keyName } from '$core/theory/key';
  import type { Recipe } from '$core/version/recipe';
  import { ToggleGroup } from 'bits-ui';
  import Choice from './Choice.svelte';
  import { perform } from './commands';
  import DecisionChoice from './DecisionChoice.svelte';
  import HandsControls from './HandsControls.svelte';
  import { getBench } from './state/bench.svelte';

  const bench = getBench();
  const recipe = $derived(bench.document.recipe);
  const set = (part: Partial<Recipe>): void => perform(bench, { do: 'set recipe', part });

  const PROPOSED = 'proposed';
  const level = $derived(recipe.level);
  const made = $derived(bench.view.version);
  const keys = $derived.by(() => {
    if (!made) return [];
    const source = keyCode(made.sourceKey);
    const most = bench.contract.accidentals ?? 7;
    return [
      {
        value: PROPOSED,
        label: recipe.key === null ? keyName(made.key) : 'as proposed',
        note: 'proposed',
      },
      ...keyOptions(made.sourceKey.mode).map((k) => ({
        value: k.code,
        label: k.name,
        note:
          (k.code === source ? 'as it is, ' : '') +
          (k.accidentals <= most ? k.signature : `${k.signature}: more than level ${levelText(level)} reads`),
      })),
    ];
  });
  const styles: { value: Recipe['style']; label: string; note: string }[] = [
    { value: 'solo', label: 'the melody', note: 'the right hand plays it' },
    { value: 'sing-along', label: 'chords to sing to', note: 'right hand chords, left hand bass' },
  ];
  const idioms = $derived([
    {
      value: PROPOSED as Idiom | typeof PROPOSED,
      label: recipe.idiom === null && made ? IDIOMS[made.idiom].name.toLowerCase() : 'as the source shows',
      note: 'proposed',
    },
    ...IDIOM_IDS.map((id) => ({ value: id, label: IDIOMS[id].name.toLowerCase(), note: IDIOMS[id].says })),
  ]);
</script>

<div class="flex flex-wrap items-center gap-x-4 gap-y-1">
  <div class="flex items-center gap-2">
    <span id="level-label">Level</span>
    <ToggleGroup.Root
      type="single"
      value={String(level)}
      onValueChange={(value) => value && set({ level: Number(value) })}
      aria-labelledby="level-label"
      class="flex"
    >
      {#each bench.levels as { level: number, name } (number)}
        <ToggleGroup.Item
          value={String(number)}
          title={name}
          aria-label="Level {levelText(number)}, {name}"
          class="h-8 w-7 border-b-2 border-transparent font-semibold text-quiet hover:text-ink data-[state=on]:border-accent data-[state=on]:bg-accent-soft data-[state=on]:text-ink"
        >
          {levelText(number)}
        </ToggleGroup.Item>
      {/each}
    </ToggleGroup.Root>
  </div>
  <Choice
    label="Style"
    value={recipe.style}
    options={styles}
    onchange={(style: Recipe['style']) => set({ style })}
  />
  {#if recipe.style === 'solo'}
    <Choice
      label="Kind"
      value={recipe.idiom ?? PROPOSED}
      options={idioms}
      onchange={(idiom: Idiom | typeof PROPOSED) => set({ idiom: idiom === PROPOSED ? null : idiom })}
    />
  {/if}
  {#if keys.length > 0}
    <Choice
      label="Key"
      value={recipe.key ?? PROPOSED}
      options={keys}
      onchange={(key) => set({ key: key === PROPOSED ? null : key })}
    />
  {/if}
  <DecisionChoice kind="texture" />
  <HandsControls />
</div>
