<script lang="ts">
  /** What was changed here and in another window: both are shown, and nothing is lost before the teacher has chosen. */
  import { plural } from '$ui/text';
  import type { LessonFields } from '$core/lessons/record';
  import type { LessonState } from './lesson.svelte';

  let { lesson }: { lesson: LessonState } = $props();

  const NAMES: Readonly<Record<keyof LessonFields, string>> = {
    note: 'Lesson notes',
    week: 'Practice for the week',
    minutesSet: 'Minutes a day',
    practised: 'Minutes practiced',
  };
  function text(field: string, fields: LessonFields): string {
    const value = fields[field as keyof LessonFields];
    if (value === null || value === undefined || value === '') return 'empty';
    if (typeof value === 'string') return `“${value}”`;
    return typeof value === 'number' ? plural(value, 'minute') : plural(value.length, 'item');
  }
  const fields = $derived(lesson.conflict ? Object.keys(lesson.conflict.there) : []);
</script>

{#if lesson.conflict}
  {@const { there, typed } = lesson.conflict}
  <div class="mt-2 border-l-2 border-alarm pl-3 text-sm" role="alert">
    <p>Changed in another window. Choose what to save; nothing is lost.</p>
    <dl class="mt-1">
      {#each fields as field (field)}
        <dt class="font-semibold">{NAMES[field as keyof LessonFields]}</dt>
        <dd>Saved: {text(field, there)}</dd>
        <dd>Here: {text(field, typed)}</dd>
      {/each}
    </dl>
    <p class="mt-1 flex flex-wrap gap-x-4">
      <button class="link min-h-6" onclick={() => lesson.settle('mine')}>Use mine</button>
      <button class="link min-h-6" onclick={() => lesson.settle('theirs')}>Use the saved one</button>
      {#if there.note && typed.note}
        <button class="link min-h-6" onclick={() => lesson.settle('both')}>Save both notes</button>
      {/if}
    </p>
  </div>
{/if}
