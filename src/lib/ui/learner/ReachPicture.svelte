<script lang="ts">
  /** How a span is measured: thumb and little finger on white keys, without strain. */
  import { isBlackKey } from '$core/theory/pitch';
  import Keys from '$ui/keys/Keys.svelte';
  import { reachName } from '$ui/text';

  let { reach, hand }: { reach: number; hand: 'right' | 'left' } = $props();
  const LOW = 48;
  const HIGH = 67;
  const white = Array.from({ length: HIGH - LOW + 1 }, (_, i) => LOW + i).filter((midi) => !isBlackKey(midi));
  const ends = $derived([white[1]!, white[1 + reach - 1] ?? HIGH]);
  const marks = $derived(
    ends.map((midi, i) => ({ midi, hand, finger: (hand === 'right') === (i === 0) ? 1 : 5, decided: true })),
  );
</script>

<Keys
  low={LOW}
  high={HIGH}
  {marks}
  label="{hand} hand: thumb and little finger over {reachName(reach)}, {reach} white keys with both ends"
/>
