<script lang="ts">
  /** Whose hands and which keyboard a version is for; and, where there are several lines, which has the melody. */
  import { KEYBOARDS } from '$core/hands/register';
  import type { Recipe } from '$core/version/recipe';
  import { reachName } from '$ui/text';
  import Opening from '$ui/form/Opening.svelte';
  import { perform } from './commands';
  import DecisionChoice from './DecisionChoice.svelte';
  import { getBench } from './state/bench.svelte';

  const bench = getBench();
  const recipe = $derived(bench.document.recipe);
  const set = (part: Partial<Recipe>): void => perform(bench, { do: 'set recipe', part });

  const REACHES = [7, 8, 9, 10] as const;
  const sizes = [49, 61, 76, 88] as const;
  const { right, left } = $derived(recipe.reach);
  const summary = $derived(
    `${right === left ? reachName(right) : `${reachName(left)} left, ${reachName(right)} right`}; ${recipe.keyboard} keys`,
  );
  /** Most keyboards go without saying. */
  const inShort = $derived(recipe.keyboard === 61 ? summary.replace(/; 61 keys$/, '') : summary);
</script>

<Opening label="Hands and keyboard" says="Hands and keyboard: {summary}">
  {#snippet word()}<span class="text-quiet">reach:</span> {inShort}{/snippet}

  {#each [['left', 'Left hand reaches'], ['right', 'Right hand reaches']] as const as [hand, label] (hand)}
    <label class="grid gap-0.5 text-sm text-quiet">
      {label}
      <select
        class="field text-base text-ink"
        value={recipe.reach[hand]}
        onchange={(event) =>
          set({
            reach: {
              ...recipe.reach,
              [hand]: Number(event.currentTarget.value) as Recipe['reach']['left'],
            },
          })}
      >
        {#each REACHES as reach (reach)}<option value={reach}>{reachName(reach)}</option>{/each}
      </select>
    </label>
  {/each}
  <label class="grid gap-0.5 text-sm text-quiet">
    Keyboard
    <select
      class="field text-base text-ink"
      value={recipe.keyboard}
      onchange={(event) => set({ keyboard: Number(event.currentTarget.value) as Recipe['keyboard'] })}
    >
      {#each sizes as size (size)}<option value={size}>{KEYBOARDS[size].name}</option>{/each}
    </select>
  </label>
  <div><DecisionChoice kind="melody" /></div>
  {#if bench.taste && JSON.stringify(bench.taste) !== JSON.stringify(recipe.taste)}
    <button class="link justify-self-start text-sm" onclick={() => set({ taste: bench.taste })}>
      Update to current fingering preferences
    </button>
  {/if}
  {#if recipe.taste}
    <button class="link justify-self-start text-sm" onclick={() => set({ taste: null })}>
      Finger without fingering preferences
    </button>
  {/if}
  <p class="text-sm text-quiet">A reach is a limit, not a goal. Never force a stretch.</p>
</Opening>
