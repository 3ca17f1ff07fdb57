<script lang="ts">
  /** Hands that the version has from others: which, where, and from which version; each can be given back. */
  import { heldIn } from '$core/version/otherHands';
  import { capital } from '$core/capital';
  import { measuresText } from '$ui/text';
  import { perform } from './commands';
  import { getBench } from './state/bench.svelte';

  const bench = getBench();
  const hands = $derived(bench.document.recipe.otherHands);
  const placeOf = (hand: (typeof hands)[number]): string => {
    const { layout } = bench;
    if (!layout || hand.measures === null) return '';
    const held = heldIn(hand, layout);
    const numbers = layout.measures.map((m) => m.number);
    return held
      ? `, ${measuresText(numbers, held.from, held.to)}`
      : ', in measures that aren’t here any more';
  };
  const without = (index: number): void =>
    perform(bench, { do: 'set recipe', part: { otherHands: hands.filter((_, i) => i !== index) } });
</script>

{#if hands.length > 0}
  <ul class="text-sm text-quiet" aria-label="From other versions">
    {#each hands as hand, i (i)}
      <li>
        {capital(hand.hand)} hand of
        <a class="link" href="/versions/{hand.of.version}">{hand.of.name}</a>{placeOf(hand)}
        <button type="button" class="link ml-2" onclick={() => without(i)}
          >Use this version’s {hand.hand} hand</button
        >
      </li>
    {/each}
  </ul>
{/if}
