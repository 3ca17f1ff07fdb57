<script lang="ts">
  /** One learner: what is next, how far along every piece they are, how the weeks went, and what suits them. */
  import AsHeard from '$ui/learner/AsHeard.svelte';
  import DateInput from '$ui/form/DateInput.svelte';
  import Caution from '$ui/learner/Caution.svelte';
  import { levelText } from '$core/arrange/levels';
  import { keyName } from '$core/theory/key';
  import Chart from '$ui/chart/Chart.svelte';
  import LearnerForm from '$ui/learner/LearnerForm.svelte';
  import { measuresChart, minutesChart, reviewsChart, tempoChart } from '$ui/learner/charts';
  import Discard from '$ui/form/Discard.svelte';
  import Once from '$ui/form/Once.svelte';
  import { kept } from '$ui/form/kept';
  import NextStep from '$ui/learner/NextStep.svelte';
  import PathPicture from '$ui/path/PathPicture.svelte';
  import {
    GOAL_TEXTS,
    plural,
    progressText,
    reachName,
    shortDate,
    spanText,
    tempoText,
    timeText,
    toBeats,
    weekdayName,
    monthTitle,
  } from '$ui/text';

  let { data, form } = $props();
  const meanwhile = $derived(form && 'message' in form ? String(form.message) : undefined);
  const learner = $derived(data.learner);
  const next = $derived(
    data.pieces.flatMap((p) => ('problem' in p || !p.next[0] || p.status === 'resting' ? [] : [p]))[0],
  );
  const since = $derived(monthTitle(learner.since.slice(0, 7)));
  const perWeek = $derived(
    data.weeks.slice(-8).reduce((sum, w) => sum + w.measures, 0) / Math.max(1, Math.min(8, data.pace.weeks)),
  );
  const charts = $derived([
    ...(data.tempi.length > 0 ? [tempoChart(data.tempi)] : []),
    ...(data.weeks.some((w) => w.measures > 0) ? [measuresChart(data.weeks)] : []),
    ...(data.weeks.some((w) => w.set !== null) ? [minutesChart(data.weeks)] : []),
    ...(data.weeks.some((w) => w.reviews > 0) ? [reviewsChart(data.weeks)] : []),
  ]);
  const STATUS = { new: 'new', learning: '', known: 'learned', resting: 'paused' } as const;
</script>

<svelte:head><title>{learner.name} · Key Path</title></svelte:head>

<main id="main" class="mx-auto grid max-w-6xl gap-x-12 px-4 py-7 sm:px-7 lg:grid-cols-[minmax(0,1fr)_19rem]">
  <div class="min-w-0">
    <div class="flex flex-wrap items-baseline gap-x-4 gap-y-2">
      <h1>{learner.name}</h1>
      <p class="text-quiet">
        {learner.weekday
          ? `${weekdayName(learner.weekday)}${learner.time ? `, ${timeText(learner.time)}` : ''}`
          : 'No fixed day'}; student since {since}; level {levelText(learner.level)}
      </p>
      <a class="link ml-auto" href="/learners/{learner.id}/room">Practice room</a>
      <form method="post" action="?/begin">
        <button class="action">Start lesson</button>
      </form>
    </div>
    {#if learner.about}<p class="text-quiet">{learner.about}</p>{/if}

    <section id="next" class="mt-4 border-l-[3px] border-accent py-1 pl-4" aria-label="Next step">
      <h2>Next</h2>
      {#if next}
        <p><NextStep title={next.title} time={next.time} next={next.next[0]} />.</p>
      {:else}<p>No current piece.</p>{/if}
      {#if data.due.length > 0}
        <p>
          Due for review: {#each data.due as review, i (review.assignment + review.chunk)}{i > 0
              ? '; '
              : ''}<a class="hover:text-accent" href="/assignments/{review.assignment}"
              >{review.title}, {review.isWhole ? 'all of it' : review.where}</a
            >{/each}.
        </p>
      {/if}
      <p class="text-quiet">
        {#if data.pace.weeks > 0}{learner.name} learns about {perWeek.toFixed(1)} measures a week.{/if}
        {#if next && 'estimate' in next && next.estimate}{next.title} at {learner.minutesADay} minutes a day: ready
          {spanText(next.estimate.from, next.estimate.to)}{next.estimate.goal && next.goalDate
            ? `, goal ${shortDate(next.goalDate)}: ${GOAL_TEXTS[next.estimate.goal]}`
            : ''}.{/if}
      </p>
      {#if next}
        <p class="mt-1 flex flex-wrap items-center gap-x-5">
          <a class="link" href="/assignments/{next.id}">Open the steps</a>
          <a class="link" href="/versions/{next.versionId}/handout">Handout</a>
        </p>
      {/if}
    </section>

    {#each data.pieces as piece (piece.id)}
      <section class="mt-5 border-t border-hairline pt-3" aria-label={piece.title}>
        {#if 'problem' in piece}
          <p class="py-1">
            <strong class="font-semibold">{piece.title}</strong> can’t be shown: {piece.problem}
          </p>
        {:else}
          <div class="flex flex-wrap items-baseline gap-x-3">
            <h2><a href="/assignments/{piece.id}" class="hover:text-accent">{piece.title}</a></h2>
            <span class="text-quiet"
              >level {levelText(piece.level)}, {keyName(piece.key)}{STATUS[piece.status]
                ? `; ${STATUS[piece.status]}`
                : ''}</span
            >
            <span class="ml-auto text-quiet">
              {progressText(piece)}{piece.reachedTempo
                ? `, up to ${tempoText(piece.time, piece.reachedTempo)} of ${toBeats(piece.time, piece.goalTempo)}`
                : ''}
            </span>
          </div>
          <div class="mt-1 grid items-center gap-x-5 gap-y-1 sm:grid-cols-[minmax(0,250px)_minmax(0,1fr)]">
            <PathPicture picture={piece.picture} label="{piece.title}: {progressText(piece)}" />
            <p class="text-quiet">
              <NextStep time={piece.time} next={piece.next[0]} />{piece.estimate
                ? `; ready ${spanText(piece.estimate.from, piece.estimate.to)}`
                : ''}{piece.status === 'known' && piece.again
                ? `; review ${piece.again <= data.today ? 'due now' : shortDate(piece.again)}`
                : ''}
            </p>
          </div>
        {/if}
      </section>
    {:else}
      <p class="mt-6 border-t border-hairline pt-4 text-quiet">
        No piece yet. <a class="link" href="/pieces">Choose one</a>, make a version for {learner.name} and assign
        it.
      </p>
    {/each}

    {#if charts.length > 0}
      <div class="mt-6 grid gap-x-10 gap-y-6 border-t border-hairline pt-4 md:grid-cols-2">
        {#each charts as chart (chart.title)}<Chart {...chart} />{/each}
      </div>
    {/if}

    {#if data.heard.length > 0}<AsHeard pieces={data.heard} />{/if}

    <section class="mt-6 border-t border-hairline pt-4" aria-labelledby="lessons">
      <h2 id="lessons">Lessons</h2>
      <form class="mt-1 flex gap-2" role="search">
        <label class="sr-only" for="find">Find in the notes</label>
        <input
          id="find"
          name="find"
          type="search"
          class="field min-w-0 flex-1"
          placeholder="Find in the notes"
          value={data.find}
        />
        <button class="link">Find</button>
      </form>
      <form method="post" action="?/lesson" use:kept class="mt-3 grid gap-2">
        <Once />
        <div class="flex items-center gap-2">
          <DateInput name="date" label="Date" value={data.today} />
        </div>
        <label class="sr-only" for="lesson-note">Lesson notes and practice</label>
        <textarea id="lesson-note" name="note" rows="2" class="field" placeholder="Lesson notes and practice"
        ></textarea>
        {#if form?.lessonProblems}
          <p class="text-alarm" role="alert">{Object.values(form.lessonProblems).join(' ')}</p>
        {/if}
        <div><button class="link">Add note</button></div>
      </form>
      <ul class="mt-3 grid gap-2">
        {#each data.lessons as lesson (lesson.id)}
          <li class="grid grid-cols-[4.2rem_minmax(0,1fr)]">
            <a class="font-mono text-sm leading-6 text-quiet hover:text-ink" href="/lessons/{lesson.id}/week"
              >{shortDate(lesson.date)}</a
            >
            <div>
              {lesson.note || 'No notes'}
              <Discard kind="lesson" id={lesson.id} label="the lesson of {lesson.date}" text="Remove" />
            </div>
          </li>
        {:else}
          <li class="text-quiet">
            {data.find ? `No notes with “${data.find}”.` : 'Lesson notes appear here.'}
          </li>
        {/each}
      </ul>
      {#if data.lessonCount > data.lessons.length}<p class="mt-2 text-quiet">
          {plural(data.lessonCount, 'lesson')}{data.find ? ' match' : ' in all'}. Search to find older ones.
        </p>{/if}
    </section>
  </div>

  <aside class="mt-8 grid content-start gap-7 lg:mt-2">
    <section aria-labelledby="hands">
      <h2 id="hands">Hands and instrument</h2>
      <p>
        Reaches {reachName(learner.reachRight)} right, {reachName(learner.reachLeft)} left.
        {learner.keyboard} keys, {learner.hasPedal ? 'with a pedal' : 'no pedal'}.
        {learner.voiceLow && learner.voiceHigh ? `Sings ${learner.voiceLow} to ${learner.voiceHigh}.` : ''}
        {learner.minutesADay} minutes a day.
      </p>
      <details class="mt-1" open={!!form?.problems || !!meanwhile}>
        <summary class="cursor-pointer text-quiet hover:text-ink">Change</summary>
        <div class="mt-3">
          <LearnerForm
            levels={data.levels}
            values={learner}
            action="?/learner"
            button="Save"
            problems={form?.problems}
            was={data.fields}
            {form}
            {meanwhile}
          />
        </div>
      </details>
    </section>

    {#if data.strengths.easy.length + data.strengths.hard.length > 0}
      <section aria-labelledby="easily">
        <h2 id="easily">What stands out</h2>
        {#if data.strengths.easy.length > 0}<p>Comes easily: {data.strengths.easy.join(', ')}.</p>{/if}
        {#if data.strengths.hard.length > 0}<p>Needs more work: {data.strengths.hard.join(', ')}.</p>{/if}
        <p class="text-sm text-quiet">Based on your grades and the music’s demands.</p>
      </section>
    {/if}

    <section aria-labelledby="suits">
      <h2 id="suits">Good next pieces</h2>
      <ul class="grid gap-1">
        {#each data.suits as suit (suit.versionId)}
          <li>
            <a class="font-semibold hover:text-accent" href="/versions/{suit.versionId}">{suit.title}</a> at
            level {levelText(suit.level)}; {suit.says}.
          </li>
        {:else}
          <li class="text-quiet">
            {!data.isGraded
              ? 'Suggestions appear after the first graded step.'
              : 'No version of another piece is close to this level: '}{#if data.isGraded}<a
                class="link"
                href="/pieces">make one</a
              >.{/if}
          </li>
        {/each}
      </ul>
    </section>

    {#if data.classes.length > 0}
      <p>
        In {#each data.classes as { id, name }, i (id)}{i > 0 ? ', ' : ''}<a class="link" href="/classes/{id}"
            >{name}</a
          >{/each}.
      </p>
    {/if}

    <div class="flex flex-wrap gap-x-5 gap-y-1">
      <a class="link" href="/learners/{learner.id}/month">Monthly report for parents</a>
      <a class="link" href="/learners/{learner.id}/export" download>Download all data (text)</a>
      <a class="link" href="/learners/{learner.id}/export?as=json" download>as JSON</a>
      <Discard kind="learner" id={learner.id} label={learner.name} />
    </div>
    <Caution />
  </aside>
</main>
