<script lang="ts">
  /**
   * The learner's keyboard with the hand's shape on it: one shape at a time, never a stream. Fingers on the keys that are down, the
   * names of these keys below, and the keys that come next as rings. With `onkey` the keys can be pressed.
   */
  import { isBlackKey } from '$core/theory/pitch';

  interface KeyMark {
    midi: number;
    finger: number;
    hand: 'right' | 'left';
    decided: boolean;
    name?: string;
  }
  interface Props {
    low: number;
    high: number;
    marks: readonly KeyMark[];
    /** Keys that are struck next. */
    next?: readonly { readonly midi: number; readonly hand: 'right' | 'left' }[];
    label: string;
    onkey?: (midi: number) => void;
  }
  let { low, high, marks, next = [], label, onkey }: Props = $props();

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
  const byMidi = $derived(new Map(keys.map((k) => [k.midi, k])));
  const place = (midi: number): { x: number; y: number } => {
    const key = byMidi.get(midi);
    if (!key) return { x: -100, y: 0 };
    return key.black ? { x: key.left + WHITE * 0.31, y: 34 } : { x: key.left + WHITE / 2, y: 61 };
  };
  const colourOf = (hand: 'right' | 'left'): string =>
    hand === 'right' ? 'var(--color-key-right)' : 'var(--color-key-left)';
  /** Names give way to each other, and the octave's to them. */
  const named = $derived(
    marks.filter((m) => m.name && byMidi.has(m.midi)).map((m) => ({ ...m, x: place(m.midi).x })),
  );
  const isFree = (x: number): boolean => named.every((m) => Math.abs(m.x - x) > WHITE);
  const press = (midi: number) =>
    onkey ? { onpointerdown: () => onkey(midi), class: 'cursor-pointer' } : {};
</script>

<svg viewBox="-1 -1 {width + 2} {HEIGHT + 20}" class="max-h-full w-full" role="img" aria-label={label}>
  {#each keys.filter((k) => !k.black) as key (key.midi)}
    <rect
      x={key.left}
      y="0"
      width={WHITE}
      height={HEIGHT}
      fill="var(--color-key)"
      stroke="var(--color-hairline)"
      data-midi={key.midi}
      {...press(key.midi)}
    />
    {#if key.midi % 12 === 0 && isFree(key.left + WHITE / 2)}
      <text
        x={key.left + WHITE / 2}
        y={HEIGHT + 15}
        text-anchor="middle"
        class="fill-quiet font-mono text-[12px] {key.midi === 60 ? 'font-bold' : ''}"
      >
        C{key.midi / 12 - 1}
      </text>
    {/if}
  {/each}
  {#each keys.filter((k) => k.black) as key (key.midi)}
    <rect
      x={key.left}
      y="0"
      width={WHITE * 0.62}
      height={HEIGHT * 0.62}
      fill="var(--color-black-key)"
      rx="1.5"
      data-midi={key.midi}
      {...press(key.midi)}
    />
  {/each}
  {#each next as { midi, hand } (`${hand}${midi}`)}
    {@const { x, y } = place(midi)}
    <circle
      cx={x}
      cy={y}
      r="6.5"
      fill={byMidi.get(midi)?.black ? 'var(--color-key)' : 'none'}
      stroke={colourOf(hand)}
      stroke-width="1.6"
      stroke-dasharray="2.5 2.5"
      pointer-events="none"
    />
  {/each}
  {#each marks as mark (`${mark.hand}${mark.midi}`)}
    {@const { x, y } = place(mark.midi)}
    {@const colour = colourOf(mark.hand)}
    <g pointer-events="none">
      {#if mark.hand === 'right'}
        <circle
          cx={x}
          cy={y}
          r="10"
          fill={mark.decided ? colour : 'var(--color-key)'}
          stroke={colour}
          stroke-width="2"
        />
      {:else}
        <rect
          x={x - 9.5}
          y={y - 9.5}
          width="19"
          height="19"
          rx="3"
          fill={mark.decided ? colour : 'var(--color-key)'}
          stroke={colour}
          stroke-width="2"
        />
      {/if}
      <text
        {x}
        y={y + 4.5}
        text-anchor="middle"
        class="text-[13px] font-bold"
        fill={mark.decided ? 'var(--color-key)' : colour}
      >
        {mark.finger}
      </text>
    </g>
  {/each}
  {#each named as { midi, hand, name, x } (`${hand}${midi}`)}
    <text {x} y={HEIGHT + 15} text-anchor="middle" class="fill-ink text-[13px] font-semibold">{name}</text>
  {/each}
</svg>
