<script lang="ts">
  /** The lessons of the day in order, each one click away; beside them the week and what can be prepared. */
  import FirstSteps from '$ui/learner/FirstSteps.svelte';
  import LocaleForm from '$ui/settings/LocaleForm.svelte';
  import Prepare from '$ui/learner/Prepare.svelte';
  import PieceLine from '$ui/learner/PieceLine.svelte';
  import { weekdayOf } from '$core/lessons/calendar';
  import { longDay, plural, shortDate, shortWeekday, timeText } from '$ui/text';

  let { data } = $props();
  const given = $derived(data.lessons.filter((l) => l.isGiven));
  /** The lesson that is opened next: the first that is not over. */
  const first = $derived(
    given.find((l) => !(l.learner?.last?.date === data.today && !l.learner.last.isOpen)),
  );
</script>

<svelte:head><title>Today · Key Path</title></svelte:head>

<main id="main" class="mx-auto grid max-w-6xl gap-x-12 px-4 py-7 sm:px-7 lg:grid-cols-[minmax(0,1fr)_18rem]">
  <div class="min-w-0">
    <h1>{longDay(data.today)}</h1>
    <p class="text-quiet">
      {given.length > 0 ? `${plural(given.length, 'lesson')} today.` : 'No lessons today.'}
      {#if given.length === 0 && data.steps.hasLesson}Here’s what you can prepare.{/if}
    </p>
    {#if data.locale && !data.steps.hasLesson}
      <section class="mt-5 border-l-[3px] border-accent py-1 pl-4" aria-labelledby="locale">
        <h2 id="locale">Dates, times and note names</h2>
        <p class="mb-2 text-quiet">Suggested from your browser. You can change them in Studio.</p>
        <LocaleForm {...data.locale} isFirst />
      </section>
    {/if}
    {#if !data.steps.hasLesson}<FirstSteps steps={data.steps} />{/if}
    <ul class="mt-5">
      {#each data.lessons as lesson (lesson.slot + lesson.usual)}
        {@const isFirst = lesson === first}
        <li
          class="grid grid-cols-[5rem_minmax(0,1fr)] gap-3 border-t border-hairline py-4 sm:grid-cols-[5.5rem_minmax(0,1fr)] {isFirst
            ? 'border-l-[3px] border-l-accent bg-paper pl-4'
            : 'pl-[19px]'}"
        >
          <span class="font-mono text-lg {lesson.isGiven ? '' : 'text-quiet line-through'}"
            >{timeText(lesson.time)}</span
          >
          <div class="min-w-0 pr-4">
            <div class="flex flex-wrap items-baseline gap-x-3">
              <h2>
                <a
                  href={lesson.groupId ? `/classes/${lesson.groupId}` : `/learners/${lesson.learner?.id}`}
                  class="hover:text-accent">{lesson.name}</a
                >
              </h2>
              {#if lesson.state === 'moved'}<span class="text-quiet"
                  >moved from {shortDate(lesson.usual)}</span
                >
              {:else if lesson.state === 'doubled'}<span class="text-quiet">a double lesson</span>
              {:else if !lesson.isGiven}<span class="text-quiet">{lesson.because}</span>{/if}
            </div>
            {#if lesson.isGiven && lesson.learner}
              {@const learner = lesson.learner}
              {#each learner.pieces as piece (piece.id)}
                <PieceLine {piece} />
              {:else}
                <p class="text-quiet">
                  No current piece. <a class="link" href="/learners/{learner.id}#next">Find one</a>
                </p>
              {/each}
              {#if learner.more > 0}<p class="text-quiet">and {plural(learner.more, 'more piece')}</p>{/if}
              {#if learner.review}
                <p>
                  Due: {learner.review.title}, {learner.review.isWhole
                    ? 'all of it'
                    : learner.review.where}{learner.due > 1
                    ? `, and ${plural(learner.due - 1, 'more place')}`
                    : ''}.
                </p>
              {/if}
              {#if learner.last?.note}<p class="mt-1 text-quiet">Last time: {learner.last.note}</p>{/if}
              <form method="post" action="?/begin" class="mt-2">
                <input type="hidden" name="learner" value={learner.id} />
                <button class={isFirst ? 'action' : 'link'} aria-label="Start the lesson of {learner.name}"
                  >{learner.last?.date === data.today && learner.last.isOpen
                    ? 'Continue lesson'
                    : 'Start lesson'}</button
                >
              </form>
            {:else if lesson.isGiven && lesson.groupId}
              <p class="mt-2">
                <a class={isFirst ? 'action' : 'link'} href="/classes/{lesson.groupId}">Open the class</a>
              </p>
            {/if}
          </div>
        </li>
      {/each}
    </ul>
    {#if given.length === 0}<Prepare {...data} isWide />{/if}
  </div>
  <aside class="mt-8 grid content-start gap-7 lg:mt-2">
    <section aria-labelledby="week">
      <h2 id="week"><a href="/week" class="hover:text-accent">This week</a></h2>
      <ul class="mt-1">
        {#each data.week as { day, lessons, not } (day)}
          {#if lessons.length > 0 || not || day === data.today}
            <li
              class="grid grid-cols-[3.2rem_minmax(0,1fr)] py-0.5 {day === data.today ? 'font-semibold' : ''}"
            >
              <a class="font-mono text-quiet" href="/week?day={day}">{shortWeekday(weekdayOf(day))}</a>
              <span>
                {#if lessons.length > 3}{plural(lessons.length, 'lesson')}, from {timeText(lessons[0]!.time)}
                {:else}{#each lessons as { name, time, learnerId, groupId }, n (name + time)}{n > 0
                      ? ', '
                      : ''}<a
                      class="hover:text-accent"
                      href={groupId ? `/classes/${groupId}` : `/learners/${learnerId}`}
                      >{name} {timeText(time)}</a
                    >{:else}<span class="font-normal text-quiet">{not ?? 'free'}</span>{/each}{/if}
              </span>
            </li>
          {/if}
        {/each}
      </ul>
      <p class="mt-1"><a class="link" href="/week">Week and month</a></p>
    </section>
    {#if given.length > 0}<Prepare {...data} />{/if}
  </aside>
</main>
