<script lang="ts">
  /** The five fingers as buttons, for the note that is selected: the one it has is pressed, filled once it is the teacher's choice. */
  import { perform } from './commands';
  import { getBench } from './state/bench.svelte';

  let { note, hand }: { note: string; hand: 'right' | 'left' } = $props();

  const bench = getBench();
  const FINGERS = [1, 2, 3, 4, 5] as const;
  const now = $derived(bench.view.version?.fingers[note]);
  const colours = $derived(
    hand === 'right'
      ? { shape: 'rounded-full', line: 'border-plum', ink: 'text-plum', fill: 'bg-plum' }
      : { shape: 'rounded-md', line: 'border-moss', ink: 'text-moss', fill: 'bg-moss' },
  );
</script>

<div
  class="flex flex-wrap items-center gap-1.5 pointer-coarse:gap-1 desk:pointer-coarse:gap-0"
  role="group"
  aria-label="Finger for this note"
>
  {#each FINGERS as finger (finger)}
    {@const isNow = now?.finger === finger}
    <button
      type="button"
      class={[
        'h-8 w-8 border-2 text-sm font-bold pointer-coarse:h-11 pointer-coarse:w-11 pointer-coarse:text-base',
        colours.shape,
        isNow ? colours.line : 'border-hairline',
        isNow && now?.decided
          ? `${colours.fill} text-paper`
          : isNow
            ? `bg-paper ${colours.ink}`
            : 'bg-paper text-ink',
      ]}
      aria-pressed={isNow}
      aria-label="Finger {finger}{isNow ? (now?.decided ? ', your choice' : ', suggested') : ''}"
      onclick={() => perform(bench, { do: 'decide here', kind: 'finger', value: finger })}>{finger}</button
    >
  {/each}
  {#if now?.decided}
    <button
      type="button"
      class="link ml-1 text-sm desk:hidden"
      onclick={() => perform(bench, { do: 'give note back' })}>Reset</button
    >
  {/if}
</div>
