<script lang="ts">
  /** A kind of decision in the panel of the measure: what is decided here and in the section, under a heading. */
  import { kindOf, type KindId } from '$core/decisions/registry';
  import type { Snippet } from 'svelte';
  import DecisionSelect from './DecisionSelect.svelte';

  interface Props {
    kind: KindId;
    title?: string;
    /** What stands between the heading and the lists. */
    children?: Snippet;
  }
  let { kind, title, children }: Props = $props();
  const facts = $derived(kindOf(kind));
</script>

<div>
  <h3 class="font-semibold">{title ?? facts.name}</h3>
  {@render children?.()}
  {#each ['measure', 'section'] as const as scope (scope)}
    {#if facts.scopes.includes(scope)}<DecisionSelect {kind} {scope} />{/if}
  {/each}
</div>
