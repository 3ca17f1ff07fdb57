<script lang="ts">
  /** One chord on a short keyboard: the keys that sound, nothing else. */
  import { isBlackKey } from '$core/theory/pitch';

  interface Props {
    keys: readonly number[];
    label: string;
  }
  let { keys, label }: Props = $props();

  const WHITE = 11;
  const HEIGHT = 34;
  /** A keyboard begins and ends between white keys. */
  const low = $derived(keys[0]! - (isBlackKey(keys[0]!) ? 1 : 0));
  const high = $derived(Math.max(low + 16, keys.at(-1)! + (isBlackKey(keys.at(-1)!) ? 1 : 0)));
  const laid = $derived.by(() => {
    let x = 0;
    return Array.from({ length: high - low + 1 }, (_, i) => {
      const midi = low + i;
      const black = isBlackKey(midi);
      const left = black ? x - WHITE * 0.32 : x;
      if (!black) x += WHITE;
      return { midi, black, left, sounds: keys.includes(midi) };
    });
  });
  const width = $derived(laid.filter((k) => !k.black).length * WHITE);
</script>

<svg
  width={width + 2}
  height={HEIGHT + 2}
  viewBox="-1 -1 {width + 2} {HEIGHT + 2}"
  role="img"
  aria-label={label}
>
  {#each laid.filter((k) => !k.black) as key (key.midi)}
    <rect
      x={key.left}
      y="0"
      width={WHITE}
      height={HEIGHT}
      fill="var(--color-key)"
      stroke="var(--color-line)"
    />
    {#if key.sounds}<circle
        cx={key.left + WHITE / 2}
        cy={HEIGHT - 6.5}
        r="3.6"
        fill="var(--color-accent)"
      />{/if}
  {/each}
  {#each laid.filter((k) => k.black) as key (key.midi)}
    <rect x={key.left} y="0" width={WHITE * 0.64} height={HEIGHT * 0.6} fill="var(--color-ink)" />
    {#if key.sounds}<circle
        cx={key.left + WHITE * 0.32}
        cy={HEIGHT * 0.6 - 5}
        r="2.7"
        fill="var(--color-key)"
      />{/if}
  {/each}
</svg>
