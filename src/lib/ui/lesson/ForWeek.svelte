<script lang="ts">
  /** What is set for the week: proposed from what was done, the teacher's with one tap. */
  import type { TimeSignature } from '$core/score/score';
  import { shortSteps } from './weekText';
  import { tempoText } from '$ui/text';
  import type { LessonState } from './lesson.svelte';

  interface Props {
    lesson: LessonState;
    pieces: Readonly<
      Record<string, { title: string; time: TimeSignature; where?: (chunk: string) => string }>
    >;
  }
  let { lesson, pieces }: Props = $props();
  const MINUTES = [5, 10, 15, 20, 25, 30, 40, 60] as const;
</script>

<section class="mt-2 border-t border-hairline pt-2" aria-label="Practice for the week">
  <div class="flex items-center gap-2">
    <h2>Practice for the week</h2>
    <label class="ml-auto flex items-center gap-1.5 text-sm">
      <select
        class="field"
        value={lesson.minutes}
        onchange={(e) => lesson.setMinutes(Number(e.currentTarget.value))}
      >
        {#each [...new Set([...MINUTES, lesson.minutes])].sort((a, b) => a - b) as n (n)}<option value={n}
            >{n}</option
          >{/each}
      </select>
      minutes a day
    </label>
  </div>
  <ul class="mt-1">
    {#each lesson.planned as item, i (item.assignment + item.chunk + item.why)}
      {@const piece = pieces[item.assignment]}
      <li class="flex items-baseline gap-2 py-0.5">
        <span class="w-7 shrink-0 text-right font-mono text-sm">{item.minutes}′</span>
        <span class="min-w-0 {lesson.week ? '' : 'text-quiet'}">
          {piece?.title}, {piece?.where?.(item.chunk) ?? ''}: {shortSteps(item.steps, (id) =>
            lesson.nameOf(id),
          )}{item.tempo && piece ? `, ${tempoText(piece.time, item.tempo)}` : ''}
        </span>
        <button
          class="ml-auto h-7 w-7 shrink-0 text-quiet hover:text-ink"
          aria-label="Remove {piece?.title}"
          onclick={() => lesson.setWeek(lesson.planned.filter((_, n) => n !== i))}>×</button
        >
      </li>
    {:else}
      <li class="text-quiet">Nothing next and nothing due.</li>
    {/each}
  </ul>
  <p class="mt-1 flex flex-wrap items-center gap-x-4">
    {#if lesson.week}
      <span role="status">Saved.</span>
      <button class="link" onclick={() => lesson.setWeek(null)}>Suggest again</button>
    {:else}
      <button class="link" title="W" onclick={() => lesson.setWeek()}>Set for the week</button>
    {/if}
    <label class="ml-auto flex items-center gap-1.5 text-sm text-quiet"
      >practiced last week
      <input
        class="field w-16"
        type="number"
        min="0"
        max="600"
        inputmode="numeric"
        value={lesson.practised ?? ''}
        onchange={(e) =>
          lesson.setPractised(e.currentTarget.value === '' ? null : Number(e.currentTarget.value))}
      /> min</label
    >
  </p>
</section>
