<script lang="ts">
  import { enhance } from '$app/forms';
  import Path from '$ui/path/Path.svelte';
  import Parts from '$ui/piece/PartChoices.svelte';
  import TakeAway from '$ui/piece/TakeAway.svelte';
  import { differenceText, metreText, plural, tempoText } from '$ui/text';

  let { data, form } = $props();
  let partsForm = $state<HTMLFormElement>();
  const facts = $derived(data.facts);
  const again = $derived(data.form.measureCount - data.form.newMeasures);
</script>

<svelte:head><title>{data.piece.title} · Key Path</title></svelte:head>

<main id="main" class="mx-auto grid max-w-6xl gap-x-12 px-7 py-7 lg:grid-cols-[minmax(0,1fr)_18rem]">
  <div class="min-w-0">
    <h1>{data.piece.title}</h1>
    <p class="text-quiet">
      {facts.key}, {metreText(facts.time)}{facts.tempo > 0
        ? `, ${tempoText(facts.time, facts.tempo)}`
        : ''}{facts.pickup ? ', begins with a pickup' : ''}
    </p>
    {#if data.warnings.length + data.doubts.length > 0}
      <ul class="mt-2 text-alarm">
        {#each [...data.warnings, ...data.doubts] as warning (warning)}<li>{warning}</li>{/each}
      </ul>
    {/if}

    <section class="mt-6" aria-labelledby="form">
      <h2 id="form">
        {data.form.newMeasures} of {plural(data.form.measureCount, 'measure')} are new
      </h2>
      <p class="text-quiet">
        {again > 0
          ? `${plural(again, 'measure')} come again note for note.`
          : 'No measure comes again note for note.'} The line is higher where the measure is harder.
      </p>
      <div class="mt-2">
        <Path
          form={data.form}
          numbers={data.numbers}
          difficulty={data.difficulty}
          label="Form of {data.piece.title}"
        />
      </div>
      {#each data.variants as variant (variant.measures)}
        <p class="mt-2">
          <strong>{variant.label}</strong> ({variant.measures}) is {variant.like}
          {variant.like === variant.label ? `(${variant.likeMeasures})` : ''}
          {variant.transposed === 0
            ? 'with other notes:'
            : `moved by ${plural(Math.abs(variant.transposed), 'semitone')}${variant.differences.length > 0 ? ', with other notes:' : '.'}`}
          {variant.differences
            .map((d) => `${d.measure}: ${differenceText(d.now, d.before)}`)
            .slice(0, 4)
            .join('; ')}{variant.differences.length > 4
            ? ` and ${plural(variant.differences.length - 4, 'measure')} more`
            : ''}
        </p>
      {/each}
      {#if data.hardest.length > 0}
        <h3 class="mt-3 font-semibold">Where it is hard</h3>
        <ul>
          {#each data.hardest as spot (spot.measure)}
            <li><span class="capitalize">{spot.measure}</span>: {spot.reasons.join(', ')}</li>
          {/each}
        </ul>
      {/if}
    </section>

    <section class="mt-6" aria-labelledby="chords">
      <h2 id="chords">Chords</h2>
      <p class="text-quiet">
        {facts.chordsFrom === 'symbol' ? 'As the source names them.' : 'Heard from the notes.'}
        {facts.startsOn ? `The piece begins on ${facts.startsOn}, away from home.` : ''}
      </p>
      {#each data.chords as section, i (i)}
        <div class="mt-3 grid grid-cols-[7rem_minmax(0,1fr)] border-t border-hairline pt-2">
          <h3 class="font-semibold">{section.label}</h3>
          <ul class="flex flex-wrap gap-x-4 gap-y-1">
            {#each section.list as chord (chord.onset)}
              <li>
                <span class="font-semibold">{chord.symbol}</span>
                <span class="font-mono text-sm text-quiet"
                  >{chord.degree}{chord.borrowed ? ', borrowed' : ''}</span
                >
              </li>
            {:else}
              <li class="text-quiet">goes on with the chord before</li>
            {/each}
          </ul>
        </div>
      {/each}
    </section>

    {#if data.shapes.length > 0}
      <section class="mt-6" aria-labelledby="shapes">
        <h2 id="shapes">One name, several shapes</h2>
        <ul>
          {#each data.shapes as { symbol, shapes } (symbol)}
            <li class="mt-1">
              <strong>{symbol}</strong>
              {shapes
                .map(
                  (s) =>
                    `${s.notes} in ${s.measures.length === 1 ? 'measure' : 'measures'} ${s.measures.slice(0, 6).join(', ')}${s.measures.length > 6 ? ' …' : ''}`,
                )
                .join('; ')}
            </li>
          {/each}
        </ul>
      </section>
    {/if}

    <section class="mt-8" aria-labelledby="versions">
      <h2 id="versions">Versions</h2>
      <ul class="mt-1">
        {#each data.versions as version (version.id)}
          <li class="flex items-baseline gap-4 border-t border-hairline py-2.5">
            <a class="font-semibold hover:text-accent" href="/versions/{version.id}">
              Level {version.level} in {version.key}
            </a>
            <span class="text-quiet">
              {version.holders.length > 0
                ? `for ${version.holders.join(', ')}`
                : 'not given yet'}{version.decisions > 0 ? `, ${plural(version.decisions, 'decision')}` : ''}
            </span>
            <a class="link ml-auto" href="/versions/{version.id}/handout">Handout</a>
          </li>
        {:else}
          <li class="border-t border-hairline py-2.5 text-quiet">
            A version is the piece at one level and in one key. Make the first one.
          </li>
        {/each}
      </ul>
      <form method="post" action="?/version" use:enhance class="mt-3 flex flex-wrap items-end gap-4">
        <label class="grid text-sm text-quiet">
          Level
          <select name="level" class="field text-base text-ink">
            {#each data.levels as { level, name } (level)}
              <option value={level} selected={level === 2}>{level} {name}</option>
            {/each}
          </select>
        </label>
        <label class="grid text-sm text-quiet">
          Key
          <select name="key" class="field text-base text-ink">
            {#each data.keys as key (key.code)}
              <option value={key.code} selected={key.code === data.sourceKeyCode}>
                {key.name}{key.code === data.sourceKeyCode ? ', as it is' : `, ${key.signature}`}
              </option>
            {/each}
          </select>
        </label>
        <label class="grid text-sm text-quiet">
          For the hands of
          <select name="learner" class="field text-base text-ink">
            <option value="">anyone (an octave, 61 keys)</option>
            {#each data.learners as learner (learner.id)}
              <option value={learner.id}>{learner.name}</option>
            {/each}
          </select>
        </label>
        <button class="action">Make a version</button>
      </form>
      {#if form?.message}<p class="mt-2 text-alarm" role="alert">{form.message}</p>{/if}
    </section>
  </div>

  <aside class="mt-8 grid content-start gap-6 lg:mt-2">
    <section>
      <h2>Scale</h2>
      <p class="text-lg font-semibold tracking-wide">{facts.scale.join(' ')}</p>
      <p class="text-quiet">
        {facts.signature.length > 0
          ? `In the signature: ${facts.signature.join(', ')}`
          : 'No sharps or flats in the signature'}
      </p>
    </section>
    <section>
      <h2>Source</h2>
      <p>
        <a class="link" href="/pieces/{data.piece.id}/source" data-sveltekit-reload>{data.piece.sourceName}</a
        >
      </p>
      <p class="text-quiet">{data.piece.composer || 'composer not named'}</p>
      <div class="mt-1 w-fit">
        <TakeAway at="/pieces/{data.piece.id}/as" formats={data.formats} label="Take it away as" />
      </div>
    </section>
    {#if data.parts.list.length > 1}
      <section aria-labelledby="parts">
        <h2 id="parts">Who plays what</h2>
        <form
          method="post"
          action="?/parts"
          bind:this={partsForm}
          use:enhance={() =>
            ({ update }) =>
              update({ reset: false })}
        >
          <Parts
            parts={data.parts.list}
            choices={data.parts.choices}
            onchange={() => partsForm?.requestSubmit()}
          />
          <noscript><button class="link">Keep</button></noscript>
        </form>
      </section>
    {/if}
    <section>
      <h2>Rights</h2>
      <form
        method="post"
        action="?/rights"
        use:enhance={() =>
          ({ update }) =>
            update({ reset: false })}
        class="mt-1"
      >
        <select
          name="rights"
          class="field"
          aria-label="Rights"
          onchange={(event) => event.currentTarget.form?.requestSubmit()}
        >
          {#each data.rights as right (right)}<option selected={right === data.piece.rights}>{right}</option
            >{/each}
        </select>
        <noscript><button class="link">Keep</button></noscript>
      </form>
      <p class="mt-2 text-sm text-quiet">
        Arranging and copying a protected song can need permission; the law of the place decides.
      </p>
    </section>
  </aside>
</main>
