<script lang="ts">
  /** Level, key and texture, within reach above the page. */
  import { levelText } from '$core/arrange/levels';
  import { isForLevel, TEXTURES, TEXTURE_IDS, type TextureId } from '$core/arrange/textures';
  import { keyOptions } from '$core/theory/easyKeys';
  import { keyCode, keyName } from '$core/theory/key';
  import { ToggleGroup } from 'bits-ui';
  import type { Bench } from './bench.svelte';
  import Choice from './Choice.svelte';

  let { bench }: { bench: Bench } = $props();

  const AS_IT_IS = 'source';
  const sourceKey = $derived(bench.version?.sourceKey);
  const keys = $derived(
    sourceKey
      ? [
          { value: AS_IT_IS, label: `${keyName(sourceKey)}, as it is`, note: '' },
          ...keyOptions(sourceKey.mode)
            .filter((k) => k.code !== keyCode(sourceKey))
            .map((k) => ({
              value: k.code,
              label: k.name,
              note:
                k.accidentals <= (bench.contract.accidentals ?? 7)
                  ? k.signature
                  : `${k.signature}: more than level ${levelText(bench.recipe.level)} reads`,
            })),
        ]
      : [],
  );
  const PROPOSED = 'proposed';
  const time = $derived(bench.version?.score.measures[0]?.time ?? { beats: 4, beatType: 4 });
  const textures = $derived([
    { value: PROPOSED, label: 'as the level has it' },
    ...TEXTURE_IDS.filter((id) => isForLevel(id, bench.recipe.level, time)).map((id) => ({
      value: id as string,
      label: TEXTURES[id].name,
    })),
  ]);
</script>

<div class="flex flex-wrap items-center gap-x-6 gap-y-1">
  {#if keys.length > 0}
    <Choice
      label="Key"
      value={bench.recipe.key ?? AS_IT_IS}
      options={keys}
      onchange={(key) => bench.setRecipe({ key: key === AS_IT_IS ? null : key })}
    />
  {/if}
  <Choice
    label="Left hand"
    value={bench.recipe.texture ?? PROPOSED}
    options={textures}
    onchange={(texture) => bench.setRecipe({ texture: texture === PROPOSED ? null : (texture as TextureId) })}
  />
  <div class="flex items-center gap-2">
    <span id="level-label">Level</span>
    <ToggleGroup.Root
      type="single"
      value={String(bench.recipe.level)}
      onValueChange={(value) => value && bench.setRecipe({ level: Number(value) })}
      aria-labelledby="level-label"
      class="flex"
    >
      {#each bench.levels as level (level.level)}
        <ToggleGroup.Item
          value={String(level.level)}
          title={level.name}
          aria-label="Level {levelText(level.level)}, {level.name}"
          class="h-8 w-9 border-b-2 border-transparent font-semibold text-quiet hover:text-ink data-[state=on]:border-accent data-[state=on]:bg-accent-soft data-[state=on]:text-ink"
        >
          {levelText(level.level)}
        </ToggleGroup.Item>
      {/each}
    </ToggleGroup.Root>
  </div>
</div>
