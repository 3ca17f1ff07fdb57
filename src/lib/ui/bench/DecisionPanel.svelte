<script lang="ts">
  /** A kind of decision in the panel of the measure: a line that says what holds, and opens what is decided here and in the section. */
  import { kindOf, type KindId } from '$core/decisions/registry';
  import type { Snippet } from 'svelte';
  import DecisionSelect from './DecisionSelect.svelte';

  interface Props {
    kind: KindId;
    title?: string;
    /** What holds here, in a word or two. */
    says?: string | undefined;
    /** What stands between the heading and the lists. */
    children?: Snippet;
  }
  let { kind, title, says, children }: Props = $props();
  const facts = $derived(kindOf(kind));
</script>

<div class="border-t border-hairline pt-2">
  <h3 class="font-semibold">
    {title ?? facts.name}{#if says}<span class="ml-2 font-normal text-quiet">{says}</span>{/if}
  </h3>
  {@render children?.()}
  <div class="grid grid-cols-2 gap-2">
    {#each ['measure', 'section'] as const as scope (scope)}
      {#if facts.scopes.includes(scope)}<DecisionSelect {kind} {scope} />{/if}
    {/each}
  </div>
</div>
