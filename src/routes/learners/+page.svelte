<script lang="ts">
  import PieceLine from '$ui/learner/PieceLine.svelte';
  import { plural, WEEKDAYS } from '$ui/text';

  let { data } = $props();
</script>

<svelte:head><title>Learners · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-5xl px-7 py-7">
  <div class="flex items-baseline">
    <h1>Learners</h1>
    <a href="/learners/new" class="action ml-auto">Add a learner</a>
  </div>
  <ul class="mt-5">
    {#each data.learners as learner (learner.id)}
      <li class="grid grid-cols-[11rem_minmax(0,1fr)] gap-6 border-t border-hairline py-4">
        <div>
          <a href="/learners/{learner.id}" class="text-lg font-semibold hover:text-accent">{learner.name}</a>
          <p class="text-quiet">
            {learner.weekday ? WEEKDAYS[learner.weekday - 1] : 'no fixed day'}
            {learner.time ?? ''}<br />level {learner.level}
          </p>
        </div>
        <ul class="grid min-w-0 gap-3">
          {#each learner.pieces as piece (piece.id)}
            <li><PieceLine {piece} /></li>
          {:else}
            <li class="text-quiet">No piece yet. Open a version and give it to {learner.name}.</li>
          {/each}
          {#if learner.more > 0}<li class="text-quiet">and {plural(learner.more, 'more piece')}</li>{/if}
        </ul>
      </li>
    {:else}
      <li class="border-t border-hairline py-4 text-quiet">
        Those you teach stand here, each with what comes next.
      </li>
    {/each}
  </ul>
</main>
