<script lang="ts">
  /** Level, key and texture, within reach above the page. */
  import { LEVELS, type LevelNumber } from '$core/arrange/levels';
  import { textureFor, TEXTURES, TEXTURE_IDS, type TextureId } from '$core/arrange/textures';
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
                k.accidentals <= LEVELS[bench.recipe.level].accidentals
                  ? k.signature
                  : `${k.signature}: more than level ${bench.recipe.level} reads`,
            })),
        ]
      : [],
  );
  const textures = $derived(
    TEXTURE_IDS.filter((id) => TEXTURES[id].from <= bench.recipe.level).map((id) => ({
      value: id,
      label: TEXTURES[id].name,
    })),
  );
  const levels = Object.values(LEVELS);
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
    value={textureFor(bench.recipe.level, bench.recipe.texture)}
    options={textures}
    onchange={(texture: TextureId) => bench.setRecipe({ texture })}
  />
  <div class="flex items-center gap-2">
    <span id="level-label">Level</span>
    <ToggleGroup.Root
      type="single"
      value={String(bench.recipe.level)}
      onValueChange={(value) => value && bench.setRecipe({ level: Number(value) as LevelNumber })}
      aria-labelledby="level-label"
      class="flex"
    >
      {#each levels as level (level.level)}
        <ToggleGroup.Item
          value={String(level.level)}
          title={level.name}
          aria-label="Level {level.level}, {level.name}"
          class="h-8 w-9 border-b-2 border-transparent font-semibold text-quiet hover:text-ink data-[state=on]:border-accent data-[state=on]:bg-accent-soft data-[state=on]:text-ink"
        >
          {level.level}
        </ToggleGroup.Item>
      {/each}
    </ToggleGroup.Root>
  </div>
</div>
