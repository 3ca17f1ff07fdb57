<script lang="ts">
  /** A stretch of keyboard with the fingers of the moment on it: one hand shape at a time, never a stream. */
  import { isBlackKey } from '$core/score/pitch';

  interface KeyMark {
    midi: number;
    finger: number;
    hand: 'right' | 'left';
    decided: boolean;
  }
  interface Props {
    low: number;
    high: number;
    marks: readonly KeyMark[];
    label: string;
  }
  let { low, high, marks, label }: Props = $props();

  const WHITE = 24;
  const HEIGHT = 78;
  const keys = $derived.by(() => {
    let x = 0;
    return Array.from({ length: high - low + 1 }, (_, i) => {
      const midi = low + i;
      const black = isBlackKey(midi);
      const left = black ? x - WHITE * 0.31 : x;
      if (!black) x += WHITE;
      return { midi, black, left };
    });
  });
  const width = $derived(keys.filter((k) => !k.black).length * WHITE);
  const place = (midi: number): { x: number; y: number } => {
    const key = keys.find((k) => k.midi === midi);
    if (!key) return { x: -100, y: 0 };
    return key.black ? { x: key.left + WHITE * 0.31, y: 34 } : { x: key.left + WHITE / 2, y: 61 };
  };
</script>

<svg viewBox="-1 -1 {width + 2} {HEIGHT + 18}" class="max-h-full w-full" role="img" aria-label={label}>
  {#each keys.filter((k) => !k.black) as key (key.midi)}
    <rect x={key.left} y="0" width={WHITE} height={HEIGHT} fill="white" stroke="#b9bcc8" />
    {#if key.midi % 12 === 0}
      <text
        x={key.left + WHITE / 2}
        y={HEIGHT + 14}
        text-anchor="middle"
        class="fill-quiet font-mono text-[11px] {key.midi === 60 ? 'font-bold' : ''}"
      >
        C{key.midi / 12 - 1}
      </text>
    {/if}
  {/each}
  {#each keys.filter((k) => k.black) as key (key.midi)}
    <rect x={key.left} y="0" width={WHITE * 0.62} height={HEIGHT * 0.62} fill="var(--color-ink)" rx="1.5" />
  {/each}
  {#each marks as mark (`${mark.hand}${mark.midi}`)}
    {@const { x, y } = place(mark.midi)}
    {@const colour = mark.hand === 'right' ? 'var(--color-plum)' : 'var(--color-moss)'}
    {#if mark.hand === 'right'}
      <circle cx={x} cy={y} r="10" fill={mark.decided ? colour : 'white'} stroke={colour} stroke-width="2" />
    {:else}
      <rect
        x={x - 9.5}
        y={y - 9.5}
        width="19"
        height="19"
        rx="3"
        fill={mark.decided ? colour : 'white'}
        stroke={colour}
        stroke-width="2"
      />
    {/if}
    <text
      {x}
      y={y + 4.5}
      text-anchor="middle"
      class="text-[13px] font-bold"
      fill={mark.decided ? 'white' : colour}
    >
      {mark.finger}
    </text>
  {/each}
</svg>
