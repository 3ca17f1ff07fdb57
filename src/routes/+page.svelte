<script lang="ts">
  import PieceLine from '$ui/learner/PieceLine.svelte';
  import { plural, WEEKDAYS } from '$ui/text';

  let { data } = $props();
</script>

<svelte:head><title>Today · Key Path</title></svelte:head>

<main id="main" class="mx-auto grid max-w-6xl gap-x-12 px-7 py-7 lg:grid-cols-[minmax(0,1fr)_17rem]">
  <div class="min-w-0">
    <h1>{data.date}</h1>
    <p class="text-quiet">
      {data.lessons.length > 0 ? `${plural(data.lessons.length, 'lesson')} today.` : 'No lessons today.'}
    </p>
    {#if data.empty.pieces}
      <p class="mt-6 border-t border-hairline pt-4">
        Nothing is here yet. <a class="link" href="/pieces">Bring a piece</a>{data.empty.learners
          ? ' and '
          : ''}{#if data.empty.learners}<a class="link" href="/learners/new">add a learner</a>{/if}.
      </p>
    {/if}
    <ul class="mt-5">
      {#each data.lessons as learner, i (learner.id)}
        <li
          class="grid grid-cols-[4.5rem_minmax(0,1fr)] gap-3 border-t border-hairline py-4 {i === 0
            ? 'border-l-[3px] border-l-accent bg-paper pl-4'
            : 'pl-[19px]'}"
        >
          <span class="font-mono text-lg">{learner.time ?? ''}</span>
          <div class="min-w-0 pr-4">
            <h2>{learner.name}</h2>
            {#each learner.pieces as piece (piece.id)}
              <PieceLine {piece} />
            {:else}
              <p class="text-quiet">No piece yet.</p>
            {/each}
            {#if learner.more > 0}<p class="text-quiet">and {plural(learner.more, 'more piece')}</p>{/if}
            {#if learner.last}<p class="mt-1 text-quiet">Last time: {learner.last.note}</p>{/if}
            <p class="mt-2">
              <a class={i === 0 ? 'action' : 'link'} href="/learners/{learner.id}">Open {learner.name}</a>
            </p>
          </div>
        </li>
      {/each}
    </ul>
  </div>
  <aside class="mt-8 lg:mt-2" aria-labelledby="week">
    <h2 id="week">This week</h2>
    <ul class="mt-1">
      {#each data.week as day (day.weekday)}
        <li class="grid grid-cols-[3.2rem_minmax(0,1fr)] py-0.5 {day.isToday ? 'font-semibold' : ''}">
          <span class="font-mono text-quiet">{WEEKDAYS[day.weekday - 1]!.slice(0, 3)}</span>
          <span>
            {#each day.learners as learner, i (learner.id)}{i > 0 ? ', ' : ''}<a
                class="hover:text-accent"
                href="/learners/{learner.id}">{learner.name}{learner.time ? ` ${learner.time}` : ''}</a
              >{:else}<span class="font-normal text-quiet">none</span>{/each}
          </span>
        </li>
      {/each}
    </ul>
  </aside>
</main>
