<script lang="ts">
  import { reloads } from '$ui/shell/generation';
  import Bench from '$ui/bench/Bench.svelte';
  import { perform } from '$ui/bench/commands';
  import GiveDialog from '$ui/bench/GiveDialog.svelte';
  import HelpButton from '$ui/help/HelpButton.svelte';
  import Sentence from '$ui/bench/Sentence.svelte';
  import { styleOf } from '$ui/bench/recipeChoices';
  import { isSmall, keepShown, roomIn, sheetWish } from '$ui/shown/shown';
  import ShownMenu from '$ui/shown/ShownMenu.svelte';
  import { keepFile } from '$ui/sound/keepFile';
  import { BenchState, setBench } from '$ui/bench/state/bench.svelte';
  import { serverStore } from '$ui/bench/state/store';
  import TakeAway from '$ui/piece/TakeAway.svelte';
  import { browser } from '$app/environment';
  import { enhance } from '$app/forms';
  import { page } from '$app/state';
  import { levelText } from '$core/arrange/levels';
  import type { SheetWish } from '$lib/engrave/sheet';
  import { keyName } from '$core/theory/key';
  import { plural, shortDate } from '$ui/text';
  import { listening, service } from '$ui/worker/service';
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import Redo from '@lucide/svelte/icons/redo-2';
  import Undo from '@lucide/svelte/icons/undo-2';
  import { onMount, untrack } from 'svelte';
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
      hear: (document: Parameters<typeof music.hear>[0], from: number, to: number) =>
        music.hear(document, from, to),
      picture: (document: Parameters<typeof music.picture>[0], show: SheetWish, phrase: number) =>
        music.picture(document, show, phrase),
      patternInSource: (measure: string, staff: number) => music.patternInSource(measure, staff),
    };
  }

  const bench = setBench(
    untrack(
      () =>
        new BenchState(
          {
            ...data.saved,
            levels: data.levels,
            patterns: data.patterns,
            taste: data.taste,
            show: sheetWish(data.shown),
            pictures: data.pictures,
          },
          serverStore(data.version.id, data.saved.edit),
          () => (opened ??= open()),
        ),
    ),
  );
  const { document: doc, selection, view } = bench;
  /** Changes that came after the signature. */
  const later = $derived(
    data.version.signedEdit === null ? 0 : Math.max(0, doc.edit - data.version.signedEdit),
  );
  // Where the page was asked to open, or else where it was left.
  const LEFT = untrack(() => `keypath left ${data.version.id}`);
  untrack(() => selection.open(data.at ?? (browser ? localStorage.getItem(LEFT) : null)));
  $effect(() => {
    const { id } = selection;
    if (id) localStorage.setItem(LEFT, id);
  });
  let giving = $state(false);
  // Asked for by an address: where the first steps lead.
  onMount(() => void (giving = page.url.searchParams.has('assign')));
  let shown = $state(untrack(() => data.shown));
  /** On a narrow screen the settings are one line that opens. */
  let showsRecipe = $state(false);
  const folded = $derived(showsRecipe ? 'max-desk:order-5 max-desk:flex max-desk:w-full' : 'max-desk:hidden');
  const recipeText = $derived.by(() => {
    const made = view.onPath;
    const { level } = doc.recipe;
    const key = keyName(made?.key ?? data.opening.key);
    return `Level ${levelText(level)} ${styleOf(doc.recipe, made)} in ${key}`;
  });
  /** The music takes the room that the window leaves it; what is drawn follows once the window rests. */
  let innerWidth = $state<number>();
  const SETTLED = 150;
  $effect(() => {
    if (innerWidth === undefined) return;
    const room = roomIn(innerWidth);
    if (room === untrack(() => shown.room)) return;
    const timer = setTimeout(() => {
      shown = { ...shown, room };
      keepShown(shown);
      view.show = sheetWish(shown);
    }, SETTLED);
    return () => clearTimeout(timer);
  });
  async function copyLink(): Promise<void> {
    const measure = view.version?.score.measures[selection.measure ?? 0];
    const url = new URL(`/versions/${data.version.id}?at=${measure?.id ?? ''}`, location.href).href;
    try {
      await navigator.clipboard.writeText(url);
      toast.success('Link copied.');
    } catch {
      // A page without a secure address may not write to the clipboard: the link itself is shown.
      toast(url, { duration: 20_000 });
    }
  }
  /** Verses of the song, where it has words. */
  const verses = $derived(
    [
      ...new Set(
        (view.onPath?.score.parts[0]?.notes ?? []).flatMap((n) =>
          (n.lyrics ?? []).flatMap((l) => (l.line === 'words' ? l.verse : [])),
        ),
      ),
    ].sort((a, b) => a - b),
  );

  // Every document is drawn; where the teacher is asks its own questions.
  $effect(() => {
    void [doc.current, view.show];
    untrack(() => void bench.display());
  });
  $effect(() => {
    void [selection.id, view.version];
    untrack(() => void bench.explain());
  });
  async function record(): Promise<void> {
    const making = toast.loading('Recording…');
    try {
      const bytes = await bench.sound.record();
      if (bytes) keepFile(bytes, `${data.version.title}.wav`, 'audio/wav');
      toast.success('Recording ready.', { id: making });
    } catch (error) {
      console.error(error);
      toast.error('The recording couldn’t be made: this browser can’t render sound.', { id: making });
    }
  }
  // A window that was open before undoes its own changes, not those of others since.
  onMount(() => void doc.catchUp());
  // What could not be saved is tried again, in milliseconds, until the server has it.
  const AGAIN = 3000;
  $effect(() => {
    if (doc.saving.is !== 'failed' || !doc.saving.isWaiting) return;
    const timer = setTimeout(() => void doc.save(), AGAIN);
    return () => clearTimeout(timer);
  });
  $effect(() => {
    if (form && 'given' in form) toast.success(`Assigned to ${form.given}.`);
  });
</script>

<svelte:head><title>{data.version.title} · bench · Key Path</title></svelte:head>
<svelte:window
  bind:innerWidth
  onfocus={() => void doc.catchUp()}
  onbeforeunload={(event) => {
    if (!doc.isSaved && !reloads()) event.preventDefault();
  }}
/>

<div class="flex h-dvh flex-col">
  <header
    class="flex flex-wrap items-center gap-x-3 border-b border-hairline px-5 py-1 text-sm max-desk:px-3 print:hidden"
  >
    <nav
      aria-label="Where this is"
      class="flex min-w-0 items-center gap-2 whitespace-nowrap text-quiet max-desk:flex-1"
    >
      <a class="font-bold text-ink" href="/">Key Path</a> <span aria-hidden="true">/</span>
      <a
        href="/pieces/{data.version.pieceId}"
        class="max-w-40 truncate font-semibold text-ink"
        title="{data.version.title}{data.holders.length > 0
          ? `, for ${data.holders.map((h) => h.name).join(', ')}`
          : ''}">{data.version.title}</a
      >
    </nav>
    <button
      type="button"
      class="order-4 flex w-full items-center gap-1 text-left desk:hidden"
      aria-expanded={showsRecipe}
      onclick={() => (showsRecipe = !showsRecipe)}
    >
      <span class="min-w-0 flex-1 truncate">{recipeText}</span>
      <ChevronDown size={18} class={showsRecipe ? 'rotate-180' : ''} aria-hidden="true" />
    </button>
    <div class="contents {folded}"><Sentence /></div>
    <span class="ml-auto flex shrink-0 items-center gap-2.5 max-desk:order-2 max-desk:gap-1">
      <p class="text-quiet max-desk:max-w-40 max-desk:truncate" role="status">
        {#if doc.saving.is === 'saved'}Saved{:else if doc.saving.is === 'saving'}Saving…{:else}
          <span class="text-alarm">Not saved: {doc.saving.why}</span>
          <button type="button" class="link" onclick={() => void doc.save()}>Try again</button>
        {/if}
      </p>
      <span class="flex">
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
        <span class="contents max-desk:hidden"><HelpButton /></span>
      </span>
    </span>
    <div class="flex items-center gap-2.5 max-desk:order-5 max-desk:gap-5 {folded}">
      <a class="link whitespace-nowrap" href="/versions/{data.version.id}/decisions"
        >{plural(doc.decisions.length, 'choice')}</a
      >
      <ShownMenu
        {shown}
        {verses}
        onchange={(next) => {
          shown = next;
          view.show = sheetWish(next);
        }}
      />
      <span class="desk:hidden"><HelpButton /></span>
    </div>
    <div class="max-desk:order-3">
      <TakeAway
        at="/versions/{data.version.id}/as"
        formats={data.formats}
        label="More"
        places={[
          { href: `/versions/${data.version.id}/handout`, name: 'Handout' },
          { href: `/versions/${data.version.id}/history`, name: 'History' },
          { href: `/versions/${data.version.id}/levels`, name: 'Levels side by side' },
          { href: `/versions/${data.version.id}/keys`, name: 'Compare keys' },
          { href: `/versions/${data.version.id}/compare`, name: 'Compare versions' },
        ]}
        acts={[
          { name: 'Assign to a student', act: () => (giving = true) },
          { name: 'Copy link to this measure', act: () => void copyLink() },
        ]}
        made={[{ ending: '.wav', name: 'Recording', make: () => void record() }]}
      />
    </div>
    <form
      method="post"
      action="?/sign"
      class="max-desk:order-6 max-desk:py-1 {folded}"
      use:enhance={async ({ cancel }) => {
        await doc.save();
        if (!doc.isSaved) cancel();
        return ({ update }) => update({ reset: false });
      }}
    >
      {#if data.version.signedEdit !== null && later === 0}
        <input type="hidden" name="sign" value="no" />
        <button class="link whitespace-nowrap" title="Back to draft"
          >Ready {shortDate(data.version.signedAt ?? '')}</button
        >
        <button type="button" class="action ml-2 whitespace-nowrap" onclick={() => (giving = true)}
          >Assign</button
        >
      {:else}
        <button
          class="action whitespace-nowrap"
          title={data.version.signedEdit === null
            ? 'Mark this version as ready'
            : `Ready ${shortDate(data.version.signedAt ?? '')}; ${plural(later, 'change')} since`}
          >{data.version.signedEdit === null
            ? 'Mark as ready'
            : `Mark ready again (${plural(later, 'change')})`}</button
        >
      {/if}
    </form>
    <GiveDialog
      learners={data.learners}
      level={doc.recipe.level}
      plans={(form && 'plans' in form ? form.plans : undefined) ?? []}
      bind:open={giving}
    />
  </header>
  <main id="main" class="flex min-h-0 flex-1 flex-col">
    <h1 class="sr-only">{data.version.title}, bench</h1>
    <Bench title={data.version.title} id={data.version.id} opening={data.opening} isSmall={isSmall(shown)} />
  </main>
</div>
