<script lang="ts">
  import { keyName } from '$core/theory/key';
  import LearnerForm from '$ui/learner/LearnerForm.svelte';
  import PieceLine from '$ui/learner/PieceLine.svelte';
  import Discard from '$ui/form/Discard.svelte';
  import Once from '$ui/form/Once.svelte';
  import { kept } from '$ui/form/kept';
  import NextStep from '$ui/learner/NextStep.svelte';
  import PathPicture from '$ui/path/PathPicture.svelte';
  import { WEEKDAYS, plural, progressText, reachName, shortDate, tempoText, toBeats } from '$ui/text';

  let { data, form } = $props();
  const learner = $derived(data.learner);
  const next = $derived(data.pieces.flatMap((p) => ('problem' in p || !p.next ? [] : [p]))[0]);
  const since = $derived(
    new Date(`${learner.since}T12:00:00`).toLocaleDateString('en-GB', { month: 'long', year: 'numeric' }),
  );
</script>

<svelte:head><title>{learner.name} · Key Path</title></svelte:head>

<main id="main" class="mx-auto grid max-w-6xl gap-x-12 px-7 py-7 lg:grid-cols-[minmax(0,1fr)_19rem]">
  <div class="min-w-0">
    <h1>{learner.name}</h1>
    <p class="text-quiet">
      {learner.weekday ? `${WEEKDAYS[learner.weekday - 1]}s ${learner.time ?? ''}` : 'No fixed day'}, since {since},
      plays at level {learner.level}
    </p>

    {#if next}
      <section class="mt-5 border-l-[3px] border-accent py-1 pl-4" aria-label="What comes next">
        <h2>Next</h2>
        <p><NextStep title={next.title} time={next.time} next={next.next} /></p>
        <p class="mt-2 flex items-center gap-5">
          <a class="action" href="/assignments/{next.id}">Open the steps</a>
          <a class="link" href="/versions/{next.versionId}/handout">Handout</a>
        </p>
      </section>
    {/if}

    {#each data.pieces as piece (piece.id)}
      <section class="mt-5 border-t border-hairline pt-3" aria-label={piece.title}>
        {#if 'problem' in piece}<PieceLine {piece} />{:else}
          <div class="flex flex-wrap items-baseline gap-x-3">
            <h2><a href="/assignments/{piece.id}" class="hover:text-accent">{piece.title}</a></h2>
            <span class="text-quiet">level {piece.level}, {keyName(piece.key)}</span>
            <span class="ml-auto text-quiet">
              {progressText(piece)}{piece.reachedTempo
                ? `, up to ${tempoText(piece.time, piece.reachedTempo)} of ${toBeats(piece.time, piece.goalTempo)}`
                : ''}
            </span>
          </div>
          <div class="mt-1 grid grid-cols-[minmax(0,250px)_minmax(0,1fr)] items-center gap-5">
            <PathPicture picture={piece.picture} label="{piece.title}: {progressText(piece)}" />
            <p class="text-quiet"><NextStep time={piece.time} next={piece.next} /></p>
          </div>
        {/if}
      </section>
    {:else}
      <p class="mt-6 border-t border-hairline pt-4 text-quiet">
        No piece yet. <a class="link" href="/pieces">Choose one</a>, make a version for {learner.name}'s hands
        and give it.
      </p>
    {/each}
  </div>

  <aside class="mt-8 grid content-start gap-7 lg:mt-2">
    <section aria-labelledby="hands">
      <h2 id="hands">Hands and instrument</h2>
      <p>
        Reaches {reachName(learner.reachRight)} right, {reachName(learner.reachLeft)} left.
        {learner.keyboard} keys, {learner.hasPedal ? 'with a pedal' : 'no pedal'}.
        {learner.voiceLow && learner.voiceHigh ? `Sings ${learner.voiceLow} to ${learner.voiceHigh}.` : ''}
      </p>
      <details class="mt-1" open={!!form?.problems || !!form?.meanwhile}>
        <summary class="cursor-pointer text-quiet hover:text-ink">Change</summary>
        <div class="mt-3">
          <LearnerForm
            levels={data.levels}
            values={learner}
            action="?/learner"
            button="Keep"
            problems={form?.problems}
            was={form?.was ?? data.was}
            meanwhile={form?.meanwhile}
          />
        </div>
      </details>
    </section>

    <div class="flex flex-wrap gap-x-5">
      <a class="link" href="/learners/{learner.id}/export" download>All that is kept, to read</a>
      <a class="link" href="/learners/{learner.id}/export?as=json" download>as JSON</a>
      <Discard kind="learner" id={learner.id} label={learner.name} />
    </div>

    <section aria-labelledby="lessons">
      <h2 id="lessons">Lessons</h2>
      <form method="post" action="?/lesson" use:kept class="mt-1 grid gap-2">
        <Once />
        <div class="flex items-center gap-2">
          <label class="sr-only" for="lesson-date">Date</label>
          <input id="lesson-date" type="date" name="date" value={data.today} class="field" />
        </div>
        <label class="sr-only" for="lesson-note">What was said, what is set</label>
        <textarea id="lesson-note" name="note" rows="2" class="field" placeholder="What was said, what is set"
        ></textarea>
        {#if form?.lessonProblems}
          <p class="text-alarm" role="alert">{Object.values(form.lessonProblems).join(' ')}</p>
        {/if}
        <div><button class="link">Add to the log</button></div>
      </form>
      <ul class="mt-3 grid gap-2">
        {#each data.lessons as lesson (lesson.id)}
          <li class="grid grid-cols-[4.2rem_minmax(0,1fr)]">
            <span class="font-mono text-sm leading-6 text-quiet">{shortDate(lesson.date)}</span>
            <div>
              {lesson.note}
              <Discard kind="lesson" id={lesson.id} label="the lesson of {lesson.date}" text="Remove" />
            </div>
          </li>
        {:else}
          <li class="text-quiet">The first note stands here after the first lesson.</li>
        {/each}
      </ul>
      {#if data.lessons.length > 5}<p class="text-quiet">{plural(data.lessons.length, 'lesson')}</p>{/if}
    </section>
  </aside>
</main>
