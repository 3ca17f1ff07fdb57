<script lang="ts">
  /** The lessons of a week or a month; each can be moved, cancelled and doubled, once or from its day on. */
  import TimeInput from '$ui/form/TimeInput.svelte';
  import DateInput from '$ui/form/DateInput.svelte';
  import { invalidateAll } from '$app/navigation';
  import { kept } from '$ui/form/kept';
  import Once from '$ui/form/Once.svelte';
  import type { SubmitFunction } from '@sveltejs/kit';
  import { daysAfter, weekdayOf } from '$core/lessons/calendar';
  import { longDay, monthTitle, shortDate, timeText, weekdayName } from '$ui/text';

  let { data, form } = $props();
  /** The lesson that is being changed. */
  let chosen = $state<string>();
  const keyOf = (lesson: { slot: string; usual: string }): string => `${lesson.slot} ${lesson.usual}`;
  const lesson = $derived(data.days.flatMap((d) => d.lessons).find((l) => keyOf(l) === chosen));
  const by = $derived(data.isMonth ? 31 : 7);
  const link = (day: string, isMonth = data.isMonth): string => `?day=${day}${isMonth ? '&as=month' : ''}`;
  const before = $derived(
    data.isMonth ? `${daysAfter(`${data.day.slice(0, 7)}-01`, -1).slice(0, 7)}-01` : daysAfter(data.day, -by),
  );
  const after = $derived(
    data.isMonth ? `${daysAfter(`${data.day.slice(0, 7)}-28`, 5).slice(0, 7)}-01` : daysAfter(data.day, by),
  );
  const title = $derived(
    data.isMonth
      ? monthTitle(data.day.slice(0, 7))
      : `${shortDate(data.days[0]!.date)} to ${shortDate(data.days.at(-1)!.date)}`,
  );
  const keep: SubmitFunction =
    () =>
    async ({ result, update }) => {
      await update({ reset: false });
      // Where another window was first, the week is shown as it is saved.
      if (result.type === 'failure') await invalidateAll();
      else chosen = undefined;
    };
  const SAYS = { usual: '', moved: 'moved', doubled: 'double', cancelled: 'canceled', holiday: '' } as const;
</script>

<svelte:head><title>{title} · Key Path</title></svelte:head>

<main id="main" class="mx-auto grid max-w-6xl gap-x-12 px-4 py-7 sm:px-7 lg:grid-cols-[minmax(0,1fr)_18rem]">
  <div class="min-w-0">
    <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <h1>{title}</h1>
      <nav aria-label="Weeks and months" class="flex flex-wrap gap-x-4">
        <a class="link" href={link(before)}>Previous</a>
        <a class="link" href={link(data.today)}>Today</a>
        <a class="link" href={link(after)}>Next</a>
        <a class="link" href={link(data.day, !data.isMonth)}>{data.isMonth ? 'Week view' : 'Month view'}</a>
        <a class="link" href="/week/calendar.ics" download>Download calendar (.ics)</a>
      </nav>
    </div>
    {#if form?.message}<p class="mt-2 text-alarm" role="alert">{form.message}</p>{/if}
    <ul class="mt-4 {data.isMonth ? 'grid grid-cols-1 gap-px sm:grid-cols-7' : ''}">
      {#each data.days as { date, isOutside, lessons } (date)}
        <li
          class="border-t border-hairline {data.isMonth
            ? `py-1 text-sm sm:min-h-20 sm:pr-1 ${isOutside ? 'opacity-50' : ''}`
            : 'grid grid-cols-[7.5rem_minmax(0,1fr)] gap-3 py-2.5'} {date === data.today
            ? 'font-semibold'
            : ''}"
        >
          <span class={data.isMonth ? 'text-quiet' : ''} title={longDay(date)}
            >{data.isMonth ? Number(date.slice(8)) : `${weekdayName(weekdayOf(date))}`}
            {#if !data.isMonth}<span class="block text-sm font-normal text-quiet">{shortDate(date)}</span
              >{/if}</span
          >
          <ul class="min-w-0 font-normal {data.isMonth ? '' : 'grid gap-1'}">
            {#each lessons as l (keyOf(l))}
              {@const isOff = l.state === 'cancelled' || l.state === 'holiday'}
              <li>
                <button
                  class="min-h-6 text-left hover:text-accent {chosen === keyOf(l) ? 'text-accent' : ''}"
                  aria-expanded={chosen === keyOf(l)}
                  onclick={() => (chosen = chosen === keyOf(l) ? undefined : keyOf(l))}
                  ><span class="font-mono {isOff ? 'line-through' : ''}">{timeText(l.time)}</span>
                  <span class={isOff ? 'text-quiet' : ''}>{l.name}</span>
                  {#if !data.isMonth}<span class="text-quiet"
                      >{l.minutes} min{SAYS[l.state] ? `, ${SAYS[l.state]}` : ''}{l.state === 'holiday'
                        ? `, ${l.because}`
                        : ''}</span
                    >{/if}</button
                >
              </li>
            {:else}{#if !data.isMonth}<li class="text-quiet">free</li>{/if}{/each}
          </ul>
        </li>
      {/each}
    </ul>
    <p class="mt-3 text-sm text-quiet">
      Times are in {data.zone.replaceAll('_', ' ')}
      (<a class="link" href="/settings/studio">Studio settings</a>).
    </p>
  </div>

  <aside class="mt-8 grid content-start gap-7 lg:mt-2">
    {#if lesson}
      <section aria-label="The lesson of {lesson.name}" class="border-l-[3px] border-accent pl-4">
        <h2>{lesson.name}</h2>
        <p class="text-quiet">{longDay(lesson.day)}, {timeText(lesson.time)}, {lesson.minutes} minutes</p>
        {#each ['move', 'cancel', 'double'] as what (what)}
          <form
            method="post"
            action="?/edit"
            use:kept={{ submit: keep }}
            data-draft="{what} {chosen}"
            class="mt-3 grid gap-2"
          >
            <input type="hidden" name="do" value={what} />
            <input type="hidden" name="slot" value={lesson.slot} />
            <input type="hidden" name="day" value={lesson.usual} />
            <input type="hidden" name="was" value={lesson.was} />
            {#if what === 'move'}
              <div class="flex gap-2">
                <div class="grid text-sm text-quiet">
                  <span aria-hidden="true">To</span>
                  <DateInput name="toDay" label="To" value={lesson.day} />
                </div>
                <div class="grid text-sm text-quiet">
                  <span aria-hidden="true">at</span>
                  <TimeInput name="toTime" label="at" value={lesson.time} />
                </div>
              </div>
            {/if}
            <p class="flex gap-4">
              <button class="link" name="scope" value="once"
                >{{ move: 'Move', cancel: 'Cancel', double: 'Double' }[what]} this lesson</button
              >
              <button class="link" name="scope" value="on">This and all later ones</button>
            </p>
          </form>
        {/each}
        {#if lesson.state !== 'usual' && lesson.state !== 'holiday'}
          <form method="post" action="?/edit" use:kept={{ submit: keep }} class="mt-3">
            <input type="hidden" name="do" value="restore" />
            <input type="hidden" name="slot" value={lesson.slot} />
            <input type="hidden" name="day" value={lesson.usual} />
            <input type="hidden" name="was" value={lesson.was} />
            <button class="link">Back to the usual time</button>
          </form>
        {/if}
        <p class="mt-3">
          <a
            class="link"
            href={lesson.groupId ? `/classes/${lesson.groupId}` : `/learners/${lesson.learnerId}`}
            >{lesson.name}’s page</a
          >
        </p>
      </section>
    {:else}
      <p class="text-quiet">Select a lesson to move, cancel or double it.</p>
    {/if}
    <section aria-labelledby="new-lesson">
      <h2 id="new-lesson">Add a lesson</h2>
      <form method="post" action="?/add" use:kept={{ submit: keep }} class="mt-1 grid gap-2">
        <Once />
        <label class="grid text-sm text-quiet"
          >For
          <select name="whose" class="field text-base text-ink">
            {#each data.learners as { id, name } (id)}<option value="learner {id}">{name}</option>{/each}
            {#each data.classes as { id, name } (id)}<option value="class {id}">{name} (class)</option>{/each}
          </select></label
        >
        <div class="grid grid-cols-2 gap-2">
          <div class="grid text-sm text-quiet">
            <span aria-hidden="true">First on</span>
            <DateInput name="day" label="First on" value={data.day} />
          </div>
          <div class="grid text-sm text-quiet">
            <span aria-hidden="true">at</span>
            <TimeInput name="time" label="at" value="16:00" />
          </div>
          <label class="grid text-sm text-quiet"
            >Minutes <input
              type="number"
              name="minutes"
              min="10"
              max="180"
              class="field text-base text-ink"
              value="30"
            /></label
          >
          <label class="grid text-sm text-quiet"
            >How often <select name="every" class="field text-base text-ink"
              ><option value="week">Every week</option><option value="once">Once</option></select
            ></label
          >
        </div>
        <div><button class="link">Add</button></div>
      </form>
    </section>
    <section aria-labelledby="holidays">
      <h2 id="holidays">Holidays</h2>
      <ul>
        {#each data.holidays as h (h.id)}
          <li class="flex items-baseline gap-3">
            <span>{h.name}, {shortDate(h.from)}{h.to === h.from ? '' : ` to ${shortDate(h.to)}`}</span>
            <form method="post" action="?/work" use:kept={{ submit: keep }}>
              <input type="hidden" name="id" value={h.id} />
              <button class="text-sm text-quiet hover:text-ink" aria-label="Delete {h.name}">Delete</button>
            </form>
          </li>
        {:else}<li class="text-quiet">No holidays ahead.</li>{/each}
      </ul>
      <form method="post" action="?/holiday" use:kept={{ submit: keep }} class="mt-2 grid gap-2">
        <Once />
        <label class="grid text-sm text-quiet"
          >Name <input name="name" class="field text-base text-ink" required /></label
        >
        <div class="grid gap-2">
          <div class="grid text-sm text-quiet">
            <span aria-hidden="true">From</span><DateInput name="from" label="From" value="" />
          </div>
          <div class="grid text-sm text-quiet">
            <span aria-hidden="true">to</span><DateInput name="to" label="to" value="" />
          </div>
        </div>
        <div><button class="link">Add holiday</button></div>
      </form>
    </section>
  </aside>
</main>
