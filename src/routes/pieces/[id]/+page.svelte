<script lang="ts">
  import { labelOf, RIGHTS_LABELS } from '$ui/labels';
  import { enhance } from '$app/forms';
  import { stays } from '$ui/form/kept';
  import { goto, invalidateAll } from '$app/navigation';
  import { page } from '$app/state';
  import type { PieceReport, Stage } from '$core/report/report';
  import Discard from '$ui/form/Discard.svelte';
  import Once from '$ui/form/Once.svelte';
  import { analyse } from '$ui/piece/analyse';
  import Analysing from '$ui/piece/Analysing.svelte';
  import ChordList from '$ui/piece/ChordList.svelte';
  import Findings from '$ui/piece/Findings.svelte';
  import { measureLink, measureOf } from '$ui/piece/links';
  import Music from '$ui/piece/Music.svelte';
  import SaidOfPiece from '$ui/piece/SaidOfPiece.svelte';
  import Parts from '$ui/piece/PartChoices.svelte';
  import TunePhrases from '$ui/piece/TunePhrases.svelte';
  import type { TuneChoice } from '$core/players/parts';
  import { tick } from 'svelte';
  import LevelPreview from '$ui/piece/LevelPreview.svelte';
  import TwoInOne from '$ui/piece/TwoInOne.svelte';
  import VersionLine from '$ui/piece/VersionLine.svelte';
  import TakeAway from '$ui/piece/TakeAway.svelte';
  import { levelText } from '$core/arrange/levels';
  import { idiomText, metreText, tempoText } from '$ui/text';

  let { data, form } = $props();
  let renaming = $state(false);
  /** The level that a new version would have. */
  let levelAt = $state(2);
  const level = $derived(data.levels.find((l) => l.level === levelAt) ?? data.levels[0]!);
  let partsForm = $state<HTMLFormElement>();
  /** As it was just chosen; what is saved, once it is. */
  let tune = $state.raw<TuneChoice[]>();
  $effect(() => {
    void data.parts.choices;
    tune = undefined;
  });

  let ownReport = $state.raw<PieceReport>();
  let stage = $state<Stage>('keys');
  let trouble = $state('');
  const report = $derived(data.report ?? ownReport);
  // A long piece is analysed here, again whenever its parts or sections change.
  $effect(() => {
    if (data.report) return;
    const analysis = analyse(data.piece.id, (next) => (stage = next));
    analysis.report.then(
      (found) => ([ownReport, trouble] = [found, '']),
      (error: unknown) => {
        if (!(error instanceof DOMException))
          trouble = error instanceof Error ? error.message : String(error);
      },
    );
    return analysis.stop;
  });

  const shown = $derived(measureOf(page.url.hash));
  const leave = (hash: string): Promise<void> =>
    goto(hash || page.url.pathname, { replaceState: true, noScroll: true, keepFocus: true });
</script>

<svelte:head><title>{data.piece.title} · Key Path</title></svelte:head>

<main id="main" class="mx-auto grid max-w-6xl gap-x-12 px-7 py-7 lg:grid-cols-[minmax(0,1fr)_18rem]">
  <div class="min-w-0">
    <div class="flex flex-wrap items-baseline gap-x-4">
      <h1>{data.piece.title}</h1>
      <button
        type="button"
        class="link text-sm"
        aria-expanded={renaming}
        onclick={() => (renaming = !renaming)}>Rename</button
      >
    </div>
    {#if renaming}
      <form
        method="post"
        action="?/entitle"
        class="my-2 flex flex-wrap items-end gap-3"
        use:enhance={() =>
          async ({ result, update }) => {
            await update({ reset: false });
            if (result.type === 'success') renaming = false;
          }}
      >
        <label class="grid text-sm text-quiet"
          >Title <input
            name="title"
            class="field text-base text-ink"
            value={data.piece.title}
            required
            maxlength="200"
          /></label
        >
        <label class="grid text-sm text-quiet"
          >Composer <input
            name="composer"
            class="field text-base text-ink"
            value={data.piece.composer}
            maxlength="200"
          /></label
        >
        <button class="link mb-1">Save</button>
      </form>
    {/if}
    {#if report}
      <p class="text-quiet">
        {report.keyName}, {metreText(report.time)}{report.tempo > 0
          ? `, ${tempoText(report.time, report.tempo)}`
          : ''}{report.hasPickup ? ', begins with a pickup' : ''}.
        {idiomText(report.idiom)} The original is about level {report.level}.
      </p>
    {/if}
    {#if data.warnings.length > 0}
      <ul class="mt-2 text-alarm">
        {#each data.warnings as warning (warning)}<li>{warning}</li>{/each}
      </ul>
    {/if}

    {#if report}
      <Findings
        pieceId={data.piece.id}
        title={data.piece.title}
        {report}
        numbers={data.numbers}
        decided={data.sections}
        current={shown}
        onselect={(measure) => (location.hash = measureLink(measure))}
        onchange={invalidateAll}
      />
      <ChordList {report} numbers={data.numbers} />
    {:else}
      <Analysing measures={data.numbers.length} {stage} {trouble} />
    {/if}

    <section class="mt-8" aria-labelledby="versions">
      <h2 id="versions">Versions</h2>
      <ul class="mt-1">
        {#each data.versions as version (version.id)}
          <VersionLine {version} learners={data.learners} hasOthers={data.versions.length > 1} />
        {:else}
          <li class="border-t border-hairline py-2.5 text-quiet">
            A version is the piece at one level, in one key. Make the first one.
          </li>
        {/each}
      </ul>
      <form method="post" action="?/version" use:enhance class="mt-3 flex flex-wrap items-end gap-4">
        <Once />
        <label class="grid text-sm text-quiet">
          Level
          <select
            name="level"
            class="field text-base text-ink"
            onchange={(event) => (levelAt = Number(event.currentTarget.value))}
          >
            {#each data.levels as { level, name } (level)}
              <option value={level} selected={level === 2}>{levelText(level)} {name}</option>
            {/each}
          </select>
        </label>
        <label class="grid text-sm text-quiet">
          Key
          <select name="key" class="field text-base text-ink">
            <option value="">suggested for the level</option>
            {#each data.keys as key (key.code)}
              <option value={key.code}>
                {key.name}{key.code === data.sourceKeyCode ? ' (original key)' : `, ${key.signature}`}
              </option>
            {/each}
          </select>
        </label>
        <label class="grid text-sm text-quiet">
          For
          <select name="learner" class="field text-base text-ink">
            <option value="">Anyone (an octave, 61 keys)</option>
            {#each data.learners as learner (learner.id)}
              <option value={learner.id}>{learner.name}</option>
            {/each}
          </select>
        </label>
        <button class="action">Make a version</button>
      </form>
      {#if !data.isTooLong}<LevelPreview pieceId={data.piece.id} {level} />{/if}
      {#if report && data.versions.length > 1}
        <TwoInOne versions={data.versions} sections={report.form.sections} />
      {/if}
      {#if data.isTooLong}
        <p class="mt-3">
          This piece is too long for the bench.
          <a class="link" href="/pieces/{data.piece.id}/cut">Make pieces of its sections</a>
        </p>
      {/if}
      <p class="mt-3">
        <a class="link" href="/pieces/{data.piece.id}/keys">Compare keys</a>
        <a class="link ml-5" href="/pieces/{data.piece.id}/twelve">Chord chart in all 12 keys</a>
      </p>
      {#if form?.message}<p class="mt-2 text-alarm" role="alert">{form.message}</p>{/if}
    </section>
  </div>

  <aside class="mt-8 grid content-start gap-6 lg:mt-2">
    {#if report}
      <section>
        <h2>Scale</h2>
        <p class="text-lg font-semibold tracking-wide">{report.scale.join(' ')}</p>
        <p class="text-quiet">
          {report.signature.length > 0
            ? `Key signature: ${report.signature.join(', ')}`
            : 'No sharps or flats in the key signature'}
        </p>
      </section>
    {/if}
    <SaidOfPiece {data} {report} />
    <section>
      <h2>Source</h2>
      <p>
        <a class="link" href="/pieces/{data.piece.id}/source" data-sveltekit-reload>{data.piece.sourceName}</a
        >
      </p>
      <p class="text-quiet">{data.piece.composer || 'composer unknown'}</p>
      <div class="mt-1 w-fit">
        <TakeAway at="/pieces/{data.piece.id}/as" formats={data.formats} label="Download" />
      </div>
    </section>
    {#if data.mends.length > 0}
      <section aria-labelledby="mended">
        <h2 id="mended">Corrections</h2>
        <p class="text-sm text-quiet">The file is unchanged; versions use these corrections.</p>
        <ul class="mt-1">
          {#each data.mends as mend (mend.subject)}
            <li class="flex flex-wrap items-baseline gap-x-3 text-sm">
              <span>{mend.where}: {mend.says}</span>
              <form method="post" action="?/unmend" use:enhance>
                <input type="hidden" name="subject" value={mend.subject} />
                <button class="link" aria-label="Undo: {mend.where}">Undo</button>
              </form>
            </li>
          {/each}
        </ul>
      </section>
    {/if}
    {#if data.parts.list.length > 1}
      <section aria-labelledby="parts">
        <h2 id="parts">Who plays what</h2>
        <form method="post" action="?/parts" bind:this={partsForm} use:enhance={stays}>
          <Parts
            parts={data.parts.list}
            choices={data.parts.choices}
            onchange={() => partsForm?.requestSubmit()}
          />
          {#if data.parts.tune.length > 0}
            <h3 class="mt-3 font-bold">Melody by phrase</h3>
            <input type="hidden" name="tune" value={JSON.stringify(tune ?? data.parts.choices.tune)} />
            <TunePhrases
              tune={data.parts.tune}
              parts={data.parts.list}
              chosen={tune ?? data.parts.choices.tune}
              onchange={(changed) => {
                tune = changed;
                void tick().then(() => partsForm?.requestSubmit());
              }}
            />
          {/if}
          <noscript><button class="link">Save</button></noscript>
        </form>
      </section>
    {/if}
    <section>
      <h2>Rights</h2>
      <form method="post" action="?/rights" use:enhance={stays} class="mt-1">
        <select
          name="rights"
          class="field"
          aria-label="Rights"
          onchange={(event) => event.currentTarget.form?.requestSubmit()}
        >
          {#each data.rights as id (id)}<option value={id} selected={id === data.piece.rights}
              >{labelOf(RIGHTS_LABELS, id)}</option
            >{/each}
        </select>
        <noscript><button class="link">Save</button></noscript>
      </form>
      <p class="mt-2 text-sm text-quiet">
        Arranging and copying a protected piece may need permission, depending on local law.
      </p>
      <div class="mt-3"><Discard kind="piece" id={data.piece.id} label={data.piece.title} /></div>
    </section>
  </aside>
</main>

{#if report && shown !== undefined && shown < data.numbers.length}
  <Music
    pieceId={data.piece.id}
    form={report.form}
    numbers={data.numbers}
    measure={shown}
    mended={new Set(data.mends.flatMap((m) => m.note ?? []))}
    onmove={(measure) => leave(measureLink(measure))}
    onclose={() => leave('')}
  />
{/if}
