<script lang="ts">
  /** A student's practice room: today's steps, and each of them practised, heard and told. */
  import { enhance } from '$app/forms';
  import { page } from '$app/state';
  import Room from '$ui/room/Room.svelte';
  import { RoomState } from '$ui/room/room.svelte';
  import { SentRecord } from '$ui/room/sent.svelte';
  import { openOffline } from '$ui/room/offline';
  import { isSmall, keepRoom, roomIn } from '$ui/shown/shown';
  import { invalidateAll } from '$app/navigation';
  import { onMount, untrack } from 'svelte';

  let { data, form } = $props();
  let room = $state.raw<RoomState>();

  onMount(() => {
    void openOffline();
    fit();
    return () => room?.close();
  });
  let resized: ReturnType<typeof setTimeout> | undefined;
  /** Draws the music again where the server did not know how wide this screen is, or where it was turned. */
  function fit(): void {
    if (!data.isOpen || isSmall({ room: data.room }) === isSmall({ room: roomIn(innerWidth) })) return;
    keepRoom(innerWidth);
    invalidateAll().catch((error: unknown) => console.warn('The music stays as it was drawn:', error));
  }
  function onresize(): void {
    clearTimeout(resized);
    resized = setTimeout(fit, 300);
  }
  function begin(): void {
    if (!data.isOpen) return;
    room = new RoomState({
      record: new SentRecord(page.params.token!),
      tasks: data.tasks,
      pieces: () => (data.isOpen ? data.pieces : {}),
      simulated: data.simulated,
    });
  }
  // By script alone; whoever says the PIN is let in without another page.
  $effect(() => {
    if (data.isOpen) untrack(() => room ?? begin());
  });
</script>

<svelte:window {onresize} />

<svelte:head>
  <title>{data.isOpen ? `${data.name}, practice` : 'Practice'} · Key Path</title>
  <meta name="robots" content="noindex" />
  <meta name="referrer" content="no-referrer" />
</svelte:head>

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
  <Room name={data.name} tasks={data.tasks} {room} practised={data.practised} simulated={data.simulated}>
    <p class="mt-4">
      <a class="link" href="/room/{page.params.token}/month">Monthly report for parents</a>
    </p>
  </Room>
{/if}
