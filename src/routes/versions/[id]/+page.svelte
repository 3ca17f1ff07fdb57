<script lang="ts">
  import { createBench } from '$ui/bench/bench.svelte';
  import Bench from '$ui/bench/Bench.svelte';
  import GiveDialog from '$ui/bench/GiveDialog.svelte';
  import HelpDialog from '$ui/bench/HelpDialog.svelte';
  import MarkControls from '$ui/bench/MarkControls.svelte';
  import RecipeControls from '$ui/bench/RecipeControls.svelte';
  import { saveVersion } from '$ui/bench/save';
  import TakeAway from '$ui/piece/TakeAway.svelte';
  import Header from '$ui/shell/Header.svelte';
  import Redo from '@lucide/svelte/icons/redo-2';
  import Undo from '@lucide/svelte/icons/undo-2';
  import { onMount, untrack } from 'svelte';
  import { toast } from 'svelte-sonner';

  let { data, form } = $props();

  const bench = untrack(() =>
    createBench({
      source: data.source,
      levels: data.levels,
      recipe: data.version.recipe,
      decisions: data.version.decisions,
      revision: data.version.revision,
      save: ({ recipe, decisions }, basedOn) => saveVersion(data.version.id, { recipe, decisions }, basedOn),
    }),
  );

  onMount(() => {
    bench.open();
    return () => bench.close();
  });

  $effect(() => {
    if (form && 'given' in form) toast.success(`Given to ${form.given}.`);
  });
</script>

<svelte:head><title>{data.version.title} · bench · Key Path</title></svelte:head>

<div class="flex h-dvh flex-col">
  <Header studio={data.studio}>
    {#snippet trail()}
      <nav aria-label="Where this is" class="flex min-w-0 items-center gap-2 whitespace-nowrap text-quiet">
        <a href="/pieces" class="hover:text-ink">Pieces</a> /
        <a href="/pieces/{data.version.pieceId}" class="font-semibold text-ink">{data.version.title}</a>
        {#if data.holders.length > 0}/ <span class="truncate"
            >for {data.holders.map((h) => h.name).join(', ')}</span
          >{/if}
      </nav>
      <div class="ml-auto flex items-center gap-5">
        <RecipeControls {bench} />
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
        disabled={!bench.canUndo}
        onclick={() => bench.undo()}><Undo size={18} aria-hidden="true" /></button
      >
      <button
        type="button"
        class="flex h-8 w-8 items-center justify-center disabled:opacity-35"
        aria-label="Redo"
        disabled={!bench.canRedo}
        onclick={() => bench.redo()}><Redo size={18} aria-hidden="true" /></button
      >
      <p class="text-quiet" role="status">
        {#if bench.saveState.is === 'saved'}Saved{:else if bench.saveState.is === 'saving'}Saving…{:else}
          <span class="text-alarm">Not saved: {bench.saveState.why}</span>
          <button type="button" class="link" onclick={() => bench.retrySave()}>Try again</button>
        {/if}
      </p>
      <HelpDialog />
      <div class="ml-3"><MarkControls {bench} /></div>
      <span class="ml-auto flex shrink-0 items-center gap-5">
        <TakeAway at="/versions/{data.version.id}/as" formats={data.formats} label="Take away" />
        <a class="link" href="/versions/{data.version.id}/handout">Handout</a>
        <GiveDialog learners={data.learners} />
      </span>
    </div>
    <Bench {bench} title={data.version.title} id={data.version.id} />
  </main>
</div>
