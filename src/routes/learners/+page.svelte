<script lang="ts">
  import Overview from '$ui/learner/Overview.svelte';
  import PieceLine from '$ui/learner/PieceLine.svelte';
  import { levelText } from '$core/arrange/levels';
  import { plural, weekdayName } from '$ui/text';

  let { data } = $props();
  let asTable = $state(false);
</script>

<svelte:head><title>Students · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-6xl px-4 py-7 sm:px-7">
  <div class="flex flex-wrap items-baseline gap-x-5 gap-y-2">
    <h1>Students</h1>
    {#if data.learners.length > 0}
      <div class="flex" role="radiogroup" aria-label="View">
        {#each [[false, 'List'], [true, 'Table']] as const as [value, says] (says)}
          <button
            role="radio"
            aria-checked={asTable === value}
            class="h-8 border-b-2 px-2 {asTable === value
              ? 'border-ink'
              : 'border-transparent text-quiet hover:text-ink'}"
            onclick={() => (asTable = value)}>{says}</button
          >
        {/each}
      </div>
    {/if}
    <a href="/learners/new" class="action ml-auto">Add a student</a>
  </div>
  <p class="mt-1 text-quiet">
    {#each data.classes as { id, name, members }, i (id)}{i > 0 ? '; ' : 'Classes: '}<a
        class="link"
        href="/classes/{id}">{name}</a
      >
      ({members.length}){/each}{data.classes.length > 0 ? '. ' : ''}<a class="link" href="/classes/new"
      >New class</a
    >
  </p>
  {#if asTable}
    <Overview learners={data.learners} today={data.today} />
  {:else}
    <ul class="mt-5">
      {#each data.learners as learner (learner.id)}
        <li class="grid gap-x-6 gap-y-1 border-t border-hairline py-4 sm:grid-cols-[11rem_minmax(0,1fr)]">
          <div>
            <a href="/learners/{learner.id}" class="text-lg font-semibold hover:text-accent">{learner.name}</a
            >
            <p class="text-quiet">
              {learner.weekday ? weekdayName(learner.weekday) : 'no fixed day'}
              {learner.time ?? ''}<br class="hidden sm:block" />
              level {levelText(learner.level)}{learner.stuck ? ', stuck' : ''}
            </p>
          </div>
          <ul class="grid min-w-0 gap-3">
            {#each learner.pieces as piece (piece.id)}
              <li><PieceLine {piece} /></li>
            {:else}
              <li class="text-quiet">
                {learner.known > 0
                  ? `${plural(learner.known, 'piece')} learned; no current piece.`
                  : `No piece yet. Open a version and assign it to ${learner.name}.`}
              </li>
            {/each}
            {#if learner.more > 0}<li class="text-quiet">and {plural(learner.more, 'more piece')}</li>{/if}
          </ul>
        </li>
      {:else}
        <li class="border-t border-hairline py-4 text-quiet">
          Your students appear here, each with the next step.
        </li>
      {/each}
    </ul>
  {/if}
</main>
