<script lang="ts">
  /** Level, style, key and texture, within reach above the page. */
  import { levelText } from '$core/arrange/levels';
  import { isForLevel, TEXTURES, TEXTURE_IDS, type TextureId } from '$core/arrange/textures';
  import { keyOptions } from '$core/theory/easyKeys';
  import { keyCode, keyName } from '$core/theory/key';
  import type { Recipe } from '$core/version/recipe';
  import { ToggleGroup } from 'bits-ui';
  import type { Bench } from './bench.svelte';
  import Choice from './Choice.svelte';
  import HandsControls from './HandsControls.svelte';

  let { bench }: { bench: Bench } = $props();

  const PROPOSED = 'proposed';
  const level = $derived(bench.recipe.level);
  const made = $derived(bench.version);
  const keys = $derived.by(() => {
    if (!made) return [];
    const source = keyCode(made.sourceKey);
    const most = bench.contract.accidentals ?? 7;
    return [
      {
        value: PROPOSED,
        label: bench.recipe.key === null ? keyName(made.key) : 'as proposed',
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
  const isSingAlong = $derived(made?.isSingAlong ?? bench.recipe.style === 'sing-along');
  const time = $derived(
    made?.score.measures.find((m) => m.beginsAt === 0)?.time ?? { beats: 4, beatType: 4 },
  );
  const textures = $derived([
    { value: PROPOSED, label: 'proposed' },
    ...TEXTURE_IDS.filter(
      (id) => isForLevel(id, level, time) && (id !== 'own' || (made?.hasOwnAccompaniment && !isSingAlong)),
    ).map((id) => ({ value: id as string, label: TEXTURES[id].name })),
  ]);
</script>

<div class="flex flex-wrap items-center gap-x-4 gap-y-1">
  <div class="flex items-center gap-2">
    <span id="level-label">Level</span>
    <ToggleGroup.Root
      type="single"
      value={String(level)}
      onValueChange={(value) => value && bench.setRecipe({ level: Number(value) })}
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
    value={bench.recipe.style}
    options={styles}
    onchange={(style: Recipe['style']) => bench.setRecipe({ style })}
  />
  {#if keys.length > 0}
    <Choice
      label="Key"
      value={bench.recipe.key ?? PROPOSED}
      options={keys}
      onchange={(key) => bench.setRecipe({ key: key === PROPOSED ? null : key })}
    />
  {/if}
  <Choice
    label="Left hand"
    shown="Left hand"
    value={bench.recipe.texture ?? PROPOSED}
    options={textures}
    onchange={(texture) => bench.setRecipe({ texture: texture === PROPOSED ? null : (texture as TextureId) })}
  />
  <HandsControls {bench} />
</div>
