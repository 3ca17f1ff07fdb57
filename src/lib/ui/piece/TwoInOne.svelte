<script lang="ts">
  /** One version of two: the right hand of one, the left hand of the other, in the whole piece or in some sections. */
  import { enhance } from '$app/forms';
  import { measureId } from '$core/score/measureId';
  import Once from '$ui/form/Once.svelte';

  interface Props {
    versions: readonly { readonly id: string; readonly text: string }[];
    /** Indices of their first and last measures. */
    sections: readonly { readonly label: string; readonly from: number; readonly to: number }[];
  }
  let { versions, sections }: Props = $props();
</script>

<details class="mt-3">
  <summary class="w-fit cursor-pointer text-quiet">Two versions in one</summary>
  <form method="post" action="?/combine" use:enhance class="grid gap-3 py-2">
    <Once />
    <div class="flex flex-wrap gap-4">
      {#each ['right', 'left'] as const as hand, i (hand)}
        <label class="grid text-sm text-quiet"
          >{hand === 'right' ? 'Right hand of' : 'Left hand of'}
          <select name={hand} class="field text-base text-ink">
            {#each versions as { id, text }, k (id)}<option value={id} selected={k === i}>{text}</option
              >{/each}
          </select></label
        >
      {/each}
    </div>
    {#if sections.length > 1}
      <fieldset class="flex flex-wrap items-center gap-x-4 gap-y-1">
        <legend class="text-sm text-quiet">Sections with the left hand of the other version</legend>
        {#each sections as { label, from, to } (from)}
          <label class="flex min-h-8 items-center gap-2">
            <input
              class="tick"
              type="checkbox"
              name="section"
              value="{measureId(from)} {measureId(to)}"
              checked
            />{label}</label
          >
        {/each}
        <input type="hidden" name="sections" value={sections.length} />
      </fieldset>
    {/if}
    <p><button class="action">Make this version</button></p>
  </form>
</details>
