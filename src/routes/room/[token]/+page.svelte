<script lang="ts">
  /** A student's practice room: today's steps, and each of them practised, heard and told. */
  import { enhance } from '$app/forms';
  import { page } from '$app/state';
  import Caution from '$ui/learner/Caution.svelte';
  import Task from '$ui/room/Task.svelte';
  import TaskList from '$ui/room/TaskList.svelte';
  import { RoomState } from '$ui/room/room.svelte';
  import { openOffline } from '$ui/room/offline';
  import { taskId } from '$core/lessons/room';
  import { plural } from '$ui/text';
  import { isSmall, keepRoom, roomIn } from '$ui/shown/shown';
  import { invalidateAll } from '$app/navigation';
  import { onMount, untrack } from 'svelte';

  let { data, form } = $props();
  let room = $state.raw<RoomState>();
  let isSpoken = $state(false);
  const task = $derived(room?.task);
  const tasks = $derived(data.isOpen ? data.tasks : []);
  const minutes = $derived(tasks.reduce((sum, t) => sum + t.minutes, 0));
  const practised = $derived(
    (data.isOpen ? data.practised : 0) + Math.floor((room?.clock.seconds ?? 0) / 60),
  );
  const left = $derived(tasks.filter((t) => !room?.done.includes(taskId(t))).length);

  onMount(() => {
    void openOffline();
    // It is drawn anew for this screen, where the server did not know how wide it is.
    if (data.isOpen && isSmall({ room: data.room }) !== isSmall({ room: roomIn(innerWidth) })) {
      keepRoom(innerWidth);
      void invalidateAll();
    }
    return () => room?.close();
  });
  function begin(): void {
    if (!data.isOpen) return;
    room = new RoomState({
      token: page.params.token!,
      tasks: data.tasks,
      pieces: () => (data.isOpen ? data.pieces : {}),
      simulated: data.simulated,
    });
  }
  /** What was practised is told before the page is put away. */
  function onvisibilitychange(): void {
    if (document.hidden) room?.clock.tellNow();
  }
  // By script alone; whoever says the PIN is let in without another page.
  $effect(() => {
    if (data.isOpen) untrack(() => room ?? begin());
  });
</script>

<svelte:head>
  <title>{data.isOpen ? `${data.name}, practice` : 'Practice'} · Key Path</title>
  <meta name="robots" content="noindex" />
  <meta name="referrer" content="no-referrer" />
</svelte:head>

<svelte:document {onvisibilitychange} />

{#if !data.isOpen}
  <main id="main" class="mx-auto max-w-sm px-6 py-12">
    <h1>Practice room</h1>
    <form method="post" action="?/enter" use:enhance class="mt-4 grid gap-3">
      <label class="grid"
        >PIN <input
          class="field text-xl tracking-widest"
          name="pin"
          type="password"
          inputmode="numeric"
          autocomplete="off"
          required
        /></label
      >
      {#if form && 'message' in form}<p class="text-alarm" role="alert">{form.message}</p>{/if}
      <button class="action">Open</button>
    </form>
  </main>
{:else}
  <div class="flex h-dvh flex-col">
    <header class="flex items-center gap-4 border-b border-hairline px-4 py-2 sm:px-7">
      {#if task}
        <button type="button" class="link min-h-11" onclick={() => room?.open(undefined)}>Today</button>
        <span class="min-w-0 truncate font-semibold">{task.title}</span>
      {:else}
        <h1 class="text-lg">{data.name}</h1>
      {/if}
      <span class="ml-auto text-sm text-quiet" role="status">
        {#if room?.isAway}Offline: saved here{:else if (room?.left ?? 0) > 0}Saving…{/if}
        {practised > 0 ? `${plural(practised, 'minute')} today` : ''}
      </span>
    </header>
    {#if room?.refused}<p class="px-4 py-2 text-alarm sm:px-7" role="alert">{room.refused}</p>{/if}
    <main id="main" class="flex min-h-0 flex-1 flex-col {task ? '' : 'overflow-y-auto px-4 pb-8 sm:px-7'}">
      {#if room?.clock.rests}
        <section class="m-4 rounded-md bg-accent-soft p-4 sm:m-7" role="alert">
          <h2 class="text-lg">Time for a short break</h2>
          <p class="mt-1">
            Ten minutes are done. Let your arms hang loose, look out of the window, drink something.
          </p>
          <Caution class="mt-2" />
          <p class="mt-3">
            <button type="button" class="action" onclick={() => room?.clock.rested()}>Go on</button>
          </p>
        </section>
      {/if}
      {#if task && room}
        <h1 class="sr-only">{data.name}, practice</h1>
        <Task {room} {task} {isSpoken} simulated={data.simulated} />
      {:else}
        <div class="mx-auto w-full max-w-2xl">
          {#if tasks.length === 0}
            <p class="mt-6">Your steps appear here. Your teacher chooses them in the lesson.</p>
          {:else}
            <p class="mt-4 text-xl">
              {left === 0
                ? 'Everything for today is done.'
                : `Today: ${plural(left, 'step')}, about ${plural(minutes, 'minute')}.`}
            </p>
            {#if room}
              <TaskList {tasks} done={room.done} onopen={(t) => room?.open(t)} />
            {:else}<p class="mt-4 text-quiet" role="status">Opening…</p>{/if}
            <label class="mt-6 flex min-h-11 items-center gap-2"
              ><input type="checkbox" class="tick" bind:checked={isSpoken} />Read aloud what was heard</label
            >
            <Caution class="mt-3" />
          {/if}
          <p class="mt-4">
            <a class="link" href="/room/{page.params.token}/month">Monthly report for parents</a>
          </p>
        </div>
      {/if}
    </main>
  </div>
{/if}
