<script lang="ts">
  import Bench from '$ui/bench/Bench.svelte';
  import { perform } from '$ui/bench/commands';
  import GiveDialog from '$ui/bench/GiveDialog.svelte';
  import HelpDialog from '$ui/bench/HelpDialog.svelte';
  import MarkControls from '$ui/bench/MarkControls.svelte';
  import RecipeControls from '$ui/bench/RecipeControls.svelte';
  import { keepFile } from '$ui/sound/keepFile';
  import { BenchState, setBench } from '$ui/bench/state/bench.svelte';
  import { serverStore } from '$ui/bench/state/store';
  import TakeAway from '$ui/piece/TakeAway.svelte';
  import Header from '$ui/shell/Header.svelte';
  import { listening, service } from '$ui/worker/service';
  import Redo from '@lucide/svelte/icons/redo-2';
  import Undo from '@lucide/svelte/icons/undo-2';
  import { untrack } from 'svelte';
  import { toast } from 'svelte-sonner';

  let { data, form } = $props();

  /** The worker with this piece in it. */
  let opened: ReturnType<typeof open> | undefined;
  async function open() {
    const music = service();
    await music.open(data.score, data.levels);
    return {
      show: (wish: Parameters<typeof music.show>[0], listener: Parameters<typeof listening>[0]) =>
        music.show(wish, listening(listener)),
      explain: (note: string, measure: number) => music.explain(note, measure),
    };
  }

  const bench = setBench(
    untrack(
      () =>
        new BenchState(
          {
            ...data.saved,
            levels: data.levels,
            taste: data.taste,
            show: data.show,
            pictures: data.pictures,
          },
          serverStore(data.version.id),
          () => (opened ??= open()),
        ),
    ),
  );
  const { document: doc, selection, view } = bench;

  // Every document is drawn; where the teacher is asks its own questions.
  $effect(() => {
    void doc.current;
    untrack(() => void bench.display());
  });
  $effect(() => {
    void [selection.id, view.version];
    untrack(() => void bench.explain());
  });
  async function record(): Promise<void> {
    const making = toast.loading('The recording is made…');
    try {
      const bytes = await bench.sound.record();
      if (bytes) keepFile(bytes, `${data.version.title}.wav`, 'audio/wav');
      toast.success('The recording is there.', { id: making });
    } catch (error) {
      console.error(error);
      toast.error('The recording could not be made: this browser renders no sound.', { id: making });
    }
  }
  // What could not be saved is tried again, in milliseconds, until the server has it.
  const AGAIN = 3000;
  $effect(() => {
    if (doc.saving.is !== 'failed' || !doc.saving.isWaiting) return;
    const timer = setTimeout(() => void doc.save(), AGAIN);
    return () => clearTimeout(timer);
  });
  $effect(() => {
    if (form && 'given' in form) toast.success(`Given to ${form.given}.`);
  });
</script>

<svelte:head><title>{data.version.title} · bench · Key Path</title></svelte:head>
<svelte:window
  onfocus={() => void doc.catchUp()}
  onbeforeunload={(event) => {
    if (!doc.isSaved) event.preventDefault();
  }}
/>

<div class="flex h-dvh flex-col">
  <Header studio={data.studio}>
    {#snippet trail()}
      <nav aria-label="Where this is" class="flex min-w-16 items-center gap-2 whitespace-nowrap text-quiet">
        <a href="/pieces" class="hover:text-ink">Pieces</a> /
        <a
          href="/pieces/{data.version.pieceId}"
          class="truncate font-semibold text-ink"
          title={data.version.title}>{data.version.title}</a
        >
        {#if data.holders.length > 0}/ <span class="truncate"
            >for {data.holders.map((h) => h.name).join(', ')}</span
          >{/if}
      </nav>
      <div class="ml-auto flex items-center gap-5 xl:shrink-0">
        <RecipeControls />
      </div>
    {/snippet}
  </Header>
  <main id="main" class="flex min-h-0 flex-1 flex-col">
    <h1 class="sr-only">{data.version.title}, bench</h1>
    <div class="flex items-center gap-3 border-b border-hairline px-7 py-1.5 text-[15px]">
      <button
        type="button"
        class="flex h-8 w-8 items-center justify-center disabled:opacity-35"
        aria-label="Undo"
        disabled={!doc.canUndo}
        onclick={() => perform(bench, { do: 'undo' })}><Undo size={18} aria-hidden="true" /></button
      >
      <button
        type="button"
        class="flex h-8 w-8 items-center justify-center disabled:opacity-35"
        aria-label="Redo"
        disabled={!doc.canRedo}
        onclick={() => perform(bench, { do: 'redo' })}><Redo size={18} aria-hidden="true" /></button
      >
      <p class="text-quiet" role="status">
        {#if doc.saving.is === 'saved'}Saved{:else if doc.saving.is === 'saving'}Saving…{:else}
          <span class="text-alarm">Not saved: {doc.saving.why}</span>
          <button type="button" class="link" onclick={() => void doc.save()}>Try again</button>
        {/if}
      </p>
      <a class="link" href="/versions/{data.version.id}/history">History</a>
      <HelpDialog />
      <div class="ml-3"><MarkControls /></div>
      <span class="ml-auto flex shrink-0 items-center gap-5">
        <TakeAway
          at="/versions/{data.version.id}/as"
          formats={data.formats}
          label="Take away"
          made={[{ ending: '.wav', name: 'Recording, as it is heard', make: () => void record() }]}
        />
        <a class="link" href="/versions/{data.version.id}/handout">Handout</a>
        <GiveDialog learners={data.learners} />
      </span>
    </div>
    <Bench title={data.version.title} id={data.version.id} opening={data.opening} />
  </main>
</div>
