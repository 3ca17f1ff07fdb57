<script lang="ts">
  /** One learner, one piece: what is next, and the steps to tick with the tempo reached. */
  import { kept } from '$ui/form/kept';
  import { keyName } from '$core/theory/key';
  import { stepById } from '$core/lessons/steps';
  import NextStep from '$ui/learner/NextStep.svelte';
  import Path from '$ui/path/Path.svelte';
  import { measuresText, plural, progressText, shortDate, tempoText, toBeats } from '$ui/text';

  let { data, form } = $props();
  const progress = $derived(data.progress);
  const next = $derived(progress.next);
  const keep =
    () =>
    ({ update }: { update: (options?: { reset?: boolean }) => Promise<void> }) =>
      update({ reset: false });
</script>

<svelte:head><title>{progress.title}, {data.learner.name} · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-5xl px-7 py-7">
  <p><a class="text-quiet hover:text-ink" href="/learners/{data.learner.id}">{data.learner.name}</a></p>
  <h1>{progress.title}</h1>
  <p class="text-quiet">
    level {progress.level}, {keyName(progress.key)}, goal {tempoText(progress.time, progress.goalTempo)}.
    {progressText({ bothHands: progress.bothHands, newMeasures: progress.form.newMeasures })}.
    <a class="link ml-3" href="/versions/{progress.versionId}">Bench</a>
    <a class="link ml-3" href="/versions/{progress.versionId}/handout">Handout</a>
  </p>
  {#if progress.given.since > 0}
    <form method="post" action="?/renew" use:kept class="mt-2">
      The version has been changed {plural(progress.given.since, 'time')} since it was given.
      <button class="link">Give the newest state</button>
    </form>
  {/if}
  <div class="mt-4">
    <Path
      form={progress.form}
      numbers={progress.numbers}
      difficulty={progress.difficulty}
      states={progress.states}
      label="{progress.title}: {progress.bothHands} of {progress.form
        .newMeasures} new measures with both hands"
    />
  </div>

  <section class="mt-4 border-l-[3px] border-accent py-1 pl-4" aria-label="What comes next">
    <h2>Next</h2>
    <p><NextStep time={progress.time} {next} /></p>
    {#if next}
      {#key `${next.chunk.id}${next.step.id}`}
        <form method="post" action="?/tick" use:kept={{ submit: keep }} class="mt-2 flex items-center gap-4">
          <input type="hidden" name="chunk" value={next.chunk.id} />
          <input type="hidden" name="step" value={next.step.id} />
          {#if next.step.hand}
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

  <div class="mt-6 grid gap-x-12 gap-y-6 md:grid-cols-2">
    {#each progress.chunks as chunk (chunk.id)}
      {@const name = `${chunk.section}, ${measuresText(progress.numbers, chunk.from, chunk.to)}`}
      <section aria-label={name} class="border-t border-hairline pt-3">
        <h2>{name}</h2>
        <ul class="mt-1">
          {#each chunk.steps as step (step.id)}
            <li>
              <form
                method="post"
                action={step.done ? '?/untick' : '?/tick'}
                use:kept={{ submit: keep }}
                class="flex min-h-9 items-center gap-3"
              >
                <input type="hidden" name="chunk" value={chunk.id} />
                <input type="hidden" name="step" value={step.id} />
                <button
                  class="flex h-6 w-6 shrink-0 items-center justify-center rounded-full border-[1.6px] border-ink {step.done
                    ? 'bg-ink text-paper'
                    : 'bg-paper'}"
                  aria-label="{step.done ? 'Take back' : 'Tick'}: {step.says}, {name}"
                  >{#if step.done}<span aria-hidden="true" class="h-2 w-2 rounded-full bg-paper"
                    ></span>{/if}</button
                >
                <span class={step.done ? 'text-quiet' : ''}>{step.says}</span>
                <span class="ml-auto flex items-center gap-2">
                  {#if step.done}
                    <span class="text-sm text-quiet">
                      {step.done.tempo ? `${tempoText(progress.time, step.done.tempo)}, ` : ''}{shortDate(
                        step.done.at,
                      )}
                    </span>
                  {:else if step.hand}
                    {#if step.measures > 0}<span class="text-sm text-quiet"
                        >{step.measures} of {plural(chunk.to - chunk.from + 1, 'measure')}</span
                      >{/if}
                    <input
                      name="tempo"
                      inputmode="numeric"
                      aria-label="Tempo reached: {step.says}, {name}"
                      class="field h-8 w-16 py-0 text-right font-mono text-sm"
                      value={toBeats(progress.time, step.suggested)}
                    />
                  {/if}
                </span>
              </form>
            </li>
          {/each}
        </ul>
      </section>
    {/each}
  </div>
  {#if progress.elsewhere.length > 0}
    <section class="mt-6 border-t border-hairline pt-3" aria-label="Learned before">
      <h2>Learned in measures that this version does not have</h2>
      <ul class="text-quiet">
        {#each progress.elsewhere as event (event.chunk + event.step)}
          <li>
            {stepById(event.step).says}, {event.chunk.replace('..', ' to ')}, {shortDate(event.at)}
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  <p class="mt-8 border-t border-hairline pt-3 text-sm text-quiet">
    Pause every five to ten minutes and shake out hands, wrists and shoulders. Stop when it hurts; pain that
    stays belongs with a doctor.
  </p>
</main>
