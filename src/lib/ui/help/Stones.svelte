<script lang="ts">
  /** What the stones of a path mean. */
  import Stone from '$ui/path/Stone.svelte';
  import type { MeasureState } from '$core/lessons/progress';

  const STONES: readonly { state?: MeasureState; filled?: boolean; marked?: boolean; says: string }[] = [
    { says: 'a measure to learn; higher means harder' },
    { state: 'right', says: 'right half filled: the right hand is learned' },
    { state: 'left', says: 'left half filled: the left hand is learned' },
    { state: 'both', says: 'filled: hands together are learned; on the bench, you made a choice here' },
    { state: 'goal', says: 'filled with a dot: learned at goal tempo' },
    { marked: true, says: 'a roof: you marked it as a hard spot' },
  ];
</script>

<ul class="grid gap-1">
  {#each STONES as { says, ...stone } (says)}
    <li class="flex items-center gap-3">
      <svg width="26" height="26" class="shrink-0" aria-hidden="true"
        ><Stone x={13} y={15} r={6.5} {...stone} /></svg
      >
      <span class="first-letter:uppercase">{says}.</span>
    </li>
  {/each}
  <li class="flex items-center gap-3">
    <svg width="26" height="26" class="shrink-0 text-quiet" aria-hidden="true">
      <rect
        x="2"
        y="7"
        width="22"
        height="13"
        rx="6.5"
        fill="none"
        stroke="currentColor"
        stroke-dasharray="3 3"
      />
    </svg>
    <span>A dashed shape: these measures repeat earlier ones. They are drawn once.</span>
  </li>
</ul>
