<script lang="ts">
  /** The steps of the chunk in hand, each ticked by one tap. */
  import type { TimeSignature } from '$core/score/score';
  import { shortDate, tempoText } from '$ui/text';
  import Check from '@lucide/svelte/icons/check';
  import type { LessonState } from './lesson.svelte';

  let { lesson, time }: { lesson: LessonState; time: TimeSignature } = $props();
</script>

<ul aria-label="Steps">
  {#each lesson.steps as step (step.id)}
    {@const isInHand = step.id === lesson.step?.id}
    <li
      class="grid grid-cols-[2.5rem_minmax(0,1fr)] items-center border-l-[3px] {isInHand
        ? 'border-accent bg-paper'
        : 'border-transparent'}"
    >
      <button
        class="flex h-10 w-10 items-center justify-center"
        aria-label="{step.done ? 'Uncheck' : 'Check off'}: {step.says}"
        aria-pressed={step.done !== null}
        onclick={() => (step.done ? lesson.untick(step.id) : lesson.tick(step))}
      >
        <span
          class="flex h-6 w-6 items-center justify-center rounded-full border-2 border-ink {step.done
            ? 'bg-ink text-paper'
            : step.passed
              ? 'border-dashed'
              : ''}"
          >{#if step.done}<Check size={14} aria-hidden="true" />{/if}</span
        >
      </button>
      <button
        class="flex min-h-10 min-w-0 items-center gap-2 text-left leading-tight"
        aria-current={isInHand ? 'step' : undefined}
        onclick={() => lesson.chooseStep(step.id)}
      >
        <span class={isInHand ? 'font-semibold' : step.done || step.passed ? 'text-quiet' : ''}
          >{step.says}</span
        >
        <span class="ml-auto shrink-0 pr-2 text-sm text-quiet">
          {#if step.done}{step.done.tempo ? `${tempoText(time, step.done.tempo)}, ` : ''}{shortDate(
              step.done.at,
            )}
          {:else if step.waits}after the chunk before
          {:else if isInHand && lesson.asked}{tempoText(time, lesson.asked)}
          {:else if step.ladder.length > 0}{tempoText(time, step.tempo ?? step.ladder[0]!)}{step.ladder
              .length > 1
              ? ` to ${tempoText(time, step.ladder.at(-1)!).replace(/^.*= /, '')}`
              : ''}{/if}
        </span>
      </button>
    </li>
  {/each}
</ul>
