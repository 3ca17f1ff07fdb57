<script lang="ts">
  import { goto } from '$app/navigation';
  import Clock from '$ui/lesson/Clock.svelte';
  import Lesson from '$ui/lesson/Lesson.svelte';
  import { LessonMusic } from '$ui/lesson/music.svelte';
  import { LessonState } from '$ui/lesson/lesson.svelte';
  import { chunkText } from '$ui/lesson/weekText';
  import { longDay } from '$ui/text';
  import { onMount, untrack } from 'svelte';

  let { data } = $props();
  const open = $derived(data.open);
  /** What is due of other pieces, and pieces that are not open. */
  const others = $derived(data.pieces.filter((p) => p.id !== open?.id));

  let lesson = $state.raw<LessonState>();
  let music = $state.raw<LessonMusic>();

  const view = $derived({
    piece: open ? { ...open, assignment: open.id } : null,
    others: others.map(({ id, next, due }) => ({ assignment: id, next, due })),
    chunk: data.chunk,
  });
  function openMusic(): void {
    music = open ? new LessonMusic({ ...open, show: data.show }) : undefined;
    void music?.open();
  }
  // The lesson works by script: what is ticked is kept in the browser first.
  onMount(() => {
    const begun = new LessonState({
      id: data.lesson.id,
      today: data.today,
      note: data.lesson.note,
      week: data.lesson.week,
      minutes: data.lesson.minutesSet ?? data.learner.minutesADay,
      minutesSet: data.lesson.minutesSet,
      practised: data.lesson.practised,
      ...view,
    });
    lesson = begun;
    openMusic();
    return () => begun.close();
  });
  // Add a piece is opened within the lesson.
  const address = $derived(`${open?.id ?? ''} ${data.chunk ?? ''}`);
  let shownAddress = '';
  $effect(() => {
    const isOther = shownAddress !== '' && shownAddress !== address;
    shownAddress = address;
    if (!isOther) return;
    untrack(() => {
      lesson?.show(view);
      openMusic();
    });
  });

  /** What is learned or due has a place of its own; every other piece is one choice away. */
  const tabs = $derived(
    data.pieces.filter((p) => p.status !== 'known' || p.due.length > 0 || p.id === open?.id).slice(0, 4),
  );
  const choosePiece = (id: string): void =>
    void goto(id === 'line' ? `/lessons/${data.lesson.id}/line` : `?piece=${id}`, {
      replaceState: id !== 'line',
    });
  const more = $derived(data.pieces.filter((p) => !tabs.includes(p)));
  const names = $derived(
    Object.fromEntries(
      data.pieces.map((p) => [
        p.id,
        {
          title: p.title,
          time: p.time,
          where: (chunk: string) => {
            if (open && p.id === open.id) return chunkText(chunk, open.ids, open.numbers);
            const line = p.next.find((n) => n.chunk.id === chunk) ?? p.due.find((r) => r.chunk === chunk);
            return line ? line.where : '';
          },
        },
      ]),
    ),
  );
</script>

<svelte:head><title>{data.learner.name}, lesson · Key Path</title></svelte:head>

<div class="flex min-h-dvh flex-col lg:h-dvh">
  <header class="flex items-center gap-x-4 gap-y-1 border-b border-hairline px-4 py-2 sm:flex-wrap sm:px-7">
    <a class="text-lg font-bold" href="/learners/{data.learner.id}">{data.learner.name}</a>
    <span class="text-quiet max-lg:hidden">{longDay(data.lesson.date)}</span>
    <label class="min-w-0 flex-1 sm:hidden"
      ><span class="sr-only">Piece</span>
      <select
        class="field w-full"
        value={open?.id ?? ''}
        onchange={(e) => choosePiece(e.currentTarget.value)}
      >
        {#each data.pieces as piece (piece.id)}<option value={piece.id}>{piece.title}</option>{/each}
        <option value="line">Sight-reading</option>
      </select></label
    >
    <nav aria-label="Pieces" class="flex min-w-0 flex-wrap items-center gap-x-4 max-sm:hidden">
      {#each tabs as piece (piece.id)}
        <a
          href="?piece={piece.id}{piece.status === 'known' && piece.due[0]
            ? `&chunk=${piece.due[0].chunk}`
            : ''}"
          data-sveltekit-replacestate
          aria-current={piece.id === open?.id ? 'page' : undefined}
          class="border-b-2 py-1 {piece.id === open?.id
            ? 'border-ink font-semibold'
            : 'border-transparent text-quiet hover:text-ink'}"
          >{piece.title}{piece.due.length > 0 ? ' (due)' : ''}</a
        >
      {/each}
      {#if more.length > 0}
        <label class="flex items-center"
          ><span class="sr-only">Add a piece</span>
          <select
            class="field"
            value=""
            onchange={(e) => void goto(`?piece=${e.currentTarget.value}`, { replaceState: true })}
          >
            <option value="">add a piece</option>
            {#each more as piece (piece.id)}<option value={piece.id}>{piece.title}</option>{/each}
          </select></label
        >
      {/if}
      <a class="text-quiet hover:text-ink" href="/lessons/{data.lesson.id}/line">Sight-reading</a>
    </nav>
    <span class="ml-auto flex items-center gap-4">
      <span class="text-sm text-quiet max-sm:sr-only" role="status">
        {#if lesson?.isAway}<span class="text-alarm">Offline: saved here, sent when you’re back.</span>
        {:else if (lesson?.left ?? 0) > 0}Saving…{:else if lesson}Saved{/if}
      </span>
      <Clock since={data.lesson.startedAt} minutes={data.lesson.minutes} ended={data.lesson.endedAt} />
    </span>
  </header>
  <main id="main" class="flex min-h-0 flex-1 flex-col">
    <h1 class="sr-only">{data.learner.name}, lesson</h1>
    {#if data.lesson.isEnded}
      <form method="post" action="?/reopen" class="flex items-center gap-4 bg-accent-soft px-7 py-2">
        <p>Lesson ended. <a class="link" href="/lessons/{data.lesson.id}/week">Week page</a></p>
        <button class="link">Reopen</button>
      </form>
    {/if}
    {#if lesson?.refused}<p class="px-7 py-2 text-alarm" role="alert">{lesson.refused}</p>{/if}
    {#if lesson && music && open}
      <Lesson
        {lesson}
        {music}
        time={open.time}
        numbers={open.numbers}
        keyboard={data.learner.keyboard}
        last={data.last}
        pieces={names}
        simulated={data.simulated}
        pretendAt={data.pretendAt}
      />
    {:else if !open}
      <div class="max-w-3xl px-7 py-7">
        <p>
          {data.learner.name} has no piece yet. <a class="link" href="/pieces">Choose one</a>, make a version
          and assign it.
        </p>
      </div>
    {:else}
      <p class="px-7 py-7 text-quiet" role="status">Opening the lesson…</p>
    {/if}
  </main>
</div>
