<script lang="ts">
  /** The week's page: what a lesson set, and what was done in it; to be looked at, printed and taken home. */
  import { stepInSentence } from '$core/lessons/steps';
  import { browser } from '$app/environment';
  import Qr from '$ui/room/Qr.svelte';
  import Caution from '$ui/learner/Caution.svelte';
  import { capital, longDay, tempoText } from '$ui/text';

  let { data } = $props();
  const { lesson, learner } = $derived(data);
  const total = $derived(data.set.reduce((sum, item) => sum + item.minutes, 0));
</script>

<svelte:head><title>{learner.name}, week from {lesson.date} · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-3xl px-4 py-7 sm:px-7">
  <p class="print:hidden">
    <a class="text-quiet hover:text-ink" href="/learners/{learner.id}">{learner.name}</a>
  </p>
  <h1>{learner.name}’s week</h1>
  <p class="text-quiet">
    From {longDay(lesson.date)}{data.next
      ? ` to the next lesson, ${longDay(data.next.day)} at ${data.next.time}`
      : ''}.
  </p>

  {#if lesson.isEnded}
    <form
      method="post"
      action="/lessons/{lesson.id}?/reopen"
      class="mt-3 flex gap-4 bg-accent-soft px-4 py-2 print:hidden"
    >
      <span>Lesson ended.</span>
      <button class="link">Reopen</button>
    </form>
  {/if}

  <section class="mt-5" aria-labelledby="set">
    <h2 id="set">Practice for the week: {total} of {lesson.minutesSet} minutes a day</h2>
    <table class="mt-2 w-full border-collapse">
      <thead class="sr-only"><tr><th>Minutes</th><th>What</th><th>Days done</th></tr></thead>
      <tbody>
        {#each data.set as item (item.assignment + item.chunk + item.why)}
          <tr class="border-t border-hairline align-top">
            <td class="w-12 py-2 font-mono">{item.minutes}′</td>
            <td class="py-2 pr-4">
              <strong class="font-semibold">{item.title}</strong>, {item.where}<br />
              {capital(item.steps.map(stepInSentence).join('; then '))}{item.tempo
                ? `, ${tempoText(item.time, item.tempo)}`
                : ''}{item.why === 'due' ? ' (review)' : ''}
            </td>
            <td class="w-44 py-2" aria-label="Boxes for {data.days + 1} days">
              <span class="flex gap-1.5" aria-hidden="true"
                >{#each { length: data.days + 1 } as _, i (i)}<span class="h-5 w-5 border-[1.5px] border-ink"
                  ></span>{/each}</span
              >
            </td>
          </tr>
        {:else}
          <tr><td class="py-2 text-quiet" colspan="3">No practice yet.</td></tr>
        {/each}
      </tbody>
    </table>
    <Caution class="mt-3" />
  </section>

  {#if data.token && browser}
    {@const link = new URL(`/room/${data.token}`, location.href).href}
    <section class="mt-5 flex flex-wrap items-center gap-4" aria-labelledby="room">
      <Qr {link} label="Code of the practice room" />
      <div>
        <h2 id="room">Practice room</h2>
        <p class="text-quiet">Point a phone at the code. It shows these steps and listens to them.</p>
      </div>
    </section>
  {:else if !data.token}
    <p class="mt-4 print:hidden">
      <a class="link" href="/learners/{learner.id}/room">Create a practice room for {learner.name}</a>
    </p>
  {/if}

  {#if lesson.note}
    <section class="mt-5" aria-labelledby="said">
      <h2 id="said">Lesson notes</h2>
      <p class="whitespace-pre-line">{lesson.note}</p>
    </section>
  {/if}

  <section class="mt-5" aria-labelledby="done">
    <h2 id="done">Done in the lesson</h2>
    <ul class="mt-1">
      {#each data.done as line, i (i)}
        <li class="border-t border-hairline py-1.5">
          {line.title}, {line.where}: {stepInSentence(line.step)}{line.tempo
            ? `, ${tempoText(line.time, line.tempo)}`
            : ''}{line.grade ? `, ${line.grade}` : ''}
        </li>
      {:else}
        <li class="text-quiet">Nothing was checked off.</li>
      {/each}
    </ul>
  </section>

  <p class="mt-6 flex flex-wrap gap-5 print:hidden">
    <button class="action" onclick={() => print()}>Print</button>
    <a class="link self-center" href="/lessons/{lesson.id}"
      >{lesson.isEnded ? 'Reopen the lesson' : 'Back to the lesson'}</a
    >
    <a class="link self-center" href="/">Today</a>
  </p>
</main>
