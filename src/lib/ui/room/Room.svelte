<script lang="ts">
  /** A practice room: today's steps, and each of them practised, heard and told. */
  import { taskId, type RoomTask } from '$core/lessons/room';
  import Caution from '$ui/learner/Caution.svelte';
  import { plural } from '$ui/text';
  import type { Snippet } from 'svelte';
  import Task from './Task.svelte';
  import TaskList from './TaskList.svelte';
  import type { RoomState } from './room.svelte';

  interface Props {
    name: string;
    tasks: readonly RoomTask[];
    /** undefined until the page's script has begun. */
    room: RoomState | undefined;
    /** Minutes practised today before the room was opened. */
    practised: number;
    simulated: boolean;
    /** Below the list. */
    children?: Snippet;
  }
  let { name, tasks, room, practised: before, simulated, children }: Props = $props();
  let isSpoken = $state(false);
  const task = $derived(room?.task);
  const practised = $derived(before + Math.floor((room?.clock.seconds ?? 0) / 60));
  const open = $derived(tasks.filter((t) => !room?.done.includes(taskId(t))));
  const minutes = $derived(open.reduce((sum, t) => sum + t.minutes, 0));

  /** What was practised is told before the page is closed. */
  function onvisibilitychange(): void {
    if (document.hidden) room?.clock.tellNow();
  }
</script>

<svelte:document {onvisibilitychange} />

<div class="flex h-dvh flex-col">
  <header class="flex items-center gap-4 border-b border-hairline px-4 py-2 sm:px-7">
    {#if task}
      <button type="button" class="link min-h-11" onclick={() => room?.open(undefined)}>Today</button>
      <span class="min-w-0 truncate font-semibold">{task.title}</span>
    {:else}
      <h1 class="text-lg">{name}</h1>
    {/if}
    <span class="ml-auto text-sm text-quiet" role="status">
      {room?.record.says ?? ''}
      {practised > 0 ? `${plural(practised, 'minute')} today` : ''}
    </span>
  </header>
  {#if room?.record.refused}
    <p class="px-4 py-2 text-alarm sm:px-7" role="alert">{room.record.refused}</p>
  {/if}
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
      <h1 class="sr-only">{name}, practice</h1>
      <Task {room} {task} {isSpoken} {simulated} />
    {:else}
      <div class="mx-auto w-full max-w-2xl">
        {#if tasks.length === 0}
          <p class="mt-6">Your steps appear here. Your teacher chooses them in the lesson.</p>
        {:else}
          <p class="mt-4 text-xl">
            {open.length === 0
              ? 'Everything for today is done.'
              : `Today: ${plural(open.length, 'step')}, about ${plural(minutes, 'minute')}.`}
          </p>
          {#if room}
            <TaskList {tasks} done={room.done} onopen={(t) => room?.open(t)} />
          {:else}<p class="mt-4 text-quiet" role="status">Opening…</p>{/if}
          <label class="mt-6 flex min-h-11 items-center gap-2"
            ><input type="checkbox" class="tick" bind:checked={isSpoken} />Read aloud what was heard</label
          >
          <Caution class="mt-3" />
        {/if}
        {@render children?.()}
      </div>
    {/if}
  </main>
</div>
