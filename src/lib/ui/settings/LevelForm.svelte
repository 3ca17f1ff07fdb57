<script lang="ts">
  /** One level's limits as a form. An empty field is no limit: as the source or the hand has it. */
  import type { LevelContract } from '$core/arrange/levels';

  interface Props {
    level: LevelContract;
    problems: Readonly<Record<string, string>>;
  }
  let { level, problems }: Props = $props();

  const VALUES = [
    [1, 'whole'],
    [2, 'half'],
    [4, 'quarter'],
    [8, 'eighth'],
    [16, 'sixteenth'],
    [32, 'thirty-second'],
  ] as const;
  const TIES = { fill: 'only to fill a long note', barline: 'across a barline', any: 'anywhere' };
  const TUPLETS = { none: 'none', triplets: 'triplets', any: 'any' };
  const OVERLAP = { no: 'never', freed: 'where held notes make room', written: 'as written' };
  const PEDAL = {
    none: 'none',
    harmony: 'with each harmony',
    lifted: 'with lifted pedal too',
    all: 'any style',
  };
  const OWN = {
    replaced: 'a left-hand pattern replaces it',
    thinned: 'thinned until it fits',
    kept: 'kept as written',
  };
</script>

{#snippet number(name: string, label: string, value: number | null, min: number, max: number, empty = '')}
  <label class="grid content-end text-sm text-quiet">
    {label}
    <input
      class="field w-full min-w-0 text-base text-ink"
      type="number"
      {name}
      {min}
      {max}
      step="any"
      value={value ?? ''}
      placeholder={empty}
      required={empty === ''}
      aria-invalid={problems[name] ? 'true' : undefined}
    />
    {#if problems[name]}<span class="text-alarm" role="alert">{problems[name]}</span>{/if}
  </label>
{/snippet}

{#snippet shortest(name: string, label: string, value: number | null)}
  <label class="grid content-end text-sm text-quiet">
    {label}
    <select class="field w-full min-w-0 text-base text-ink" {name} value={value ?? ''}>
      <option value="">as the source</option>
      {#each VALUES as [denominator, word] (denominator)}<option value={denominator}>{word}</option>{/each}
    </select>
  </label>
{/snippet}

{#snippet choice(name: string, label: string, value: string, options: Readonly<Record<string, string>>)}
  <label class="grid content-end text-sm text-quiet">
    {label}
    <select class="field w-full min-w-0 text-base text-ink" {name} {value}>
      {#each Object.entries(options) as [id, word] (id)}<option value={id}>{word}</option>{/each}
    </select>
  </label>
{/snippet}

{#snippet dots(name: string, label: string, values: readonly number[] | null)}
  <fieldset class="col-span-full">
    <legend class="text-sm text-quiet">{label}</legend>
    <div class="flex flex-wrap gap-x-4">
      <label class="flex min-h-7 items-center gap-1.5">
        <input type="checkbox" class="tick" name="{name}Any" checked={values === null} /> any
      </label>
      {#each VALUES as [denominator, word] (denominator)}
        <label class="flex min-h-7 items-center gap-1.5">
          <input
            type="checkbox"
            class="tick"
            {name}
            value={denominator}
            checked={values?.includes(denominator) ?? false}
          />
          {word}
        </label>
      {/each}
    </div>
  </fieldset>
{/snippet}

<div class="grid max-w-3xl grid-cols-2 gap-x-6 gap-y-3 sm:grid-cols-3">
  <label class="grid content-end text-sm text-quiet">
    Name
    <input
      class="field w-full min-w-0 text-base text-ink"
      name="name"
      value={level.name}
      required
      maxlength="40"
    />
    {#if problems.name}<span class="text-alarm" role="alert">{problems.name}</span>{/if}
  </label>
  {@render number('accidentals', 'Sharps or flats', level.accidentals, 0, 7, 'as the source')}
  {@render number('tempoShare', 'Goal tempo, share of the original', level.tempoShare, 0.3, 1.2)}
  {@render number('rightNotes', 'Right hand, notes at once', level.rightNotes, 1, 5)}
  {@render number('leftNotes', 'Left hand, notes at once', level.leftNotes, 1, 5)}
  {@render number('span', 'Widest span (half steps)', level.span, 1, 24, 'the reach')}
  {@render shortest('shortestSimple', 'Shortest note, simple meter', level.shortestSimple)}
  {@render shortest('shortestCompound', 'Shortest note, compound meter', level.shortestCompound)}
  {@render number('leap', 'Widest leap without a beat to move (half steps)', level.leap, 1, 36, 'any')}
  {@render dots('dotted', 'Dotted notes, simple meter', level.dotted)}
  {@render dots('dottedCompound', 'Dotted notes, compound meter', level.dottedCompound)}
  {@render choice('ties', 'Ties', level.ties, TIES)}
  {@render choice('tuplets', 'Tuplets', level.tuplets, TUPLETS)}
  {@render choice('overlap', 'Shared or crossed hands', level.overlap, OVERLAP)}
  {@render number('leftOnsets', 'Left-hand notes in a row', level.leftOnsets?.most ?? null, 1, 16, 'any')}
  {@render choice('leftOnsetsPer', 'in each', level.leftOnsets?.per ?? 'measure', {
    measure: 'measure',
    beat: 'beat',
  })}
  {@render choice('pedal', 'Pedal', level.pedal, PEDAL)}
  {@render choice('accompaniment', 'Original accompaniment', level.accompaniment, OWN)}
  {@render number('steadiness', 'How strongly to stay in position', level.steadiness, 1, 4)}
</div>
