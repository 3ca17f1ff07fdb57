<script lang="ts">
  /** One measure on a path. The right half fills when the right hand has it, the left when the left has it; an eye at goal tempo. */
  import type { MeasureState } from '$core/lessons/progress';

  interface Props {
    x: number;
    y: number;
    r: number;
    state?: MeasureState | undefined;
    filled?: boolean;
    /** The teacher has marked the measure as hard. */
    marked?: boolean;
    current?: boolean;
  }
  let { x, y, r, state, filled = false, marked = false, current = false }: Props = $props();
  const whole = $derived(filled || state === 'both' || state === 'goal');
</script>

{#if marked}
  <path
    d="M{x - 4} {y - r - 3} L{x} {y - r - 7} L{x + 4} {y - r - 3}"
    fill="none"
    stroke="var(--color-ink)"
    stroke-width="1.6"
  />
{/if}
{#if current}
  <circle cx={x} cy={y} r={r + 4.5} fill="none" stroke="var(--color-accent)" stroke-width="2.2" />
{/if}
<circle
  cx={x}
  cy={y}
  {r}
  fill={whole ? 'var(--color-ink)' : 'var(--color-paper)'}
  stroke="var(--color-ink)"
  stroke-width="1.6"
/>
{#if state === 'right'}
  <path d="M{x} {y - r} A{r} {r} 0 0 1 {x} {y + r} Z" fill="var(--color-plum)" />
{:else if state === 'left'}
  <path d="M{x} {y - r} A{r} {r} 0 0 0 {x} {y + r} Z" fill="var(--color-moss)" />
{:else if state === 'goal'}
  <circle cx={x} cy={y} r={r * 0.38} fill="var(--color-paper)" />
{/if}
