<script lang="ts">
  /** One learner, one piece: what is next, when it is ready, and the plan with its steps to tick. */
  import DateInput from '$ui/form/DateInput.svelte';
  import { labelOf, METHOD_LABELS } from '$ui/labels';
  import Caution from '$ui/learner/Caution.svelte';
  import { kept, stays } from '$ui/form/kept';
  import Once from '$ui/form/Once.svelte';
  import Was from '$ui/form/Was.svelte';
  import { keyName } from '$core/theory/key';
  import { levelText } from '$core/arrange/levels';
  import { stepFacts } from '$core/lessons/steps';
  import NextStep from '$ui/learner/NextStep.svelte';
  import Path from '$ui/path/Path.svelte';
  import PlanEditor from '$ui/plan/PlanEditor.svelte';
  import PlanSteps from '$ui/plan/PlanSteps.svelte';
  import {
    capital,
    GOAL_TEXTS,
    plural,
    progressText,
    shortDate,
    spanText,
    tempoText,
    toBeats,
  } from '$ui/text';
  import { toast } from 'svelte-sonner';

  let { data, form } = $props();
  const progress = $derived(data.progress);
  const next = $derived(progress.next[0]);
  let changes = $state(false);
  let undoing = $state<HTMLFormElement>();
  let undo = $state({ before: 'null', after: '' });
  // A change of the plan can be taken back.
  $effect(() => {
    if (!form || !('undo' in form) || !form.undo) return;
    undo = form.undo as typeof undo;
    toast('Plan changed.', {
      id: 'plan',
      action: { label: 'Undo', onClick: () => undoing?.requestSubmit() },
    });
  });
</script>

<svelte:head><title>{progress.title}, {data.learner.name} · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-5xl px-4 py-7 sm:px-7">
  <p><a class="text-quiet hover:text-ink" href="/learners/{data.learner.id}">{data.learner.name}</a></p>
  <h1>{progress.title}</h1>
  <p class="text-quiet">
    Level {levelText(progress.level)}, {keyName(progress.key)}; goal {tempoText(
      progress.time,
      progress.goalTempo,
    )}.
    {capital(progressText({ bothHands: progress.bothHands, newMeasures: progress.form.newMeasures }))}.
    <a class="link ml-3" href="/versions/{progress.versionId}">Bench</a>
    <a class="link ml-3" href="/versions/{progress.versionId}/handout">Handout</a>
  </p>
  <p class="mt-1">
    {#if progress.isResting}Paused: no practice, no reviews.
    {:else if data.estimate}
      About {plural(Math.max(1, Math.round(data.estimate.weeks)), 'more week')} at {data.learner.minutesADay} minutes
      a day: ready {spanText(
        data.estimate.from,
        data.estimate.to,
      )}{#if data.estimate.goal && progress.goalDate}, goal {shortDate(progress.goalDate)}: {GOAL_TEXTS[
          data.estimate.goal
        ]}{/if}.
      <span class="text-quiet"
        >{data.pace.weeks === 0
          ? 'Based on an average pace; adjusts every week.'
          : `${data.learner.name}’s pace over ${plural(data.pace.weeks, 'week')}: ${Math.round(100 * data.pace.pace)}% of average.`}</span
      >
    {:else}Every step is done. The piece returns for review when due.{/if}
  </p>
  {#each progress.known as { version, where } (version)}
    <p class="mt-1">
      Learned in an <a class="link" href="/versions/{version}">earlier version</a> that has the same notes: {where}.
    </p>
  {/each}
  {#if progress.given.since > 0}
    <form method="post" action="?/renew" use:kept class="mt-2">
      {plural(progress.given.since, 'change')} since this version was assigned.
      <button class="link">Assign the latest changes</button>
    </form>
  {/if}
  <div class="mt-4">
    <Path
      form={progress.form}
      numbers={progress.numbers}
      difficulty={progress.difficulty}
      states={progress.states}
      label="{progress.title}: {progressText({
        bothHands: progress.bothHands,
        newMeasures: progress.form.newMeasures,
      })}"
    />
  </div>

  <section class="mt-4 border-l-[3px] border-accent py-1 pl-4" aria-label="Next step">
    <h2>Next</h2>
    <p><NextStep time={progress.time} {next} /></p>
    {#if next}
      {#key `${next.chunk.id}${next.step.id}${next.tempo}`}
        <form method="post" action="?/tick" use:kept={{ submit: stays }} class="mt-2 flex items-center gap-4">
          <input type="hidden" name="chunk" value={next.chunk.id} />
          <input type="hidden" name="step" value={next.step.id} />
          <Once />
          {#if next.tempo}
            <label class="flex items-center gap-2">
              Tempo reached
              <input
                name="tempo"
                inputmode="numeric"
                class="field w-20 font-mono"
                value={toBeats(progress.time, next.tempo)}
              />
            </label>
          {/if}
          <button class="action">Done</button>
        </form>
      {/key}
    {/if}
    {#if form?.message}<p class="text-alarm" role="alert">{form.message}</p>{/if}
  </section>

  <div class="mt-7 flex flex-wrap items-baseline gap-x-5 gap-y-2">
    <h2 class="text-lg">Practice plan</h2>
    <span class="text-quiet"
      >{labelOf(METHOD_LABELS, progress.plan.method)}{progress.isProposed
        ? ', as suggested'
        : ', with your changes'}</span
    >
    <button class="link" aria-expanded={changes} onclick={() => (changes = !changes)}
      >{changes ? 'Back to the steps' : 'Change the plan'}</button
    >
  </div>
  {#if changes}
    <PlanEditor
      plans={progress.plans}
      plan={progress.plan}
      ids={progress.ids}
      numbers={progress.numbers}
      beats={progress.beats}
      isProposed={progress.isProposed}
      templates={data.templates}
    />
  {:else}
    <PlanSteps plans={progress.plans} numbers={progress.numbers} time={progress.time} />
  {/if}
  <form method="post" action="?/undo" use:kept={{ submit: stays }} bind:this={undoing} class="hidden">
    <input type="hidden" name="before" value={undo.before} />
    <input type="hidden" name="after" value={undo.after} />
  </form>

  <section class="mt-7 border-t border-hairline pt-3" aria-labelledby="goal">
    <h2 id="goal">Goal</h2>
    <form
      method="post"
      action="?/goal"
      use:kept={{ submit: stays }}
      class="mt-1 flex flex-wrap items-end gap-4"
    >
      <Was value={{ goalTempo: progress.goalTempo, goalDate: progress.goalDate }} {form} />
      <label class="grid text-sm text-quiet"
        >Goal tempo <input
          name="goalTempo"
          inputmode="numeric"
          class="field w-20 font-mono text-base text-ink"
          value={toBeats(progress.time, progress.goalTempo)}
        /></label
      >
      <div class="grid text-sm text-quiet">
        <span aria-hidden="true">Goal date</span>
        <DateInput name="goalDate" label="Goal date" value={progress.goalDate ?? ''} />
      </div>
      <button class="link mb-1">Save</button>
    </form>
    <form method="post" action="?/rest" use:kept={{ submit: stays }} class="mt-3">
      <input type="hidden" name="rests" value={progress.isResting ? 'no' : 'yes'} />
      <button class="link">{progress.isResting ? 'Resume' : 'Pause'}</button>
      <span class="text-quiet">{progress.isResting ? '' : 'Progress is kept; reviews stop.'}</span>
    </form>
  </section>

  {#if progress.elsewhere.length > 0}
    <section class="mt-6 border-t border-hairline pt-3" aria-label="Learned before">
      <h2>Learned in measures that aren’t in this version</h2>
      <ul class="text-quiet">
        {#each progress.elsewhere as event (event.chunk + event.step)}
          <li>
            {stepFacts(event.step)?.says ?? event.step}, {event.chunk.replace('..', ' to ')}, {shortDate(
              event.at,
            )}
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  <Caution class="mt-8 border-t border-hairline pt-3" />
</main>
